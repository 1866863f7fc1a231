#include "unit_verb.h"
#include "in_out.h"

#include "chosen_variant.h"

#include "core/job/ids.h"
#include "core/job/job_check.h"
#include "files/attachment.h"
#include "files/disk.h"
#include "files/job_file.h"
#include "files/json_fields.h"
#include "files/unit_file.h"

#include <algorithm>
#include <filesystem>
#include <ostream>

namespace vernal {
namespace {

constexpr std::array is_words{"units", "arrangement", "set", "nearest", "lacking", "no such setting"};

void print(std::ostream& out, const std::vector<KeyLine>& lines)
{
    for (const KeyLine& l : lines) {
        out << l.name << (l.path.empty() ? "" : "  [" + l.path + "]") << ": ";
        if (l.set.empty())
            out << (l.wanted.empty() ? "" : l.wanted + "  ") << "cannot be set: " << l.note;
        else
            out << l.set << (l.is == KeyIs::nearest ? "  instead of " + l.wanted : "") << (l.note.empty() ? "" : "  (" + l.note + ")");
        out << (l.keys.empty() ? "" : "  keys: " + l.keys) << "\n";
    }
}

Json json_of(const std::vector<KeyLine>& lines)
{
    Json out = Json::array();
    for (const KeyLine& l : lines)
        out.push_back({{"is", is_words[static_cast<std::size_t>(l.is)]}, {"at", l.at}, {"name", l.name}, {"path", l.path}, {"keys", l.keys}, {"wanted", l.wanted}, {"set", l.set}, {"note", l.note}});
    return out;
}

} // namespace

CLI::App* UnitVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("unit", "A unit by its sheet: wiring, keys, presets and lamps for this job; exit 1 where it cannot be set as the job wants");
    c->add_option("job", job_, "job file")->required();
    c->add_option("--sheet", sheet_, "file of the sheet, the name of one kept in the job, or north, south: the examples; else the first in the job");
    c->add_option("--list", kind_, "what of it")->check(CLI::IsMember({"wiring", "keys", "presets", "lamps"}));
    c->add_option("--lamp", lamps_, "LAMP=dark|lit|slow|fast|twice, as it is seen; may be given several times");
    c->add_option("--instead-of", instead_of_, "sheet of the unit that it replaces: what is lost");
    c->add_option("--variant", variant_, "else the first");
    c->add_option("--out", out_, "writes the job here, with the variant as it stands on this unit and the sheet in it");
    c->add_flag("--fahrenheit", fahrenheit_, "on a unit that has either scale");
    c->add_flag("--json", json_, "for programs");
    return c;
}

Result<UnitSheet> UnitVerb::sheet_named(const std::string& name, const Job& job) const
{
    if (name == "north" || name == "south")
        return example_sheets()[name == "north" ? 0 : 1];
    for (UnitSheet& s : sheets_of(job))
        if (s.name == name)
            return std::move(s);
    const auto text = read_file(name);
    if (!text)
        return text.error();
    return read_unit_sheet(*text, name);
}

Result<std::vector<LampSeen>> UnitVerb::lamps() const
{
    std::vector<LampSeen> out;
    for (const std::string& l : lamps_) {
        const auto at = l.find('=');
        const auto it = std::find_if(pattern_keys.begin(), pattern_keys.end(), [&](const char* k) { return at != std::string::npos && l.substr(at + 1) == k; });
        if (it == pattern_keys.end())
            return Error{"“" + l + "” says not how a lamp is seen", "--lamp", "LAMP=dark, lit, slow, fast or twice"};
        out.push_back({l.substr(0, at), static_cast<LampPattern>(it - pattern_keys.begin())});
    }
    return out;
}

Result<int> UnitVerb::run(const Streams& s)
{
    const auto chosen = chosen_variant(job_, variant_);
    if (!chosen)
        return chosen.error();
    const auto& [job, at] = *chosen;
    const auto kept = sheet_.empty() ? sheets_of(job) : std::vector<UnitSheet>();
    if (sheet_.empty() && kept.empty())
        return Error{"this job has no unit sheet", job_, "--sheet north or --sheet south takes an example; with --out it is kept in the job"};
    const auto sheet = sheet_.empty() ? Result<UnitSheet>(kept.front()) : sheet_named(sheet_, job);
    if (!sheet)
        return sheet.error();
    const auto seen = lamps();
    if (!seen)
        return seen.error();
    const auto keys = key_list(*sheet, job, at, fahrenheit_);
    const bool missed = std::any_of(keys.begin(), keys.end(), [](const KeyLine& l) { return l.is == KeyIs::lacking; });
    if (!out_.empty()) {
        Job with = job;
        Variant v = as_set(*sheet, job, at, fahrenheit_);
        v.name = free_name(with.variants, "on " + sheet->name);
        v.id.clear();
        with.variants.push_back(std::move(v));
        keep_attachment(with, make_attachment(sheet_file_name(*sheet), write_unit_sheet(*sheet)));
        give_ids(with, NewFrom::edit);
        if (const auto saved = write_job(s, with, out_); !saved)
            return saved.error();
    }
    Json all = Json::array();
    if (!instead_of_.empty()) {
        const auto old = sheet_named(instead_of_, job);
        if (!old)
            return old.error();
        for (const ReplacedLine& l : replaced(*old, *sheet, job, at)) {
            all.push_back({{"what", l.what}, {"was", l.was}, {"is", l.is}});
            if (!json_)
                s.out << l.what << ": " << l.was << " → " << (l.is.empty() ? "lost" : l.is) << "\n";
        }
    } else if (!seen->empty() || kind_ == "lamps") {
        for (const LampReading& l : read_lamps(*sheet, *seen)) {
            all.push_back({{"lamp", l.lamp}, {"says", l.says}, {"next", l.next}});
            if (!json_)
                s.out << l.lamp << ": " << l.says << ". " << l.next << "\n";
        }
        if (seen->empty() && !json_)
            for (const SheetLamp& l : sheet->lamps)
                s.out << l.lamp << "=" << pattern_keys[static_cast<std::size_t>(l.pattern)] << "  " << l.words << "\n";
    } else if (kind_ == "wiring") {
        for (const WiringLine& l : wiring_list(*sheet, job.variants[at])) {
            all.push_back({{"terminal", l.terminal}, {"goes", l.goes}, {"note", l.note}});
            if (!json_)
                s.out << (l.terminal.empty() ? "no terminal" : l.terminal) << ": " << (l.goes.empty() ? "–" : l.goes) << (l.note.empty() ? "" : "  (" + l.note + ")") << "\n";
        }
    } else if (kind_ == "presets") {
        for (const WrongPreset& p : wrong_presets(*sheet, job, at))
            for (const Finding& f : p.found) {
                all.push_back({{"name", p.name}, {"value", p.value}, {"finding", f.kind}, {"title", f.title}, {"reason", f.reason}});
                if (!json_)
                    s.out << p.name << " " << p.value << ": " << f.title << ". " << f.reason << "\n";
            }
        if (all.empty() && !json_)
            s.out << (std::any_of(sheet->settings.begin(), sheet->settings.end(), [](const SheetSetting& x) { return x.has_preset; }) ? "No preset of " + sheet->name + " is wrong for this job\n" : sheet->name + " has no presets\n");
        if (json_)
            s.out << all.dump(2) << "\n";
        return all.empty() ? exit_fine : exit_serious;
    } else if (json_) {
        all = json_of(keys);
    } else {
        print(s.out, keys);
    }
    if (json_)
        s.out << all.dump(2) << "\n";
    return missed ? exit_serious : exit_fine;
}

} // namespace vernal
