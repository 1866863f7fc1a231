#include "stand_in.h"

#include "as_found.h"

#include "core/bench/bench_faults.h"
#include "core/job/field_path.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <limits>
#include <utility>

namespace vernal {
namespace {

constexpr double nothing = std::numeric_limits<double>::quiet_NaN();

template <class List>
std::size_t index_of(const List& list, const std::string& key)
{
    return static_cast<std::size_t>(std::find_if(list.begin(), list.end(), [&](const auto& x) { return x.key == key; }) - list.begin());
}

double number_in(const std::string& text)
{
    double x = nothing;
    std::from_chars(text.data(), text.data() + text.size(), x);
    return x;
}

double or_nothing(const Result<double>& x) { return x ? *x : nothing; }

// As a register shows what it can hold of it.
std::vector<std::uint16_t> words_or_none(const RegisterMap& map, const MapRegister& r, double raw)
{
    if (auto words = words_for(r.type, raw, map.low_word_first))
        return *words;
    if (r.has_none)
        if (auto words = words_for(r.type, r.none, map.low_word_first))
            return *words;
    return std::vector<std::uint16_t>(static_cast<std::size_t>(words_of(r.type)), 0);
}

} // namespace

StandIn::StandIn(const Job& job, std::size_t variant, const Day& day, RegisterMap map) : job_(job), at_(variant), day_(day), map_(std::move(map)) {}

Result<std::unique_ptr<StandIn>> StandIn::make(const Job& job, std::size_t variant, const Day& day, RegisterMap map, double hour)
{
    std::unique_ptr<StandIn> out(new StandIn(job, variant, day, std::move(map)));
    out->index();
    if (const auto begun = out->begin("none", hour); !begun)
        return begun.error();
    return out;
}

Result<std::monostate> StandIn::begin(const std::string& fault, double hour)
{
    if (before_fault_)
        job_.variants[at_].unit = *before_fault_;
    before_fault_.reset();
    Variant real = variant();
    Day day = day_;
    OnSite on_site;
    if (fault != "none") {
        const auto all = bench_faults(real);
        const auto it = std::find_if(all.begin(), all.end(), [&](const BenchFault& f) { return f.key == fault; });
        if (it == all.end()) {
            std::string keys;
            for (const BenchFault& f : all)
                keys += (keys.empty() ? "One of " : ", ") + f.key;
            return Error{"this unit has no fault “" + fault + "”", {}, keys};
        }
        it->put(real, day, on_site);
    }
    auto rig = Rig::make(job_, real, day, 0, on_site);
    if (!rig)
        return rig.error();
    if (!(real.unit == variant().unit)) // a wrong setting stands in the unit
        before_fault_ = std::exchange(job_.variants[at_].unit, real.unit);
    rig_ = std::make_unique<Rig>(std::move(*rig));
    rows_.clear();
    next_row_s_ = owed_s_ = 0;
    hold_settings();
    advance(hour * 3600);
    return std::monostate{};
}

Result<std::monostate> StandIn::put_fault(const std::string& key)
{
    constexpr double hour = 12;
    return begin(key, hour);
}

Result<std::monostate> StandIn::set(const std::string& path, const std::string& value)
{
    Job with = job_;
    if (const auto done = set_setting(with, at_, path, value); !done)
        return done;
    Job all_but_unit = with;
    all_but_unit.variants[at_].unit = variant().unit;
    if (!(all_but_unit == job_) || with.variants[at_].unit.sample_s != variant().unit.sample_s)
        return Error{"this is no setting that its keys change", path, "A rule's or an output's, such as output/" + variant().unit.outputs.front().key + "/mode"};
    return commit(std::move(with)) == Refusal::none ? Result<std::monostate>(std::monostate{}) : Error{"the unit cannot be run by it", path, {}};
}

void StandIn::index()
{
    for (std::size_t i = 0; i < map_.registers.size(); ++i)
        for (int a = map_.registers[i].address; a < end_of(map_.registers[i]); ++a)
            where_[{map_.registers[i].table, a}] = i;
}

// Settings stand until somebody moves one: their words are made once.
void StandIn::hold_settings()
{
    settings_.clear();
    for (const MapRegister& r : map_.registers) {
        const std::string path = r.is == RegisterIs::mode ? std::string() : setting_path(r, variant());
        const auto s = path.empty() ? Result<Setting>(Error{}) : setting_at(job_, at_, path);
        double raw = nothing;
        if (s && r.is == RegisterIs::in_use)
            raw = s->value == "true";
        else if (s)
            raw = or_nothing(raw_for(r, number_in(s->value), s->quantity));
        if (!of_rule(r.is))
            continue;
        const auto words = words_or_none(map_, r, raw);
        for (std::size_t w = 0; w < words.size(); ++w)
            settings_.put(r.table, r.address + static_cast<int>(w), words[w]);
    }
}

double StandIn::raw_now(const MapRegister& r, const WireImage* settings) const
{
    const auto of = [&](double inside) { return or_nothing(raw_for(r, inside, quantity_of(r))); };
    if (of_rule(r.is))
        return settings ? settings->raw(map_, r).value_or(nothing) : nothing;
    if (r.is == RegisterIs::supply)
        return of(rig_->supply_v());
    if (r.is == RegisterIs::reading) {
        const std::size_t p = index_of(variant().probes, r.of);
        if (p >= rig_->probes() || !rig_->reading(p).valid)
            return nothing;
        const Reads reads = reads_at(variant().probes[p].place);
        return of(rig_->reading(p).mk / 1000.0 * inside_per_reading(reads));
    }
    const std::size_t o = index_of(variant().unit.outputs, r.of);
    if (o >= rig_->outputs())
        return nothing;
    switch (r.is) {
    case RegisterIs::live: return rig_->live(o);
    case RegisterIs::speed: return of(rig_->speed(o));
    case RegisterIs::watt: return of(rig_->watt(o));
    case RegisterIs::mode: return raw_mode(r, rig_->mode(o));
    default: return nothing;
    }
}

std::uint16_t StandIn::word_of_log(int at) const
{
    const auto row = static_cast<std::size_t>(at / map_.log.row_words), word = static_cast<std::size_t>(at % map_.log.row_words);
    return row < rows_.size() ? rows_[row][word] : 0;
}

std::optional<std::uint16_t> StandIn::word_at(Table t, int address) const
{
    if (const auto it = where_.find({t, address}); it != where_.end()) {
        const MapRegister& r = map_.registers[it->second];
        return words_or_none(map_, r, raw_now(r, &settings_))[static_cast<std::size_t>(address - r.address)];
    }
    const MapLog& log = map_.log;
    if (log.rows == 0 || t != log.table)
        return {};
    if (address == log.count_address)
        return static_cast<std::uint16_t>(rows_.size());
    if (address == log.sequence_address)
        return sequence_;
    const int at = address - log.address;
    return at >= 0 && at < log.rows * log.row_words ? std::optional(word_of_log(at)) : std::nullopt;
}

Refusal StandIn::read(Table t, int address, int count, std::vector<std::uint16_t>& words)
{
    words.clear();
    for (int a = address; a < address + count; ++a) {
        const auto w = word_at(t, a);
        if (!w)
            return Refusal::address;
        words.push_back(*w);
    }
    return Refusal::none;
}

// Into the settings of `job`, not yet into the unit.
Refusal StandIn::take(Job& job, const MapRegister& r, std::span<const std::uint16_t> words) const
{
    const double raw = raw_of(r.type, words, map_.low_word_first);
    const std::string path = setting_path(r, job.variants[at_]);
    if (path.empty() || !std::isfinite(raw))
        return Refusal::value;
    std::string text;
    if (r.is == RegisterIs::mode) {
        const auto m = mode_of(r, raw);
        if (!m)
            return Refusal::value;
        constexpr std::array words_of_mode{"OFF", "AUTO", "ON"};
        text = words_of_mode[static_cast<std::size_t>(*m)];
    } else if (r.is == RegisterIs::in_use) {
        text = raw != 0 ? "true" : "false";
    } else {
        WireImage one;
        for (std::size_t w = 0; w < words.size(); ++w)
            one.put(r.table, r.address + static_cast<int>(w), words[w]);
        const double inside = value_of(map_, r, one, quantity_of(r));
        if (!raw_for(r, inside, quantity_of(r)))
            return Refusal::value;
        return set_setting(job, at_, path, inside) ? Refusal::none : Refusal::value;
    }
    return set_setting(job, at_, path, text) ? Refusal::none : Refusal::value;
}

Refusal StandIn::write(Table t, int address, std::span<const std::uint16_t> words)
{
    Job with = job_;
    const int end = address + static_cast<int>(words.size());
    for (int a = address; a < end;) {
        const auto it = where_.find({t, a});
        if (it == where_.end())
            return Refusal::address;
        const MapRegister& r = map_.registers[it->second];
        if (!writable(r) || r.address != a || end_of(r) > end) // half of a number is none
            return Refusal::address;
        if (const Refusal no = take(with, r, words.subspan(static_cast<std::size_t>(a - address), static_cast<std::size_t>(end_of(r) - a))); no != Refusal::none)
            return no;
        a = end_of(r);
    }
    return commit(std::move(with));
}

Refusal StandIn::commit(Job with)
{
    RuleSet rules = with.variants[at_].unit, before = variant().unit;
    std::vector<Mode> modes;
    for (std::size_t o = 0; o < rules.outputs.size(); ++o) {
        modes.push_back(rules.outputs[o].mode);
        before.outputs[o].mode = rules.outputs[o].mode;
    }
    if (!(rules == before) && !rig_->set_rules(rules))
        return Refusal::value;
    for (std::size_t o = 0; o < modes.size(); ++o)
        rig_->set_mode(o, modes[o]);
    job_ = std::move(with);
    hold_settings();
    return Refusal::none;
}

void StandIn::write_row()
{
    std::vector<std::uint16_t> row(static_cast<std::size_t>(map_.log.row_words), 0);
    for (const MapRegister& c : map_.log.columns) {
        const auto words = words_or_none(map_, c, raw_now(c, nullptr));
        std::copy(words.begin(), words.end(), row.begin() + c.address);
    }
    rows_.push_front(std::move(row));
    if (rows_.size() > static_cast<std::size_t>(map_.log.rows))
        rows_.pop_back();
    ++sequence_;
}

void StandIn::advance(double seconds)
{
    const double sample_s = rig_->sample_s();
    owed_s_ += seconds;
    while (owed_s_ >= sample_s) {
        const bool logs = map_.log.rows > 0;
        double dt = std::floor(owed_s_ / sample_s) * sample_s;
        if (logs)
            dt = std::min(dt, std::max(sample_s, std::ceil((next_row_s_ - rig_->now_s()) / sample_s) * sample_s));
        rig_->advance(dt);
        owed_s_ -= dt;
        if (logs && rig_->now_s() >= next_row_s_ - sample_s / 2) {
            write_row();
            next_row_s_ += map_.log.every_s;
        }
    }
}

} // namespace vernal
