#include "target.h"

#include "core/bench/procedure.h"

using namespace vernal;

int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    const auto p = read_procedure(fuzz::text_of(data, size), "fuzzed");
    if (!p)
        return 0;
    const auto again = read_procedure(write_procedure(*p), "written");
    fuzz::must(static_cast<bool>(again), "a procedure that was accepted is refused when written");
    fuzz::must(*again == *p, "a procedure reads back otherwise");
    return 0;
}
