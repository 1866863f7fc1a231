// A row of the bench's recorder.
#pragma once

#include <cstdint>
#include <vector>

namespace vernal {

struct BenchSample {
    double time_s = 0;
    std::vector<float> reads; // by probe, °C; NaN: none
    std::uint32_t turns = 0;  // bit per output
};

} // namespace vernal
