#include "drill.h"

#include "drill_look.h"

#include <algorithm>
#include <bit>
#include <limits>

namespace vernal {
namespace {

Result<Rig> rig_with(const Job& job, const Variant& written, const BenchFault* fault, double hour)
{
    Variant real = written;
    Day day = job.days.front();
    day.faults.clear();
    OnSite on_site;
    if (fault)
        fault->put(real, day, on_site);
    return Rig::make(job, real, day, hour, on_site);
}

} // namespace

Result<DrillRun> DrillRun::make(const Job& job, std::size_t variant, const Drill& drill)
{
    const Variant& written = job.variants[variant];
    const auto faults = bench_faults(written);
    const auto it = std::find_if(faults.begin(), faults.end(), [&](const BenchFault& f) { return f.key == drill.fault; });
    if (it == faults.end())
        return Error{"this unit can have no fault “" + drill.fault + "”", drill.name, "Another drill, or a job on another loop"};
    auto rig = rig_with(job, written, &*it, drill.hour);
    if (!rig)
        return rig.error();
    return DrillRun(job, variant, drill, std::move(*rig));
}

DrillRun::DrillRun(const Job& job, std::size_t variant, Drill drill, Rig rig)
    : job_(std::make_shared<const Job>(job)), variant_(variant), drill_(std::move(drill)), rig_(std::move(rig)) {}

bool DrillRun::can(DrillAct act) const { return has_act(job_->variants[variant_], act); }

const Evidence& DrillRun::look(DrillAct act, const Units& units)
{
    if (looks_left() > 0 || seen_.empty()) {
        minutes_ += drill_act_text(act).minutes;
        seen_.push_back(look_with(rig_, job_->variants[variant_], act, units));
    }
    return seen_.back();
}

DrillTable drill_table(const Job& job, std::size_t variant, double hour, std::stop_token stop, const Units& units)
{
    const Variant& written = job.variants[variant];
    DrillTable out;
    for (std::size_t a = 0; a < drill_acts; ++a)
        if (has_act(written, static_cast<DrillAct>(a)) && static_cast<DrillAct>(a) != DrillAct::night)
            out.acts.push_back(static_cast<DrillAct>(a));
    out.acts.push_back(DrillAct::night); // last: it takes a day
    const auto all_of = [&](const BenchFault* f) {
        std::vector<Evidence> e;
        if (auto rig = rig_with(job, written, f, hour))
            for (const DrillAct a : out.acts)
                e.push_back(look_with(*rig, written, a, units));
        return e;
    };
    out.sound = all_of(nullptr);
    for (const BenchFault& f : bench_faults(written)) {
        if (stop.stop_requested())
            return {};
        auto e = all_of(&f);
        if (e.size() != out.acts.size())
            continue; // with it the loop cannot be run
        out.keys.push_back(f.key);
        out.names.push_back(f.name);
        out.of.push_back(std::move(e));
    }
    return out;
}

Debrief debrief_of(const DrillTable& t, const std::string& fault)
{
    Debrief out;
    const auto at = static_cast<std::size_t>(std::find(t.keys.begin(), t.keys.end(), fault) - t.keys.begin());
    if (at >= t.keys.size() || t.sound.size() != t.acts.size())
        return out;
    out.was = t.names[at];
    const auto& mine = t.of[at];
    const std::size_t n = t.acts.size();
    const auto differs = [&](const std::vector<Evidence>& other) { // a bit per act
        std::uint32_t bits = 0;
        for (std::size_t a = 0; a < n; ++a)
            bits |= mine[a].sign != other[a].sign ? 1U << a : 0U;
        return bits;
    };
    std::vector<std::uint32_t> apart{differs(t.sound)};
    for (std::size_t a = 0; a < n; ++a)
        if ((apart.front() >> a & 1U) != 0)
            out.told.push_back(mine[a]);
    for (std::size_t f = 0; f < t.keys.size(); ++f) {
        if (f == at)
            continue;
        if (const std::uint32_t bits = differs(t.of[f]))
            apart.push_back(bits);
        else
            out.like_it.push_back(t.names[f]);
    }
    if (apart.front() == 0)
        return out;
    constexpr int most_acts = 4;
    int least = std::numeric_limits<int>::max();
    for (std::uint32_t set = 1; set < (1U << n); ++set) {
        if (std::popcount(set) > most_acts || !std::all_of(apart.begin(), apart.end(), [set](std::uint32_t bits) { return (bits & set) != 0; }))
            continue;
        int cost = 0;
        for (std::size_t a = 0; a < n; ++a)
            cost += (set >> a & 1U) != 0 ? drill_act_text(t.acts[a]).minutes : 0;
        if (cost >= least)
            continue;
        least = out.shortest_minutes = cost;
        out.shortest.clear();
        for (std::size_t a = 0; a < n; ++a)
            if ((set >> a & 1U) != 0)
                out.shortest.push_back(t.acts[a]);
    }
    return out;
}

Debrief DrillRun::diagnose(const std::string& fault) const { return diagnose(fault, drill_table(*job_, variant_, drill_.hour)); }

Debrief DrillRun::diagnose(const std::string& fault, const DrillTable& table) const
{
    Debrief out = debrief_of(table, drill_.fault);
    out.right = fault == drill_.fault;
    out.minutes = minutes_;
    return out;
}

} // namespace vernal
