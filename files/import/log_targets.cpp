#include "log_layout.h"

#include <algorithm>

namespace vernal {
namespace {

LogTarget::Kind kind_of(ProbePlace place)
{
    switch (reads_at(place)) {
    case Reads::flow: return LogTarget::Kind::flow;
    case Reads::pressure: return LogTarget::Kind::pressure;
    case Reads::irradiance: return LogTarget::Kind::irradiance;
    case Reads::temperature: break;
    }
    return LogTarget::Kind::temperature;
}

} // namespace

std::vector<LogTarget> log_targets(const Variant& v)
{
    std::vector<LogTarget> out;
    const auto put = [&](LogTarget t) {
        if (std::none_of(out.begin(), out.end(), [&](const LogTarget& x) { return x.name == t.name; }))
            out.push_back(std::move(t));
    };
    for (std::size_t i = 0; i < v.probes.size(); ++i) {
        const Probe& p = v.probes[i];
        const std::string place = place_names[static_cast<std::size_t>(p.place)], column = log_column(v, i);
        LogTarget t{column, column == place_key(p.place) ? place : place + ", " + p.key, kind_of(p.place), {}, {p.key, p.name, p.key + " " + p.name}};
        if (reads_temperature(p) && is_resistance(p.curve))
            t.curve = p.curve;
        put(std::move(t));
    }
    for (const Output& o : v.unit.outputs)
        put({o.key, o.name.empty() ? o.key : o.key + ", " + o.name, LogTarget::Kind::on_off, {}, {o.name, o.key + " " + o.name}});
    put({"air", "Outdoor air", LogTarget::Kind::temperature, {}, {}});
    put({"irradiance", "Sun, level", LogTarget::Kind::irradiance, {}, {}});
    put({"irradiance_plane", "Sun on the array", LogTarget::Kind::irradiance, {}, {}});
    put({"supply", "Supply of the unit", LogTarget::Kind::volt, {}, {}});
    for (std::size_t i = 0; i < probe_places; ++i)
        put({place_keys[i], place_names[i], kind_of(static_cast<ProbePlace>(i)), {}, {}});
    return out;
}

const std::vector<const char*>& units_for(LogTarget::Kind kind)
{
    static const std::vector<const char*> temperature{"°C", "°F", "K", "0.1 °C", "0.01 °C", "0.1 °F", "Ω", "kΩ"}, irradiance{"W/m²", "kW/m²"}, flow{"L/min", "L/h", "m³/h", "gal/min"}, pressure{"bar", "mbar", "kPa", "Pa", "psi"}, volt{"V", "mV"}, on_off{"", "%", "A", "W"};
    switch (kind) {
    case LogTarget::Kind::temperature: return temperature;
    case LogTarget::Kind::irradiance: return irradiance;
    case LogTarget::Kind::flow: return flow;
    case LogTarget::Kind::pressure: return pressure;
    case LogTarget::Kind::volt: return volt;
    case LogTarget::Kind::on_off: break;
    }
    return on_off;
}

} // namespace vernal
