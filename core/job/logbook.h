// The logbook of a loop as plain values: visits, what is due, what things cost.
#pragma once

#include "variant.h"

#include <array>
#include <cstdint>
#include <string>
#include <vector>

namespace vernal {

enum class Purpose : std::uint8_t { service,
    survey,
    commissioning,
    call_back,
    other };
inline constexpr std::array purpose_keys{"service", "survey", "commissioning", "call_back", "other"};

// Something read on a visit. What kinds there are, their unit inside and whether they are
// read of something: core/visit/reading_kind.h.
struct VisitReading {
    std::string kind; // "flow"
    std::string of;   // key of a probe, output or part; empty: of the loop
    double value = 0; // in the kind's own unit inside
    bool with_temperature = false;
    double at_c = 0;  // what it was read at, where that is said: a pressure's fluid
    std::string how;  // "bucket, 8 L in 61 s"
    std::string time; // "11:40"; empty: not said
    bool operator==(const VisitReading&) const = default;
};

struct VisitFault {
    std::string text, of; // of: where it was
    bool operator==(const VisitFault&) const = default;
};

// What was done, and what was put in.
struct VisitWork {
    std::string text, of;
    double minutes_s = 0;
    std::string part;              // that was put in; empty: none
    double cost = 0;               // of the part, in the logbook's money
    double after_h = 0;            // what it replaced had run, h; 0: not known
    double after_starts = 0;       // and how often it had started; 0: not known
    double expected_years = 0;     // of the new one; 0: nobody says
    std::vector<std::string> does; // ids of due items that it does
    bool operator==(const VisitWork&) const = default;
};

struct VisitPhoto {
    std::string sha256, caption, of; // of: the part it belongs to; the content is an attachment
    bool operator==(const VisitPhoto&) const = default;
};

struct VisitNext {
    std::string text, by; // by: a date; empty: none is said
    bool operator==(const VisitNext&) const = default;
};

enum class Tick : std::uint8_t { open,
    done,
    proved, // by a procedure
    not_applicable };
inline constexpr std::array tick_keys{"open", "done", "proved", "not_applicable"};

// An item of a list that was come to. What is not here is open.
struct VisitTick {
    std::string list, item; // name of the list, id of the item in it
    Tick tick = Tick::open;
    std::string said; // what was answered, measured, or why it does not apply
    std::string when; // local, "2026-05-12T09:30"
    bool operator==(const VisitTick&) const = default;
};

// Of a closed visit: what it says wrongly, never changed in it.
struct Amendment {
    std::string when, by, reason, text;
    std::vector<VisitReading> readings; // stand in place of those of the same kind and thing
    bool operator==(const Amendment&) const = default;
};

// Of a first day: what the program said beforehand.
struct FirstDay {
    std::string date;             // empty: nothing was foretold
    double store_c = 0;           // warmest of the store's top
    double heat_j = 0;            // to the store
    double starts = 0, run_s = 0; // of the first output
    double begin_c = 0;           // of the store, in the morning
    std::string sky;              // "clear", by the key of its clouds
    bool operator==(const FirstDay&) const = default;
};

struct Visit {
    std::string when;    // local, "2026-05-12T09:30"; the visit's beginning
    std::string persons; // who was there
    Purpose purpose = Purpose::service;
    std::string title; // "cold tank"; a call-back's: the customer's words
    std::string weather;
    std::string sky;                  // key of the clouds of that hour; empty: not said
    bool closed = false;              // it is amended then, never changed
    std::string variant;              // id of the one that stood in the unit
    std::vector<Variant> found, left; // at most one each: whole, as they stood then
    std::string found_how, left_how;  // "by reading the unit"
    std::vector<VisitReading> readings;
    std::vector<std::string> tests; // when-and-name of what the bench found, see test_key()
    std::vector<VisitFault> faults;
    std::vector<VisitWork> work;
    std::vector<VisitPhoto> photos;
    std::vector<VisitTick> ticks;
    std::vector<VisitNext> next;
    std::string notes;
    FirstDay first_day;
    std::vector<Amendment> amendments;
    std::string id{};
    Visit();
    Visit(const Visit&);
    Visit(Visit&&) noexcept;
    Visit& operator=(const Visit&);
    Visit& operator=(Visit&&) noexcept;
    ~Visit();
    bool operator==(const Visit&) const;
};

// Something that comes due, by whichever comes first.
struct DueItem {
    std::string title;
    std::string kind = "other"; // what it is: core/visit/due.h
    double every_months = 0;    // 0: not by date; likewise:
    double every_h = 0;         // run hours of `of`
    double every_starts = 0;
    std::string of;        // the output that is counted
    std::string event;     // "after a stagnation"; empty: none
    bool licensed = false; // by the licensed person
    std::string last;      // date it was last done, where no visit says so
    bool dropped = false;  // this loop does without
    std::string id{};
    bool operator==(const DueItem&) const = default;
};

struct Costs {
    std::string money;     // "€"
    double energy_kwh = 0; // of electricity, each kWh; 0: not stated, likewise:
    double work_h = 0;     // an hour of work
    bool operator==(const Costs&) const = default;
};

struct Logbook {
    std::vector<Visit> visits; // in the order of their beginning
    std::vector<DueItem> due;  // what differs from what is usual for the loop
    Costs costs;
    Logbook();
    Logbook(const Logbook&);
    Logbook(Logbook&&) noexcept;
    Logbook& operator=(const Logbook&);
    Logbook& operator=(Logbook&&) noexcept;
    ~Logbook();
    bool operator==(const Logbook&) const;
};

} // namespace vernal
