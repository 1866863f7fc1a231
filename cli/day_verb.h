// Ready days put into a job.
#pragma once

#include "core/job/job.h"
#include "verb.h"

namespace vernal {

class DayVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    Result<Day> added(Job& job) const;
    std::string job_, add_, weather_, name_, out_;
};

} // namespace vernal
