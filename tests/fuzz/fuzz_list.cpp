// Check lists and dictated lines.
#include "target.h"

#include "core/visit/check_list.h"
#include "core/visit/dictation.h"

#include <sstream>

using namespace vernal;

int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    const std::string text = fuzz::text_of(data, size);
    if (const auto list = read_check_list(text, "fuzzed")) {
        const auto again = read_check_list(write_check_list(*list), "written");
        fuzz::must(static_cast<bool>(again), "a list that was accepted is refused when written");
        fuzz::must(*again == *list, "a list reads back otherwise");
    }
    static const Variant v = new_job("glycol-coil").variants.front();
    Visit said;
    std::istringstream in(text);
    for (std::string line; std::getline(in, line);)
        (void)dictate(said, line, v, Units::metric());
    Visit back;
    for (const std::string& line : dictated(said))
        fuzz::must(static_cast<bool>(dictate(back, line, v, Units::metric())), "a line that was accepted is refused when written");
    fuzz::must(back == said, "a visit reads back otherwise");
    return 0;
}
