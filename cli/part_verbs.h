// Rules, outputs and probes of a unit, added and removed.
#pragma once

#include "verb.h"

#include "core/job/job.h"

namespace vernal {

// add JOB rule|output|probe NAME
class AddVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    Result<std::string> add(Variant& v) const; // where it stands now
    std::string job_, what_, name_, variant_, out_, output_, drives_, place_, title_, curve_;
};

// remove JOB rule|output|probe NAME
class RemoveVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string job_, what_, name_, variant_, out_;
};

} // namespace vernal
