// The job as plain values: what is saved, compared and undone.
#pragma once

#include "bench_record.h"
#include "core/rules/rule_compiler.h"
#include "core/weather/day.h"
#include "draw.h"
#include "fault.h"
#include "logbook.h"
#include "trace.h"
#include "variant.h"

#include <map>
#include <memory>

namespace vernal {

struct Site {
    std::string name;
    std::string customer;
    Place place;
    bool operator==(const Site&) const = default;
};

enum class DayKind : std::uint8_t { generated,
    recorded };

// With what the first day's stores begin.
enum class Begins : std::uint8_t { settled, // as such days leave them one after the other
    cold,                                   // filled this morning
    holiday };                              // after sunny days without a draw
struct Day {
    std::string name;
    DayKind kind = DayKind::generated;
    SkySpec sky;
    std::string trace; // recorded: replayed; generated: its air and irradiance, when it has them
    std::vector<Draw> draws;
    double mains_c = 10.0;
    double draw_target_c = 45.0;
    double outage_start_h = 0, outage_h = 0; // on the first day the mains fail from, for; 0: they do not
    std::vector<Shade> shades;
    // Of several days each has the next date, other clouds of its kind, the same hours of all else.
    int length_days = 1;
    int away_from = 1, away_days = 0;     // from which of them nothing is drawn, for how many; 0: all are at home
    int guests_from = 1, guests_days = 0; // from which of them guests draw, for how many
    double guests_times = 2;              // as much as is drawn without them
    Begins begins = Begins::settled;
    std::vector<Fault> faults; // in the order in which they were painted; a later one stands over an earlier
    std::string id{};
    Day();
    Day(const Day&);
    Day(Day&&) noexcept;
    Day& operator=(const Day&);
    Day& operator=(Day&&) noexcept;
    ~Day();
    bool operator==(const Day&) const;
};
inline constexpr int longest_days = 62; // of one Day

// Any file kept with the job (a photo, a unit's sheet): never changed, known by
// the hash of its content, shared by the states of undo.
struct Attachment {
    std::string name;                         // as it was called, without folder
    std::string sha256;                       // 64 hex digits, lower case
    std::shared_ptr<const std::string> bytes; // null: lost, only its entry is left
    bool operator==(const Attachment& o) const { return name == o.name && sha256 == o.sha256; }
};

using Traces = std::map<std::string, std::shared_ptr<const Trace>>;

struct Job {
    std::string title = "New loop";
    Site site;
    std::vector<Variant> variants; // at least one
    std::vector<Day> days;         // at least one
    Traces traces;                 // by file name without folder, "7-may.csv"
    std::vector<Attachment> attachments;
    std::vector<BenchRecord> bench; // in the order in which they were done
    Logbook logbook;
    Job();
    Job(const Job&);
    Job(Job&&) noexcept;
    Job& operator=(const Job&);
    Job& operator=(Job&&) noexcept;
    ~Job();
    bool operator==(const Job&) const;
};

// A job that works at once: one loop put together from these answers, two probes and
// a third in the tank top, the even-handed pair, three generated days.
// probes: 3, or 2 where the unit has no input for the tank's top: its limit reads the
// bottom then, with an allowance. Where the water circulates by itself 1, at the tank's
// top, or 2. 0: the usual number.
Job new_job(const LoopAnswers& answers, int probes = 0);
int usual_probes(const LoopAnswers& answers); // besides those of a second array or tank: 3, or 1 without a pump
Job new_job(const std::string& preset);       // it exists

// Takes a fresh job to its place: south of the equator arrays and panels face north, and the
// days lie in the other half of the year. Of a job that lies north of it so far.
void move_fresh_job(Job& job, const Place& place);

// Ways in which hot water is drawn over a day.
struct DrawProfile {
    const char* title;
    std::vector<Draw> draws;
};
const std::vector<DrawProfile>& draw_profiles();

const Variant* find_variant(const Job& job, const std::string& name);
const Day* find_day(const Job& job, const std::string& name);

// Column name of a place in a trace, "tank_bottom"; the key of the place in the job file.
const char* place_key(ProbePlace place);

std::vector<std::string> probe_keys(const Variant& v);
// Of a log: the place, and of a second probe at one place its key too (tank_top_S4).
std::string log_column(const Variant& v, std::size_t probe);
std::vector<Reads> probe_reads(const Variant& v); // what each reads, likewise
bool reads_temperature(const Probe& p);

// The variant's rules for the engine.
Compiled compile(const Variant& v);

} // namespace vernal
