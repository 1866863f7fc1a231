#include "target.h"

#include "core/bench/drill.h"

using namespace vernal;

int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    const auto d = read_drill(fuzz::text_of(data, size), "fuzzed");
    if (!d)
        return 0;
    const auto again = read_drill(write_drill(*d), "written");
    fuzz::must(static_cast<bool>(again), "a drill that was accepted is refused when written");
    fuzz::must(*again == *d, "a drill reads back otherwise");
    return 0;
}
