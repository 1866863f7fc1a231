#include "parts.h"

namespace vernal {

const PartText& part_text(Part part)
{
    static constexpr const char* roof = "Roof work: use a fall arrest. An empty collector in the sun holds steam: cover it before you open or fill the loop.";
    static constexpr const char* pipe = "Pipe near the collector can carry steam: no plastic there. The fluid may be hot and under pressure.";
    static constexpr const char* hot = "Hot water scalds. A tempering valve holds the taps at 49 °C or less. Never cap or disable a relief valve.";
    static constexpr const char* mains = "Mains: isolate and prove dead before opening a cover. Never run the pump dry.";
    static const std::array<PartText, part_count> table{{{"Collector", roof},
        {"Supply pipe", pipe},
        {"Return pipe", pipe},
        {"Tank", hot},
        {"Pump and fluid", mains},
        {"Second collector", roof},
        {"Second supply pipe", pipe},
        {"Second return pipe", pipe},
        {"Second tank", hot},
        {"Second pump", mains},
        {"Heat exchanger", "Drinking water: a double-wall exchanger where the code asks for one, and propylene glycol, never ethylene. A leaking check valve can freeze its water side."},
        {"Pool", "Keep the suction covered and the pump's mains away from the water. Treated water eats copper at low pH."},
        {"Slab", "Limit what enters the floor: hot fluid cracks screed and warps wood."},
        {"Room", "Air from a stagnating collector is hot enough to burn and to melt plastic duct. Keep smoke alarms out of its way."},
        {"Emergency cooler", "Its pipe and fins reach the collector's temperature. Never close its valve by hand on a sunny day."},
        {"Reservoir", "Never let water onto a hot empty collector: it flashes to steam. Wait, or cover the array."},
        {"Diverting valve", "Prove dead before opening its motor. It must fall to the safe side without power."},
        {"Lift and drain", "Water on a hot empty collector flashes to steam: fill it cool. No check valve in the return: it would keep the array from draining."},
        {"PV panel", "A panel in light cannot be switched off: cover it before you wire. Its voltage is highest open and cold. Earth its frame."},
        {"Motor", "Fuse it. Mind the polarity: a pump turning backwards moves a little water and wears out."},
        {"Battery", "Fuse it at its terminal: a short circuit burns. It gives off explosive gas while charging: air, and no flame. Acid burns eyes and skin."},
        {"Element", "Mains: fixed wiring on its own breaker, isolated and proved dead. Never switch it on in an empty tank. Hot water scalds."},
        {"Vessel and relief valve", "Never cap, plug or disable a relief valve; lead its outlet to a safe place. Its discharge is steam and hot glycol. Let the loop cool before you open it."},
        {"Check valve", "Let the loop cool and take its pressure off before you open it."},
        {"Cable and breaker", "Isolate and prove dead. The breaker protects the weakest part behind it. Fixed wiring is for a licensed electrician where the law asks for one."},
        {"Rock bed", "Damp rocks grow mould: keep it dry, filter the air. Smoke and carbon monoxide alarms in the rooms it serves."},
        {"Exchanger pump", mains},
        {"Valve to the cooler", "Prove dead before opening its motor. It must fall to the safe side without power. Never close it by hand on a sunny day."}}};
    return table[static_cast<std::size_t>(part)];
}

} // namespace vernal
