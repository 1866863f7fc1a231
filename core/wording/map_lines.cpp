#include "map_lines.h"

#include "core/job/field_lists.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

using Kind = MapLine::Kind;

std::optional<std::size_t> index_of(const std::vector<std::string>& keys, const std::string& key)
{
    const auto it = std::find(keys.begin(), keys.end(), key);
    return it == keys.end() ? std::nullopt : std::optional(static_cast<std::size_t>(it - keys.begin()));
}

// What a latch looks at, with averages and fixed values resolved.
struct Looked {
    std::optional<std::size_t> plus, minus; // probes
    double add = 0;                         // to the edges, thousandths: the fixed value on the other side
    bool known = true;
};

Looked looked_at(const Program& p, const Latch& l)
{
    Looked out;
    const auto side = [&](std::size_t channel, std::optional<std::size_t>& probe, int sign) {
        for (const Average& a : p.averages)
            channel = a.to == channel ? a.from : channel;
        if (channel < p.probes)
            probe = channel;
        else if (channel >= first_spare_channel)
            out.add += sign * p.spare[channel - first_spare_channel];
        else if (channel != zero_channel)
            out.known = false; // the supply
    };
    side(l.plus, out.plus, -1);
    side(l.minus, out.minus, 1);
    return out;
}

MapLine::Role role_of(const Rule& rule, bool level)
{
    if (const auto limit = limit_of(rule))
        return limit->lower ? MapLine::Role::keeps : MapLine::Role::protects;
    return level && kind_of(rule).priority == Priority::collect ? MapLine::Role::collects : MapLine::Role::other;
}

class Lines {
public:
    Lines(const Variant& v, std::size_t output, const MapAxes& axes) : v_(v), output_(v.unit.outputs[output].key), axes_(axes), compiled_(compile(v)) {}

    std::vector<MapLine> go()
    {
        for (std::size_t i = 0; i < compiled_.program.latches.size(); ++i)
            latch(i);
        for (std::size_t i = 0; i < compiled_.program.speeds.size(); ++i)
            speed(i);
        std::stable_sort(out_.begin(), out_.end(), [](const MapLine& a, const MapLine& b) { return a.rule < b.rule; });
        return std::move(out_);
    }

private:
    void latch(std::size_t i)
    {
        const Latch& l = compiled_.program.latches[i];
        const LatchOrigin& from = compiled_.origins[i];
        if (!of_this_output(l.rule))
            return;
        const Looked at = looked_at(compiled_.program, l);
        if (!at.known || (!at.plus && !at.minus))
            return;
        const double set = (l.set_mk + at.add) / 1000, clear = (l.clear_mk + at.add) / 1000;
        if (at.plus && at.minus) {
            const int sign = *at.plus == axes_.source && *at.minus == axes_.store ? 1 : *at.plus == axes_.store && *at.minus == axes_.source ? -1
                                                                                                                                             : 0;
            if (sign != 0)
                pair(l.rule, from, Kind::level, 0, sign * set, sign * clear);
            return;
        }
        const std::size_t probe = at.plus ? *at.plus : *at.minus;
        const int sign = at.plus ? 1 : -1;
        if (probe == axes_.store || probe == axes_.source)
            pair(l.rule, from, probe == axes_.store ? Kind::upright : Kind::slanted, probe, sign * set, sign * clear);
        else if (limit_of(rule(l.rule)) && limit_of(rule(l.rule))->probe == v_.probes[probe].key)
            add(l.rule, from.set_field, Kind::banner, probe, sign * set, true);
    }

    void speed(std::size_t i)
    {
        const Speed& s = compiled_.program.speeds[i];
        if (*compiled_.speed_fields[i] == '\0' || !of_this_output(s.rule))
            return;
        if (s.minus == axes_.store && s.plus == axes_.source)
            add(s.rule, compiled_.speed_fields[i], Kind::level, 0, s.at_mk / 1000.0, true);
        else if (s.minus != zero_channel)
            return;
        else if (s.plus == axes_.store || s.plus == axes_.source)
            add(s.rule, compiled_.speed_fields[i], s.plus == axes_.store ? Kind::upright : Kind::slanted, s.plus, s.at_mk / 1000.0, true);
    }

