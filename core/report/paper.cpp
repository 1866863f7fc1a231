#include "paper.h"

#include "papers.h"

#include <algorithm>

namespace vernal {

const std::vector<PaperKind>& paper_kinds()
{
    static const std::vector<PaperKind> all{
        {"commissioning", "Commissioning record", commissioning_paper},
        {"service", "Service report", service_paper},
        {"settings", "Settings card", settings_paper},
        {"keys", "Key list", keys_paper},
        {"wiring", "Wiring list", wiring_paper},
        {"valves", "Valve board", valves_paper},
        {"chart", "Pocket chart", chart_paper},
        {"owner", "Owner's card", owner_paper},
        {"audit", "Audit report", audit_paper},
    };
    return all;
}

const PaperKind* find_paper(const std::string& key)
{
    const auto& all = paper_kinds();
    const auto it = std::find_if(all.begin(), all.end(), [&](const PaperKind& k) { return key == k.key; });
    return it == all.end() ? nullptr : &*it;
}

std::vector<std::string> Paper::pictures() const
{
    std::vector<std::string> out;
    for (const PaperBlock& b : blocks)
        if (!b.picture.empty() && std::find(out.begin(), out.end(), b.picture) == out.end())
            out.push_back(b.picture);
    return out;
}

const char* codes_note() { return "Follow the makers' manuals and local codes, and use a licensed tradesperson where the law asks for one."; }

} // namespace vernal
