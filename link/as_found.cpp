#include "as_found.h"

#include "core/job/field_path.h"
#include "core/units/exact_text.h"
#include "files/sample_csv.h"
#include "files/timestamp.h"

#include <algorithm>
#include <charconv>
#include <cmath>

namespace vernal {
namespace {

constexpr std::array mode_words{"OFF", "AUTO", "ON"};

const Rule* rule_of(const MapRegister& r, const Variant& v)
{
    int count = 0;
    for (const Rule& rule : v.unit.rules)
        if (r.rule == kind_of(rule).key && ++count == r.nth)
            return &rule;
    return nullptr;
}

double number_of(const std::string& text)
{
    double x = NAN;
    std::from_chars(text.data(), text.data() + text.size(), x);
    return x;
}

std::string decapitalised(std::string s)
{
    if (s.size() > 1 && std::isupper(static_cast<unsigned char>(s[0])) != 0 && std::islower(static_cast<unsigned char>(s[1])) != 0)
        s[0] = static_cast<char>(std::tolower(static_cast<unsigned char>(s[0])));
    return s;
}

// "Difference of P1, start" as it is called within the program.
std::string title_of(const MapRegister& r, const Variant& v, const Setting& s)
{
    if (r.is == RegisterIs::mode)
        return "Switch of " + r.of;
    const Rule* rule = rule_of(r, v);
    std::string out = kind_of(*rule).title;
    if (!rule->output.empty())
        out += " of " + rule->output;
    return r.is == RegisterIs::in_use ? out : out + ", " + decapitalised(s.label);
}

std::string value_text(const MapRegister& r, const Setting& s, double raw, double inside, const Units& u)
{
    if (r.is == RegisterIs::mode) {
        const auto m = mode_of(r, raw);
        return m ? mode_words[static_cast<std::size_t>(*m)] : "number " + exact_text(raw);
    }
    if (r.is == RegisterIs::in_use)
        return raw != 0 ? "in use" : "not in use";
    return to_text(inside, s.quantity, u);
}

std::string place_text(const MapRegister& r, double from, double to)
{
    return std::string(table_text(r.table)) + " " + std::to_string(r.address) + (std::isnan(from) ? "" : ": " + exact_text(from)) + " → " + exact_text(to);
}

struct Held { // by a register, and by the job
    Setting setting;
    double raw = NAN, inside = NAN;   // at the unit; NaN: not read, no value
    double job = NAN;                 // inside
    Result<double> job_raw = Error{}; // nearest
};

std::optional<Held> held(const RegisterMap& map, const MapRegister& r, const WireImage& image, const Job& job, std::size_t variant)
{
    const std::string path = setting_path(r, job.variants[variant]);
    if (path.empty())
        return {};
    auto s = setting_at(job, variant, path);
    if (!s)
        return {};
    Held h{std::move(*s)};
    const auto raw = image.raw(map, r);
    h.raw = raw && !(r.has_none && *raw == r.none) ? *raw : NAN;
    if (r.is == RegisterIs::mode) {
        const auto it = std::find(mode_words.begin(), mode_words.end(), h.setting.value);
        h.job = static_cast<double>(it - mode_words.begin());
        h.job_raw = raw_mode(r, static_cast<Mode>(it - mode_words.begin()));
        return h;
    }
    if (r.is == RegisterIs::in_use) {
        h.job = h.setting.value == "true";
        h.job_raw = h.job;
        h.inside = h.raw;
        return h;
    }
    h.inside = value_of(map, r, image, h.setting.quantity);
    h.job = number_of(h.setting.value);
    h.job_raw = raw_for(r, h.job, h.setting.quantity);
    return h;
}

// As it is written into the variant; empty: it is no value.
std::string text_for_job(const MapRegister& r, const Held& h)
{
    if (r.is == RegisterIs::mode) {
        const auto m = mode_of(r, h.raw);
        return m ? mode_words[static_cast<std::size_t>(*m)] : "";
    }
    if (r.is == RegisterIs::in_use)
        return h.raw != 0 ? "true" : "false";
    // What a step of the register does not tell apart stands as the shortest number that is the same step.
    for (double grain = 1; grain >= 1e-6; grain /= 10) {
        const double round = std::round(h.inside / grain) * grain;
        const auto raw = raw_for(r, round, h.setting.quantity);
        if (raw && *raw == h.raw)
            return exact_text(std::round(round * 1e6) / 1e6);
    }
    return exact_text(h.inside);
}

WireWrite write_of(const RegisterMap& map, std::size_t at, double from, double to)
{
    const MapRegister& r = map.registers[at];
    WireWrite w{at, from, to, {}, {}};
    if (auto words = words_for(r.type, to, map.low_word_first))
        w.words = std::move(*words);
    return w;
}

} // namespace

std::string setting_path(const MapRegister& r, const Variant& v)
{
    if (r.is == RegisterIs::mode) {
        const auto o = std::find_if(v.unit.outputs.begin(), v.unit.outputs.end(), [&](const Output& x) { return x.key == r.of; });
        return o == v.unit.outputs.end() ? "" : "output/" + (o->id.empty() ? o->key : o->id) + "/mode";
    }
    const Rule* rule = of_rule(r.is) ? rule_of(r, v) : nullptr;
    return !rule ? "" : "rule/" + rule->id + "/" + (r.is == RegisterIs::in_use ? "enabled" : r.field);
}

AsFound as_found(const RegisterMap& map, const WireImage& image, const Job& job, std::size_t variant)
{
    Job copy = job;
    AsFound out;
    for (const MapRegister& r : map.registers) {
        const auto h = held(map, r, image, job, variant);
        if (!h) {
            if (of_rule(r.is))
                out.left.push_back("The unit has a setting “" + (r.name.empty() ? r.rule + " " + r.field : r.name) + "” of a rule that this variant does not have.");
            continue;
        }
        const auto left = [&](const std::string& why) { out.left.push_back(title_of(r, job.variants[variant], h->setting) + " " + why + " and stays as the job has it."); };
        if (std::isnan(h->raw)) {
            left("was not read");
            continue;
        }
        if (h->job_raw && *h->job_raw == h->raw)
            continue; // the unit holds what the job has, as near as it can
        const std::string text = text_for_job(r, *h);
        if (text.empty())
            left("holds " + exact_text(h->raw) + ", which is none of its positions,");
        else if (const auto set = set_setting(copy, variant, h->setting.path, text); !set)
            left("holds what no job can have (" + set.error().what + ")");
    }
    out.variant = std::move(copy.variants[variant]);
    return out;
}

std::vector<WireDifference> wire_differences(const RegisterMap& map, const WireImage& image, const Job& job, std::size_t variant, const Units& units)
{
    std::vector<WireDifference> out;
    for (std::size_t i = 0; i < map.registers.size(); ++i) {
        const MapRegister& r = map.registers[i];
        const auto h = held(map, r, image, job, variant);
        if (!h || std::isnan(h->raw) || (h->job_raw && *h->job_raw == h->raw))
            continue;
        WireDifference d;
        d.path = h->setting.path;
        const std::string title = title_of(r, job.variants[variant], h->setting);
        const std::string unit = value_text(r, h->setting, h->raw, h->inside, units), wanted = value_text(r, h->setting, h->job_raw ? *h->job_raw : NAN, h->job, units);
        d.sentence = title + ": the unit has " + unit + ", the job " + wanted + ".";
        if (!writable(r)) {
            d.why_not = "The unit does not let it be written.";
        } else if (!h->job_raw) {
            d.why_not = h->job_raw.error().what + ".";
        } else {
            d.write = write_of(map, i, h->raw, *h->job_raw);
            double set = h->job;
            if (r.is == RegisterIs::setting)
                if (const auto words = words_for(r.type, *h->job_raw, map.low_word_first)) {
                    WireImage after;
                    for (std::size_t w = 0; w < words->size(); ++w)
                        after.put(r.table, r.address + static_cast<int>(w), (*words)[w]);
                    set = value_of(map, r, after, h->setting.quantity);
                }
            d.write->text = title + ": " + unit + " → " + value_text(r, h->setting, *h->job_raw, set, units) + "; " + place_text(r, h->raw, *h->job_raw);
        }
        out.push_back(std::move(d));
    }
    return out;
}

Result<WireWrite> mode_write(const RegisterMap& map, const WireImage& image, const std::string& output, Mode mode)
{
    for (std::size_t i = 0; i < map.registers.size(); ++i) {
        const MapRegister& r = map.registers[i];
        if (r.is != RegisterIs::mode || r.of != output || !writable(r))
            continue;
        const auto raw = image.raw(map, r);
        WireWrite w = write_of(map, i, raw.value_or(NAN), raw_mode(r, mode));
        const auto was = raw ? mode_of(r, *raw) : std::nullopt;
        w.text = "Switch of " + output + ": " + (was ? std::string(mode_words[static_cast<std::size_t>(*was)]) + " → " : "") + mode_words[static_cast<std::size_t>(mode)] + "; " + place_text(r, w.from, w.to);
        return w;
    }
    return Error{"the map has no switch of " + output + " that can be written", map.name, "A register “mode” of " + output + ", in a holding register"};
}

std::vector<WireWrite> all_to(const RegisterMap& map, const WireImage& image, Mode mode)
{
    std::vector<WireWrite> out;
    for (const MapRegister& r : map.registers)
        if (r.is == RegisterIs::mode)
            if (auto w = mode_write(map, image, r.of, mode); w && w->from != w->to)
                out.push_back(std::move(*w));
    return out;
}

UnitSeen seen_of(const RegisterMap& map, const WireImage& image, const Variant& v)
{
    const std::size_t outputs = v.unit.outputs.size();
    UnitSeen out;
    out.reads.assign(v.probes.size(), NAN);
    out.on.resize(outputs);
    out.modes.resize(outputs);
    out.speed.resize(outputs);
    out.watt.resize(outputs);
    for (const MapRegister& r : map.registers) {
        const auto raw = image.raw(map, r);
        if (!raw || of_rule(r.is))
            continue;
        const double value = r.is == RegisterIs::live || r.is == RegisterIs::mode ? *raw : value_of(map, r, image, quantity_of(r));
        if (r.is == RegisterIs::supply && std::isfinite(value))
            out.supply_v = value;
        for (std::size_t p = 0; r.is == RegisterIs::reading && p < v.probes.size(); ++p)
            if (v.probes[p].key == r.of)
                out.reads[p] = value / inside_per_reading(reads_at(v.probes[p].place));
        for (std::size_t o = 0; o < outputs; ++o) {
            if (v.unit.outputs[o].key != r.of)
                continue;
            if (r.is == RegisterIs::live)
                out.on[o] = value != 0;
            if (r.is == RegisterIs::mode)
                out.modes[o] = mode_of(r, value);
            if (r.is == RegisterIs::speed && std::isfinite(value))
                out.speed[o] = value;
            if (r.is == RegisterIs::watt && std::isfinite(value))
                out.watt[o] = value;
        }
    }
    return out;
}

std::vector<WireBlock> log_blocks(const MapLog& log, int rows)
{
    constexpr int most_words = 125;
    std::vector<WireBlock> out;
    for (int done = 0, all = std::min(rows, log.rows) * log.row_words; done < all; done += most_words)
        out.push_back({log.table, log.address + done, std::min(most_words, all - done)});
    return out;
}

Trace log_trace(const RegisterMap& map, const WireImage& image, const Variant& v, int rows, const std::string& now)
{
    const MapLog& log = map.log;
    const int count = std::clamp(rows, 0, log.rows);
    Trace t;
    for (int i = 0; i < count; ++i)
        t.time_s.push_back(i * log.every_s);
    if (const auto at = read_timestamp(now); at && count > 0)
        t.start = timestamp_text(later(*at, -(count - 1) * log.every_s));
    for (const MapRegister& c : log.columns) {
        TraceColumn column;
        column.name = c.is == RegisterIs::supply ? "supply" : c.of;
        column.quantity = c.is == RegisterIs::live ? Quantity::number : quantity_of(c);
        double per = 1;
        if (column.quantity == Quantity::flow || column.quantity == Quantity::pressure) { // as a day's log has them
            const Reads reads = column.quantity == Quantity::flow ? Reads::flow : Reads::pressure;
            column.unit = unit_name(column.quantity, {});
            column.quantity = Quantity::number;
            per = 1 / inside_per_reading(reads);
        }
        for (std::size_t p = 0; c.is == RegisterIs::reading && p < v.probes.size(); ++p)
            if (v.probes[p].key == c.of)
                column.name = log_column(v, p);
        for (int i = count - 1; i >= 0; --i) {
            MapRegister cell = c;
            cell.address = log.address + i * log.row_words + c.address;
            column.values.push_back(c.is == RegisterIs::live ? image.raw(map, cell).value_or(NAN) : per * value_of(map, cell, image, quantity_of(c)));
        }
        t.columns.push_back(std::move(column));
    }
    return t;
}

} // namespace vernal