    void pair(std::int16_t r, const LatchOrigin& from, Kind kind, std::size_t probe, double set, double clear)
    {
        add(r, from.set_field, kind, probe, set, true);
        add(r, from.clear_field, kind, probe, clear, false);
    }
    void add(std::int16_t r, const std::string& field, Kind kind, std::size_t probe, double value, bool sets)
    {
        if (!field.empty())
            out_.push_back({static_cast<std::size_t>(r), field, kind, role_of(rule(r), kind == Kind::level), value, sets, probe});
    }

    const Rule& rule(std::int16_t r) const { return v_.unit.rules[static_cast<std::size_t>(r)]; }
    bool of_this_output(std::int16_t r) const { return r >= 0 && rule(r).output == output_; }

    const Variant& v_;
    const std::string& output_;
    MapAxes axes_;
    Compiled compiled_;
    std::vector<MapLine> out_;
};

bool same_line(const MapLine& a, const MapLine& b) { return a.rule == b.rule && a.field == b.field && a.kind == b.kind && a.sets == b.sets && a.probe == b.probe; }

std::optional<double> where(const Variant& v, std::size_t output, const MapLine& line)
{
    for (const MapLine& l : map_lines(v, output))
        if (same_line(l, line))
            return l.value;
    return {};
}

std::optional<NumberFields::Entry> field_of(const Rule& rule, const std::string& key)
{
    for (const NumberFields::Entry& e : std::visit([](const auto& body) { return number_fields(body); }, rule.body))
        if (key == e.field.key)
            return e;
    return {};
}

void put_field(Rule& rule, const std::string& key, double to)
{
    std::visit([&](auto& body) { set_number(body, key, to); }, rule.body);
}

// How far the line moves for each unit of its field: found by trying, a way that works.
std::optional<double> slope_of(const Variant& v, std::size_t output, const MapLine& line, double at, const NumberFields::Entry& field)
{
    for (double by : {0.01, -0.01}) {
        Variant other = v;
        put_field(other.unit.rules[line.rule], line.field, field.value + by);
        if (const auto there = where(other, output, line); there && *there != at)
            return (*there - at) / by;
    }
    return {};
}

bool move_by_field(Variant& v, std::size_t output, const MapLine& line, double to)
{
    Rule& rule = v.unit.rules[line.rule];
    const auto field = field_of(rule, line.field);
    const auto at = where(v, output, line);
    const auto slope = field && at ? slope_of(v, output, line, *at, *field) : std::nullopt;
    if (!slope)
        return false;
    const double wanted = std::round((field->value + (to - *at) / *slope) * 1000) / 1000;
    put_field(rule, line.field, std::clamp(wanted, field->field.min, field->field.max));
    return true;
}

bool move_pair(Variant& v, const MapLine& line, double to)
{
    Rule& rule = v.unit.rules[line.rule];
    const auto d = difference_of(v.unit, rule);
    if (!d || line.kind != Kind::level)
        return false;
    set_difference(v.unit, rule, line.sets ? TempDiff::kelvin(to) : d->on, line.sets ? d->off : TempDiff::kelvin(to));
    return true;
}

} // namespace

std::optional<MapAxes> map_axes(const Variant& v, std::size_t output)
{
    const auto keys = probe_keys(v);
    std::optional<MapAxes> any;
    for (const Rule& r : v.unit.rules)
        if (const auto d = difference_of(v.unit, r)) {
            const auto source = index_of(keys, d->source), store = index_of(keys, d->store);
            if (!source || !store || !reads_temperature(v.probes[*source]) || !reads_temperature(v.probes[*store]))
                continue;
            if (r.output == v.unit.outputs[output].key)
                return MapAxes{*source, *store};
            any = any.value_or(MapAxes{*source, *store});
        }
    return any;
}

std::vector<MapLine> map_lines(const Variant& v, std::size_t output)
{
    const auto axes = map_axes(v, output);
    return axes ? Lines(v, output, *axes).go() : std::vector<MapLine>{};
}

bool move_line(Variant& v, std::size_t output, const MapLine& line, double to)
{
    Variant moved = v;
    if (!move_pair(moved, line, to) && !move_by_field(moved, output, line, to))
        return false;
    if (!where(moved, output, line))
        return false;
    v = std::move(moved);
    return true;
}

} // namespace vernal
