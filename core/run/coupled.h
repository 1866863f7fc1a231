// A coupled run over the days of a setup: simulation, figures, and on demand
// records and rows.
#pragma once

#include "figures.h"
#include "recorder.h"
#include "setup.h"

#include <functional>
#include <stop_token>

namespace vernal {

struct CoupledResult {
    Figures figures;
    std::vector<Record> records; // one per step kept, dense where things happen
    std::vector<float> nodes;    // records × network size, °C
    std::size_t node_count = 0;
    std::vector<double> begins_c; // of every node when the first counted day began
    EngineState first_state;      // of the engine before the first counted sample
    bool cancelled = false;
    CoupledResult();
    CoupledResult(const CoupledResult&);
    CoupledResult(CoupledResult&&) noexcept;
    CoupledResult& operator=(const CoupledResult&);
    CoupledResult& operator=(CoupledResult&&) noexcept;
    ~CoupledResult();
};

struct CoupledOptions {
    bool keep_records = true;
    std::function<void(const SampleRow&)> each_sample; // may be empty
    std::stop_token stop;
};

CoupledResult run_coupled(const CoupledSetup& setup, const CoupledOptions& options = {});

} // namespace vernal
