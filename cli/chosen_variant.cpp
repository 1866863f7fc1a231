#include "chosen_variant.h"

#include "files/job_file.h"

namespace vernal {

Result<std::size_t> variant_index(const Job& job, const std::string& variant, const std::string& file)
{
    for (std::size_t i = 0; i < job.variants.size(); ++i)
        if (variant.empty() || job.variants[i].name == variant || job.variants[i].id == variant)
            return i;
    return Error{"there is no variant “" + variant + "”", file, ""};
}

Result<std::pair<Job, std::size_t>> chosen_variant(const std::string& file, const std::string& variant)
{
    if (file.empty())
        return std::pair{new_job("glycol-coil"), std::size_t{0}};
    auto job = open_job(file);
    if (!job)
        return job.error();
    const auto index = variant_index(*job, variant, file);
    if (!index)
        return index.error();
    return std::pair{std::move(*job), *index};
}

} // namespace vernal
