// Which member of the loop a part is; the one place that says so.
#pragma once

#include "loop.h"

namespace vernal {

// Calls f(value) with the loop's value of this part. A valve has no numbers.
template <class L, class F>
void with_part(L& loop, Part part, F f)
{
    switch (part) {
    case Part::collector: return f(loop.collector);
    case Part::supply: return f(loop.supply);
    case Part::back: return f(loop.back);
    case Part::tank: return f(loop.tank);
    case Part::pump: return f(loop.pump);
    case Part::collector_2: return f(loop.collector_2);
    case Part::supply_2: return f(loop.supply_2);
    case Part::back_2: return f(loop.back_2);
    case Part::tank_2: return f(loop.tank_2);
    case Part::pump_2: return f(loop.pump_2);
    case Part::exchanger: return f(loop.exchanger);
    case Part::pool: return f(loop.pool);
    case Part::slab: return f(loop.slab);
    case Part::room: return f(loop.room);
    case Part::cooler: return f(loop.cooler);
    case Part::reservoir: return f(loop.reservoir);
    case Part::drain_back: return f(loop.drain_back);
    case Part::panel: return f(loop.panel);
    case Part::motor: return f(loop.motor);
    case Part::battery: return f(loop.battery);
    case Part::element: return f(loop.element);
    case Part::vessel: return f(loop.vessel);
    case Part::check_valve: return f(loop.check_valve);
    case Part::wiring: return f(loop.wiring);
    case Part::rock_bed: return f(loop.rock_bed);
    case Part::exchanger_pump: return f(loop.exchanger_pump);
    case Part::heater: return f(loop.heater);
    case Part::circulation: return f(loop.circulation);
    case Part::valve:
    case Part::cooler_valve: return;
    }
}

// Of a part that is a pump.
template <class L>
auto& pump_of(L& loop, Part part) { return part == Part::pump_2 ? loop.pump_2 : part == Part::exchanger_pump ? loop.exchanger_pump
                                                                                                             : loop.pump; }

// Whether a number of a part says something in this loop: no coil without one, no fluid in
// an air collector. key: of its field.
bool has_field(const Arrangement& arrangement, Part part, std::string_view key);
// Its value is read off a test report; without one the kind's own does (collector_kinds.h).
bool from_report(Part part, std::string_view key);

// What a part is called, and the caution that belongs beside it.
struct PartText {
    const char* title;
    const char* caution;
};
const PartText& part_text(Part part);

} // namespace vernal
