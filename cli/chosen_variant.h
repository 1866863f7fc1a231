// The job and variant a command is about.
#pragma once

#include "core/job/job.h"

namespace vernal {

// Index of the variant of this name or id, of the first for an empty one.
Result<std::size_t> variant_index(const Job& job, const std::string& variant, const std::string& file);

// Index of the variant of this name, of the first for an empty one. Without a
// file: a new glycol loop.
Result<std::pair<Job, std::size_t>> chosen_variant(const std::string& file, const std::string& variant);

} // namespace vernal
