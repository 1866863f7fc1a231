// What is wrong or risky in a variant, most serious first.
#pragma once

#include "core/job/job.h"
#include "core/run/figures.h"

#include <functional>
#include <optional>

namespace vernal {

enum class Severity : std::uint8_t { serious,
    caution,
    note };

struct Remedy {
    std::string label; // "Try: start at 12.0 K"
    std::function<void(Variant&)> apply;
};

// What a remedy does, as paths of settings (core/job/field_path.h) with the values
// that they get; of a rule that it adds or removes the path "rule/ID" alone, with
// the value "added" or "removed"; what an output does while a probe is broken, a
// list without paths of its own, as "output/ID/faults", "changed".
struct RemedyChange {
    std::string path, value;
    bool operator==(const RemedyChange&) const = default;
};
std::vector<RemedyChange> changes_of(const Job& job, std::size_t variant, const Remedy& remedy);

struct Finding {
    const char* kind = ""; // key of its entry in finding_kinds(), or in trouble_kinds() of what a log shows
    Severity severity = Severity::note;
    std::string title;
    std::string reason;
    std::optional<Remedy> remedy;
    std::string at = {};                                  // path of what it is about, down to a rule, probe, output or setting; empty: the whole loop
    std::optional<std::pair<double, double>> seen_s = {}; // from, to: where a log shows it, s of the log
};

// What a check may look at. figures: of the chosen day, null before its first run.
struct FindingContext {
    const Job& job;
    const Variant& variant;
    const Figures* figures = nullptr;
    Units units;
    const Day* day = nullptr; // of the figures; null: remedies are not tried on it
};

// Where its cause is set right, and so where it is marked.
enum class Cause : std::uint8_t { rules,
    loop,
    probes,
    days,
    sight,
    bench,
    visits };

// Loops of which a finding can hold.
enum class Loops : std::uint8_t { all,
    liquid, // all but air
    glycol,
    tank,   // with drinking water
    pumped, // heat is collected by a pump
    pumped_liquid,
    circulating, // past the taps
    heater,      // after the tank
    draining,
    closed, // with a vessel
    panel,
    battery,
    motor };
bool holds_for(Loops loops, const Arrangement& a);

// One entry per kind of finding; findings.cpp holds the table.
struct FindingKind {
    const char* key;
    std::vector<Finding> (*check)(const FindingContext&);
    Cause cause = Cause::rules;
    Loops loops = Loops::all;
    const char* at = ""; // path of what it is about, where neither the finding itself nor its remedy says
};
const std::vector<FindingKind>& finding_kinds();

const FindingKind* find_kind(const std::string& key); // nullptr: unknown

std::vector<Finding> findings(const FindingContext& context);

// Says what the findings are about that do not say it themselves, and of those that
// do the very setting, by what their remedies change. job, variant: they are of.
void place_findings(std::vector<Finding>& found, const Job& job, std::size_t variant);

// Whether it is about this part, rule, probe or setting, or one of its settings.
bool is_at(const Finding& f, const std::string& path);

const char* severity_text(Severity s); // "serious", "caution", "note"

} // namespace vernal
