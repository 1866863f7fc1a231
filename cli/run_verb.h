#pragma once

#include "verb.h"

#include "core/job/job.h"

namespace vernal {

// Runs a variant over a generated day (coupled) or a trace (replay).
class RunVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    Result<int> coupled(const Streams& s, const Job& job, const Variant& v, const Day& day);
    Result<int> replay(const Streams& s, const Variant& v, const Trace& trace, const Day* day = nullptr);

    std::string job_, day_, trace_, variant_, csv_;
    double sample_s_ = 0, step_s_ = 0;
    bool json_ = false;
};

} // namespace vernal
