#include "chosen_variant.h"

#include "files/job_file.h"

namespace vernal {

Result<std::pair<Job, std::size_t>> chosen_variant(const std::string& file, const std::string& variant)
{
    if (file.empty())
        return std::pair{new_job("glycol-coil"), std::size_t{0}};
    auto job = open_job(file);
    if (!job)
        return job.error();
    for (std::size_t i = 0; i < job->variants.size(); ++i)
        if (variant.empty() || job->variants[i].name == variant)
            return std::pair{std::move(*job), i};
    return Error{"there is no variant “" + variant + "”", file, ""};
}

} // namespace vernal
