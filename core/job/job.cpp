#include "job.h"

#include <algorithm>

namespace vernal {

Day::Day() = default;
Day::Day(const Day&) = default;
Day::Day(Day&&) noexcept = default;
Day& Day::operator=(const Day&) = default;
Day& Day::operator=(Day&&) noexcept = default;
Day::~Day() = default;
bool Day::operator==(const Day&) const = default;

Job::Job() = default;
Job::Job(const Job&) = default;
Job::Job(Job&&) noexcept = default;
Job& Job::operator=(const Job&) = default;
Job& Job::operator=(Job&&) noexcept = default;
Job::~Job() = default;
bool Job::operator==(const Job&) const = default;

const Variant* find_variant(const Job& job, const std::string& name)
{
    const auto it = std::find_if(job.variants.begin(), job.variants.end(), [&](const Variant& v) { return v.name == name; });
    return it == job.variants.end() ? nullptr : &*it;
}

const Day* find_day(const Job& job, const std::string& name)
{
    const auto it = std::find_if(job.days.begin(), job.days.end(), [&](const Day& d) { return d.name == name; });
    return it == job.days.end() ? nullptr : &*it;
}

const char* place_key(ProbePlace place)
{
    return vernal::place_keys[static_cast<std::size_t>(place)];
}

std::vector<std::string> probe_keys(const Variant& v)
{
    std::vector<std::string> keys;
    for (const Probe& p : v.probes)
        keys.push_back(p.key);
    return keys;
}

std::string log_column(const Variant& v, std::size_t probe)
{
    const std::string place = place_key(v.probes[probe].place);
    const auto end = v.probes.begin() + static_cast<std::ptrdiff_t>(probe);
    const bool second = std::any_of(v.probes.begin(), end, [&](const Probe& p) { return p.place == v.probes[probe].place; });
    return second ? place + "_" + v.probes[probe].key : place;
}

std::vector<Reads> probe_reads(const Variant& v)
{
    std::vector<Reads> out;
    for (const Probe& p : v.probes)
        out.push_back(reads_at(p.place));
    return out;
}

bool reads_temperature(const Probe& p) { return reads_at(p.place) == Reads::temperature; }

Compiled compile(const Variant& v) { return compile(v.unit, probe_keys(v), probe_reads(v)); }

} // namespace vernal
