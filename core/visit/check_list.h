// Ordered lists of what is done on a visit, as open text like procedures: commissioning from
// mounting to hand-over, the survey before it, a yearly service. docs/visits.md has their text.
#pragma once

#include "core/job/job.h"

#include <optional>

namespace vernal {

// What an item's measurement is held against.
struct ItemTolerance {
    enum class Is : std::uint8_t { none,
        below,
        above,
        near };
    Is is = Is::none;
    bool stated = false; // against what is stated for the loop; else:
    double level = 0;    // in the reading's unit inside
    double within = 0;   // of near: a share of the level
    bool operator==(const ItemTolerance&) const = default;
};

struct ListItem {
    std::string stage; // "Mounting"; stands over the first of its items
    std::string id;    // small letters, digits and "-"; of its list
    std::string title, text;
    std::string only = "all"; // loops that have it, by a word of list_loops()
    std::string why, caution;
    std::string valves;  // key of a state of the valve board; empty: none
    std::string measure; // key of a reading kind; empty: nothing is measured
    ItemTolerance tolerance = {};
    std::string proved_by; // name of a procedure; empty: none
    std::string sets;      // path of a setting that the answer becomes; empty: none
    bool asks = false;     // for words
    bool photo = false;    // asks for one
    bool operator==(const ListItem&) const = default;
};

struct CheckList {
    std::string name, title, text;
    Purpose purpose = Purpose::commissioning; // of visits on which it is offered
    std::vector<ListItem> items;
    bool operator==(const CheckList&) const = default;
};

// Words by which items say on which loops they are done.
struct ListLoops {
    const char* word;
    bool (*has)(const Loop& loop);
};
const std::vector<ListLoops>& list_loops();

// Error: which line, what is wrong with it and what is expected.
Result<CheckList> read_check_list(const std::string& text, const std::string& file);
std::string write_check_list(const CheckList& list); // reads back equal

const std::vector<CheckList>& shipped_check_lists();
// One's own, kept in the job as attachments "name.list.md", then those that ship; the first of a name counts.
std::vector<CheckList> check_lists(const Job& job);
inline constexpr const char* check_list_ending = ".list.md";

// How an item stands, over the visits of one run of the list: the last that says something. A
// run goes on over visits that lie at most three months apart; later, the list begins anew.
struct ItemStands {
    const ListItem* item = nullptr;
    Tick tick = Tick::open;
    std::string said, when;               // when: of what was said or proved
    std::optional<VisitReading> measured; // of the last visit that read it
    std::optional<bool> within;           // its tolerance, where there is one and it was measured
};
// Of the items that this loop has. A procedure proves an item where it passed since the list was
// begun; nothing else ticks by itself.
// when: a moment of that run; empty: the last run.
std::vector<ItemStands> items_of(const Job& job, const Variant& v, const CheckList& list, const std::string& when = "");
std::size_t open_items(const std::vector<ItemStands>& items);

// "at most 0.5 K", "near 7.0 L/min, within 30 %"; empty: none.
std::string tolerance_text(const ListItem& item, const Variant& v, const Units& units);

} // namespace vernal
