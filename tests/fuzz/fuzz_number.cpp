#include "target.h"

#include "core/units/quantity.h"

#include <cmath>

using namespace vernal;

// The first byte chooses quantity and units.
int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    if (size == 0)
        return 0;
    const auto quantity = static_cast<Quantity>(data[0] / 2U % (static_cast<unsigned>(Quantity::date) + 1));
    Units units;
    if (data[0] % 2U != 0)
        units = Units::us();
    const auto number = parse(fuzz::text_of(data + 1, size - 1), quantity, units);
    if (!number)
        return 0;
    fuzz::must(std::isfinite(*number), "what is no number was accepted");
    const std::string shown = to_text(*number, quantity, units);
    fuzz::must(static_cast<bool>(parse(shown, quantity, units)), "a number as shown is refused");
    return 0;
}
