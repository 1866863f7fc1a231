// A procedure on the simulated bench, without hands.
#pragma once

#include "core/job/job.h"
#include "verb.h"

namespace vernal {

class ProcedureVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    // The results into the job's bench and its open visit.
    Result<std::monostate> keep(const Streams& s, const std::vector<BenchRecord>& records) const;
    std::string job_, name_, fault_, variant_, file_, visit_, out_;
    bool list_ = false, json_ = false, keep_ = false;
};

} // namespace vernal
