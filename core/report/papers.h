// The papers, one function a kind, and what they share. Not for others.
#pragma once

#include "paper.h"

namespace vernal {

Result<Paper> commissioning_paper(const PaperRequest& r);
Result<Paper> service_paper(const PaperRequest& r);
Result<Paper> settings_paper(const PaperRequest& r);
Result<Paper> keys_paper(const PaperRequest& r);
Result<Paper> wiring_paper(const PaperRequest& r);
Result<Paper> valves_paper(const PaperRequest& r);
Result<Paper> chart_paper(const PaperRequest& r);
Result<Paper> owner_paper(const PaperRequest& r);
Result<Paper> audit_paper(const PaperRequest& r);

class PaperMaker {
public:
    PaperMaker(const PaperRequest& r, const char* kind, std::string date);
    void heading(std::string text);
    void text(std::string text);
    void caution(std::string text);
    void table(PaperTable table); // of no rows: nothing
    void picture(std::string name, std::string caption);
    void sign(std::string who);
    void add(PaperBlock block) { paper_.blocks.push_back(std::move(block)); }
    Paper done(); // with the note on codes
    const PaperRequest& r;
    const Variant& variant;

private:
    Paper paper_;
};

// The visit that is asked for, or the last of this purpose; null: there is none.
const Visit* visit_for(const PaperRequest& r, std::optional<Purpose> purpose);
const char* purpose_text(Purpose p);

} // namespace vernal
