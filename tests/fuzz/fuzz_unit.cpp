#include "target.h"

#include "core/unit/unit_lists.h"
#include "files/unit_file.h"

using namespace vernal;

int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    const auto s = read_unit_sheet(fuzz::text_of(data, size), "fuzzed");
    if (!s)
        return 0;
    const auto again = read_unit_sheet(write_unit_sheet(*s), "written");
    fuzz::must(static_cast<bool>(again), "a sheet that was accepted is refused when written");
    fuzz::must(*again == *s, "a sheet reads back otherwise");
    static const Job job = new_job("glycol-coil");
    key_list(*s, job, 0);
    wiring_list(*s, job.variants.front());
    return 0;
}
