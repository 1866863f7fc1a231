#include "papers.h"

#include "core/units/calendar.h"
#include "core/units/in_units.h"

#include <algorithm>

namespace vernal {

PaperMaker::PaperMaker(const PaperRequest& request, const char* kind, std::string date) : r(request), variant(request.job.variants[request.variant])
{
    paper_.kind = kind;
    paper_.title = find_paper(kind)->title;
    const auto add = [&](const std::string& s) { paper_.about += s.empty() ? "" : (paper_.about.empty() ? "" : " · ") + s; };
    add(r.job.title);
    add(r.job.site.customer);
    add(r.job.site.name);
    add(date_words(date.empty() ? r.today : date));
}

void PaperMaker::heading(std::string s) { paper_.blocks.push_back({PaperBlock::Is::heading, std::move(s)}); }
void PaperMaker::text(std::string s)
{
    if (!s.empty())
        paper_.blocks.push_back({PaperBlock::Is::text, std::move(s)});
}
void PaperMaker::caution(std::string said)
{
    const std::string s = in_units(said, r.units);
    const auto same = [&](const PaperBlock& b) { return b.is == PaperBlock::Is::caution && b.text == s; };
    if (!s.empty() && std::none_of(paper_.blocks.begin(), paper_.blocks.end(), same))
        paper_.blocks.push_back({PaperBlock::Is::caution, s});
}
void PaperMaker::table(PaperTable t)
{
    if (t.rows.empty())
        return;
    PaperBlock b{PaperBlock::Is::table, ""};
    b.table = std::move(t);
    paper_.blocks.push_back(std::move(b));
}
void PaperMaker::picture(std::string name, std::string caption)
{
    PaperBlock b{PaperBlock::Is::picture, std::move(caption)};
    b.picture = std::move(name);
    paper_.blocks.push_back(std::move(b));
}
void PaperMaker::sign(std::string who) { paper_.blocks.push_back({PaperBlock::Is::sign, std::move(who)}); }

Paper PaperMaker::done()
{
    text(codes_note());
    return std::move(paper_);
}

const Visit* visit_for(const PaperRequest& r, std::optional<Purpose> purpose)
{
    const Visit* out = nullptr;
    for (const Visit& v : r.job.logbook.visits)
        if (r.visit.empty() ? !purpose || v.purpose == *purpose : v.id == r.visit)
            out = &v;
    return out;
}

const char* purpose_text(Purpose p)
{
    static constexpr const char* texts[] = {"service", "survey", "commissioning", "call-back", "visit"};
    return texts[static_cast<std::size_t>(p)];
}

} // namespace vernal
