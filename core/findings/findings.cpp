#include "subjects.h"

#include <algorithm>

namespace vernal {

const std::vector<FindingKind>& finding_kinds()
{
    static const std::vector<FindingKind> all = [] {
        std::vector<FindingKind> out;
        for (const FindingKinds* subject : {&settings_findings(), &day_findings(), &loop_findings(), &protection_findings(), &probe_findings(), &frost_findings(), &heating_findings(), &unit_findings()})
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

std::vector<Finding> findings(const FindingContext& context)
{
    std::vector<Finding> out;
    for (const FindingKind& kind : finding_kinds())
        for (Finding& f : kind.check(context)) {
            f.kind = kind.key;
            out.push_back(std::move(f));
        }
    std::stable_sort(out.begin(), out.end(), [](const Finding& a, const Finding& b) { return a.severity < b.severity; });
    return out;
}

const char* severity_text(Severity s)
{
    static constexpr const char* texts[] = {"serious", "caution", "note"};
    return texts[static_cast<std::size_t>(s)];
}

} // namespace vernal
