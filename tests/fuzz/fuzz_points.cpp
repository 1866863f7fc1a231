#include "target.h"

#include "files/points_csv.h"

#include <cmath>

using namespace vernal;

int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    if (const auto points = read_points(fuzz::text_of(data, size), "fuzzed"))
        for (const CurvePoint& p : *points)
            fuzz::must(std::isfinite(p.temp_c) && std::isfinite(p.ohm), "a point that is no number was accepted");
    return 0;
}
