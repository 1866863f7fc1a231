#include "target.h"

#include "files/curve_file.h"

using namespace vernal;

int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    const auto book = read_curves(fuzz::text_of(data, size), "fuzzed");
    if (!book)
        return 0;
    const auto again = read_curves(write_curves(*book), "written");
    fuzz::must(static_cast<bool>(again), "curves that were accepted are refused when written");
    fuzz::must(*again == *book, "curves that were accepted read back otherwise");
    return 0;
}
