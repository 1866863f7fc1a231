#include "target.h"

#include "core/job/job.h"
#include "link/as_found.h"
#include "link/map_file.h"

using namespace vernal;

int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    const auto map = read_register_map(fuzz::text_of(data, size), "fuzzed");
    if (!map)
        return 0;
    const auto again = read_register_map(write_register_map(*map), "written");
    fuzz::must(static_cast<bool>(again), "a map that was accepted is refused when written");
    fuzz::must(*again == *map, "a map reads back otherwise");
    static const Job job = new_job("glycol-coil");
    WireImage image;
    for (const MapRegister& r : map->registers)
        for (int a = r.address; a < end_of(r); ++a)
            image.put(r.table, a, static_cast<std::uint16_t>(a * 7919));
    as_found(*map, image, job, 0);
    for (const WireDifference& d : wire_differences(*map, image, job, 0, {}))
        fuzz::must(!d.write || d.write->words.size() == static_cast<std::size_t>(words_of(map->registers[d.write->at].type)), "a write without its words");
    return 0;
}
