// Attachments: files kept with a job by the SHA-256 of their content (FIPS 180-4).
#pragma once

#include "core/job/job.h"

#include <functional>
#include <optional>

namespace vernal {

std::string sha256_hex(const std::string& bytes); // 64 hex digits, lower case

// name: without folder; what stands before its last slash is taken off.
Attachment make_attachment(const std::string& name, std::string bytes);

void keep_attachment(Job& job, Attachment a); // in place of one of its name

// Puts the content found under each hash into the job's attachments; find gives
// nothing where there is none. Content that does not have its hash is left out.
// Gives a notice for each attachment whose content is lost.
using FindContent = std::function<std::optional<std::string>(const std::string& sha256)>;
std::vector<std::string> fill_attachments(Job& job, const FindContent& find);

} // namespace vernal
