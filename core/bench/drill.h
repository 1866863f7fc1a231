// Drills: a unit with a hidden fault, the customer's words, acts that cost time and show evidence,
// a diagnosis, and what the shortest way would have been.
#pragma once

#include "bench_faults.h"

#include <stop_token>

namespace vernal {

struct Drill {
    std::string name, title; // name: small letters, digits and "-"
    std::string fault;       // key of bench_faults()
    double hour = 11;        // of the day, when one comes
    int looks = 10;          // how many acts there is time for
    std::string story;       // the customer's words
    std::string afterwards;  // told in the debrief; may be empty
    bool operator==(const Drill&) const = default;
};

// Its text: a small front part as procedures have it, the story, and what stands under "## Afterwards".
// Error: which line, what is wrong with it and what is expected.
Result<Drill> read_drill(const std::string& text, const std::string& file);
std::string write_drill(const Drill& d); // reads back equal

// One for each fault that this variant can have, seeded: which words, which hour.
std::vector<Drill> drills_for(const Variant& v, unsigned seed = 1);

// What one can do.
enum class DrillAct : std::uint8_t { display, // readings, outputs
    switches,                                 // positions and bypasses
    settings,                                 // read out of the unit, beside those written
    gauge,
    listen,       // at the pump
    current,      // of the pump
    output_volts, // at its terminals
    ohms,         // of each probe, unplugged
    thermometer,  // a second one at each probe
    bucket,
    refractometer,
    vent,  // a little, at the top
    roof,  // probe, shadows, glass
    night, // come back when it is dark
    taps,
    vessel,  // its gas, and the relief valve lifted
    drain }; // switch off and listen until the array has emptied
inline constexpr std::size_t drill_acts = 17;
struct DrillActText {
    const char *key, *title, *caution; // caution: shown before the act; may be empty
    int minutes;                       // what it costs; estimates
};
const DrillActText& drill_act_text(DrillAct act);

struct Evidence {
    DrillAct act = DrillAct::display;
    std::string text; // as it is told
    std::string sign; // what it says, coarsely: equal signs tell nothing apart
};

// How a diagnosis stands, and what there was to be seen.
struct Debrief {
    bool right = false;
    std::string was;                // the fault's name
    int minutes = 0;                // spent
    std::vector<Evidence> told;     // acts whose evidence differs from that of a sound unit
    std::vector<DrillAct> shortest; // that together tell it from all other faults; empty: none do
    int shortest_minutes = 0;
    std::vector<std::string> like_it; // faults that show the same in every act
};

// What each act shows, first thing after coming at this hour, on a sound unit and with each fault.
struct DrillTable {
    std::vector<DrillAct> acts;
    std::vector<std::string> keys, names;  // of the faults
    std::vector<Evidence> sound;           // by act
    std::vector<std::vector<Evidence>> of; // by fault and act
};
// Takes seconds; stopped it has no sound unit.
DrillTable drill_table(const Job& job, std::size_t variant, double hour, std::stop_token stop = {}, const Units& units = {});
// right and minutes are left open.
Debrief debrief_of(const DrillTable& table, const std::string& fault);

class DrillRun {
public:
    // Error: the variant cannot have this fault, or cannot be run.
    static Result<DrillRun> make(const Job& job, std::size_t variant, const Drill& drill);
    bool can(DrillAct act) const;                                // this loop has it
    const Evidence& look(DrillAct act, const Units& units = {}); // time passes; none is left: the last one again
    int looks_left() const { return drill_.looks - static_cast<int>(seen_.size()); }
    int minutes() const { return minutes_; }
    const std::vector<Evidence>& seen() const { return seen_; }
    Debrief diagnose(const std::string& fault) const; // fills a table: seconds
    Debrief diagnose(const std::string& fault, const DrillTable& table) const;
    double hour() const { return drill_.hour; }
    const Drill& drill() const { return drill_; }

private:
    DrillRun(const Job& job, std::size_t variant, Drill drill, Rig rig);
    std::shared_ptr<const Job> job_;
    std::size_t variant_;
    Drill drill_;
    Rig rig_;
    std::vector<Evidence> seen_;
    int minutes_ = 0;
};

} // namespace vernal
