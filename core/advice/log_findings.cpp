#include "log_findings.h"

#include "core/audit/stated.h"

#include <algorithm>

namespace vernal {
namespace {

// They tell of the weather or of the logger.
bool is_note(const AuditTrouble& t)
{
    return t.key == "limit_reached" || t.key == "stagnated" || t.key == "long_gaps";
}

const std::string& id_of(const auto& list, const std::string& key)
{
    static const std::string none;
    const auto it = std::find_if(list.begin(), list.end(), [&](const auto& x) { return x.key == key; });
    return it == list.end() ? none : it->id;
}

std::string about(const AuditTrouble& t, const Variant& v)
{
    if (!t.probe.empty())
        return "probe/" + id_of(v.probes, t.probe);
    return t.output.empty() ? std::string() : "output/" + id_of(v.unit.outputs, t.output);
}

// The job's pair lies outside what the log's switchings allow.
std::optional<Finding> other_pair(const FoundSettings& f, const Variant& v, const Units& units)
{
    const auto pairs = difference_pairs(v, f.output);
    const auto own = std::find_if(pairs.begin(), pairs.end(), [&](const DifferencePair& p) { return p.source == f.source && p.store == f.store; });
    if (own == pairs.end())
        return {};
    const auto said = [&](double k) { return to_text(k, Quantity::difference, units); };
    const auto outside = [](const std::optional<Estimate>& e, double k) { return e && (k < e->low || k > e->high); };
    std::string seen;
    if (outside(f.on_k, own->on_k))
        seen = "starts at " + said(f.on_k->value) + " (" + said(f.on_k->low) + " to " + said(f.on_k->high) + "), not at " + said(own->on_k);
    if (outside(f.off_k, own->off_k))
        seen += (seen.empty() ? "stops at " : "; it stops at ") + said(f.off_k->value) + " (" + said(f.off_k->low) + " to " + said(f.off_k->high) + "), not at " + said(own->off_k);
    if (seen.empty())
        return {};
    Finding out{"other_pair_in_log", Severity::caution, "The unit in the log switches at another pair", v.unit.outputs[f.output].key + " " + seen + ". Either the unit is set otherwise than the job says, or its probes read otherwise.", std::nullopt};
    out.remedy = Remedy{"Try: the pair as the log shows it", [f](Variant& to) { take_found(to, f); }};
    return out;
}

} // namespace

std::vector<Finding> findings_in_log(const Audit& audit, const Job& job, std::size_t variant, const Units& units)
{
    const Variant& v = job.variants[variant];
    std::vector<Finding> out;
    for (const AuditTrouble& t : audit.troubles) {
        const TroubleKind* kind = find_trouble(t.key);
        Finding f{kind->key, t.serious ? Severity::serious : is_note(t) ? Severity::note
                                                                        : Severity::caution,
            std::string(kind->name) + ", in the log", t.what + " " + t.reason + " " + t.test, std::nullopt, about(t, v)};
        f.seen_s = std::pair(t.evidence.front().from_s, t.evidence.front().to_s);
        out.push_back(std::move(f));
    }
    for (const FoundSettings& f : audit.found)
        if (auto pair = other_pair(f, v, units))
            out.push_back(std::move(*pair));
    place_findings(out, job, variant);
    std::stable_sort(out.begin(), out.end(), [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
    return out;
}

} // namespace vernal
