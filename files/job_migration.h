// Older versions of the job file, brought to today's in steps of one version.
// docs/job-format.md says what each version changed and what is promised.
#pragma once

#include <nlohmann/json.hpp>

namespace vernal {

inline constexpr int job_format_version = 10;

// The body of a file of `version`, its head taken off; newer ones are left alone.
void migrate_job(nlohmann::ordered_json& body, int version);

} // namespace vernal
