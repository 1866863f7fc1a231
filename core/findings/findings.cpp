#include "subjects.h"

#include "core/job/field_path.h"
#include "core/job/ids.h"

#include <algorithm>
#include <map>

namespace vernal {

const std::vector<FindingKind>& finding_kinds()
{
    static const std::vector<FindingKind> all = [] {
        std::vector<FindingKind> out;
        for (const FindingKinds* subject : {&settings_findings(), &day_findings(), &switching_findings(), &loop_findings(), &protection_findings(), &probe_findings(), &frost_findings(), &heating_findings(), &tap_findings(), &valve_findings(), &unit_findings(), &instrument_findings(), &collected_findings()})
            out.insert(out.end(), subject->begin(), subject->end());
        return out;
    }();
    return all;
}

const FindingKind* find_kind(const std::string& key)
{
    const auto& all = finding_kinds();
    const auto it = std::find_if(all.begin(), all.end(), [&](const FindingKind& k) { return key == k.key; });
    return it == all.end() ? nullptr : &*it;
}

bool holds_for(Loops loops, const Arrangement& a)
{
    switch (loops) {
    case Loops::all: return true;
    case Loops::liquid: return a.carrier != Carrier::air;
    case Loops::glycol: return a.carrier == Carrier::glycol;
    case Loops::tank: return a.has(Part::tank);
    case Loops::pumped: return a.pumped();
    case Loops::pumped_liquid: return a.pumped() && a.carrier != Carrier::air;
    case Loops::circulating: return a.has(Part::circulation);
    case Loops::heater: return a.has(Part::heater);
    case Loops::draining: return a.drains;
    case Loops::closed: return a.has(Part::vessel);
    case Loops::panel: return a.has(Part::panel);
    case Loops::battery: return a.has(Part::battery);
    case Loops::motor: return a.has(Part::motor);
    }
    return true;
}

std::vector<Finding> findings(const FindingContext& context)
{
    std::vector<Finding> out;
    const Arrangement& arrangement = arrangement_of(context.variant.loop);
    for (const FindingKind& kind : finding_kinds())
        for (Finding& f : !holds_for(kind.loops, arrangement) ? std::vector<Finding>() : kind.check(context)) {
            f.kind = kind.key;
            out.push_back(std::move(f));
        }
    std::stable_sort(out.begin(), out.end(), [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
    return out;
}

void place_findings(std::vector<Finding>& found, const Job& job, std::size_t variant)
{
    for (Finding& f : found) {
        if (f.remedy)
            for (const RemedyChange& c : changes_of(job, variant, *f.remedy))
                if (c.value != "added" && (f.at.empty() || c.path.starts_with(f.at + "/"))) {
                    f.at = c.path;
                    break;
                }
        if (const FindingKind* kind = find_kind(f.kind); f.at.empty() && kind)
            f.at = kind->at;
    }
}

bool is_at(const Finding& f, const std::string& path) { return f.at == path || f.at.starts_with(path + "/"); }

const char* severity_text(Severity s)
{
    static constexpr const char* texts[] = {"serious", "caution", "note"};
    return texts[static_cast<std::size_t>(s)];
}

std::vector<RemedyChange> changes_of(const Job& job, std::size_t variant, const Remedy& remedy)
{
    Job after = job;
    remedy.apply(after.variants[variant]);
    give_ids(after, NewFrom::edit);
    std::map<std::string, std::string> old;
    for (Setting& s : settings_of(job, variant))
        old.emplace(std::move(s.path), std::move(s.value));
    // A rule's settings come together: one that is new or gone is named once.
    std::vector<RemedyChange> out;
    const auto whole = [&](const std::string& path, const char* what) {
        RemedyChange c{path.substr(0, path.find('/', path.find('/') + 1)), what};
        if (out.empty() || !(out.back() == c))
            out.push_back(std::move(c));
    };
    for (Setting& s : settings_of(after, variant)) {
        const auto was = old.find(s.path);
        if (was == old.end())
            whole(s.path, "added");
        else if (was->second != s.value)
            out.push_back({s.path, s.value});
        if (was != old.end())
            old.erase(was);
    }
    for (const auto& [path, value] : old)
        whole(path, "removed");
    for (const Output& o : job.variants[variant].unit.outputs)
        for (const Output& now : after.variants[variant].unit.outputs)
            if (now.id == o.id && now.faults != o.faults)
                out.push_back({"output/" + o.id + "/faults", "changed"});
    return out;
}

} // namespace vernal
