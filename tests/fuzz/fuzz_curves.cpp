#include "target.h"

#include "files/curve_file.h"

using namespace vernal;

int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    read_curves(fuzz::text_of(data, size), "fuzzed");
    return 0;
}
