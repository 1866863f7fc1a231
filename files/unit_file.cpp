#include "unit_file.h"

#include "file_name.h"
#include "json_fields.h"
#include "json_lines.h"

namespace vernal {

extern const char* const shipped_unit_jsons[2];

namespace {

constexpr const char* format_name = "vrelay-unit";
constexpr int format_version = 1;
constexpr const char* ending = ".unit.json";

} // namespace

Result<UnitSheet> read_unit_sheet(const std::string& text, const std::string& file)
{
    try {
        Json j = parse_json(text);
        if (const int version = take_head(j, format_name, "a unit's sheet"); version != format_version)
            bad("version", "this sheet is of version " + std::to_string(version) + ", which this program does not know", "Open it with a newer Vernal Relay");
        UnitSheet sheet;
        JsonReader r(j, "");
        fields(r, sheet);
        r.finish();
        if (const auto problem = sheet_problem(sheet))
            bad(problem->at, problem->what, "Expected: " + problem->remedy);
        return sheet;
    } catch (const BadFile& b) {
        return placed_error(b.error, text, file);
    }
}

std::string write_unit_sheet(const UnitSheet& sheet)
{
    Json body;
    JsonWriter w(body);
    fields(w, sheet);
    Json out = {{"format", format_name}, {"version", format_version}};
    out.update(body);
    return out.dump(2) + "\n";
}

const std::vector<UnitSheet>& example_sheets()
{
    static const std::vector<UnitSheet> all = [] {
        std::vector<UnitSheet> out;
        for (const char* text : shipped_unit_jsons)
            if (auto sheet = read_unit_sheet(text, "data/units"))
                out.push_back(std::move(*sheet));
        return out;
    }();
    return all;
}

std::vector<UnitSheet> sheets_of(const Job& job)
{
    std::vector<UnitSheet> out;
    for (const Attachment& a : job.attachments)
        if (a.bytes && a.name.ends_with(ending))
            if (auto sheet = read_unit_sheet(*a.bytes, a.name))
                out.push_back(std::move(*sheet));
    return out;
}

std::string sheet_file_name(const UnitSheet& sheet) { return plain_file_name(sheet.name, "unit") + ending; }

} // namespace vernal
