#include "parts.h"

#include "collector_kinds.h"

#include <algorithm>

namespace vernal {

bool has_field(const Arrangement& a, Part part, std::string_view key)
{
    const auto one_of = [key](std::initializer_list<std::string_view> keys) { return std::find(keys.begin(), keys.end(), key) != keys.end(); };
    switch (part) {
    case Part::collector:
    case Part::collector_2:
        if (one_of({"wind_loss_j_m3k", "wind_gain_s_m", "wind_from"}))
            return uncovered(a.answers.array);
        if (key == "wetted_at_m3_s")
            return a.answers.array == Array::trickle;
        return a.carrier != Carrier::air || !one_of({"content_m3", "drop_pa", "drop_flow_m3_s"});
    case Part::tank:
        if (key == "above_m")
            return !a.pumped();
        [[fallthrough]];
    case Part::tank_2: return key != "above_m" && (a.answers.transfer == Transfer::coil || !one_of({"coil_w_k", "coil_top"}));
    case Part::vessel: return a.carrier == Carrier::glycol || key != "boils_k";
    case Part::drain_back: return a.has(Part::reservoir) || key != "vented"; // an open tank always is
    default: return true;
    }
}

bool from_report(Part part, std::string_view key)
{
    return (part == Part::collector || part == Part::collector_2) && key != "area_m2" && key != "tilt_deg" && key != "azimuth_deg" && key != "content_m3" && key != "wetted_at_m3_s";
}

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
        {"Valve to the cooler", "Prove dead before opening its motor. It must fall to the safe side without power. Never close it by hand on a sunny day."},
        {"Heater after the tank", "Hot water scalds: the tempering valve sits behind this heater. Never cap its relief valve. Gas, flue and mains are for a licensed tradesperson. What stands lukewarm in the solar tank must be made hot here."},
        {"Tap circulation", "It carries what the tank holds past every tap: hot water scalds, a tempering valve holds the taps at 49 °C or less. Where it only keeps lukewarm, legionella grow. Local codes say how warm its return must be."}}};
    return table[static_cast<std::size_t>(part)];
}

} // namespace vernal
