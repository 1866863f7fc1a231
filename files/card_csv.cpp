#include "card_csv.h"

#include "csv/writer.h"

namespace vernal {

std::string card_csv(const std::vector<CardRow>& rows)
{
    std::string out;
    CsvWriter csv([&](std::string_view text) { out += text; });
    csv.row({"rule", "setting", "value", "in use", "unit's own code", "as found"});
    for (const CardRow& r : rows)
        csv.row({r.group, r.name, r.value, r.used ? "yes" : "no", "", ""});
    csv.finish();
    return out;
}

} // namespace vernal
