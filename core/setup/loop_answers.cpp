#include "loop_answers.h"

#include <algorithm>

namespace vernal {
namespace {

// What cannot go together: each entry holds where all its answers are given.
struct Refusal {
    LoopAnswers where;
    const char* reason;
};

const std::vector<Refusal>& refusals()
{
    static const std::vector<Refusal> table = [] {
        std::vector<Refusal> out;
        const auto no = [&](LoopAnswers where, const char* reason) { out.push_back({std::move(where), reason}); };
        for (const char* store : {"tank", "two-tanks"})
            no({{"carrier", "glycol"}, {"transfer", "straight"}, {"store", store}}, "Glycol must not run through water that people use: a coil or an exchanger parts them");
        no({{"carrier", "glycol"}, {"transfer", "straight"}, {"store", "pool"}}, "Glycol must not run through a pool: an exchanger parts them");
        for (const char* transfer : {"coil", "exchanger"})
            no({{"carrier", "air"}, {"transfer", transfer}}, "Air gives its heat to a room or a rock bed here, not through a coil or an exchanger");
        for (const char* store : {"tank", "two-tanks", "pool", "slab"})
            no({{"carrier", "air"}, {"store", store}}, "Air heats a room; for water choose water or glycol in the collector");
        for (const char* carrier : {"water", "glycol"}) {
            no({{"carrier", carrier}, {"store", "room"}}, "A room takes its heat from air; for a heated floor choose slab");
            no({{"carrier", carrier}, {"array", "air"}}, "An air collector holds no liquid");
        }
        for (const char* array : {"flat", "tubes", "unglazed"})
            no({{"carrier", "air"}, {"array", array}}, "Air runs through air collectors");
        for (const char* empties : {"reservoir", "open-tank", "valve"})
            no({{"carrier", "air"}, {"empties", empties}}, "There is nothing to empty where air runs");
        no({{"carrier", "glycol"}, {"empties", "valve"}}, "A drain-down valve would let the glycol run away each cold night");
        no({{"empties", "open-tank"}, {"transfer", "exchanger"}}, "An open tank is its own reservoir: its water runs through the collector, or through a coil");
        for (const char* store : {"pool", "slab", "room"})
            no({{"empties", "open-tank"}, {"store", store}}, "The open tank into which the array drains is the store");
        no({{"empties", "open-tank"}, {"carrier", "glycol"}}, "An open tank's own water fills the array");
        for (const char* store : {"pool", "slab", "room"}) {
            no({{"transfer", "coil"}, {"store", store}}, "A coil lies in a tank");
            no({{"backup", "element"}, {"store", store}}, "The element sits in a tank");
        }
        no({{"transfer", "straight"}, {"exchanger-pumps", "two"}}, "Without an exchanger there is no second pump for it");
        no({{"transfer", "coil"}, {"exchanger-pumps", "two"}}, "Without an exchanger there is no second pump for it");
        return out;
    }();
    return table;
}

bool holds(const LoopAnswers& all, const LoopAnswers& given)
{
    return std::all_of(given.begin(), given.end(), [&](const auto& g) {
        const auto it = all.find(g.first);
        return it != all.end() && it->second == g.second;
    });
}

std::string listed(const LoopAnswers& answers)
{
    std::string s;
    for (const LoopQuestion& q : loop_questions())
        if (const auto it = answers.find(q.key); it != answers.end())
            s += (s.empty() ? "" : ", ") + std::string(q.key) + " " + it->second;
    return s;
}

// Error: a question or answer that is not in the table.
Result<std::monostate> known(const LoopAnswers& given)
{
    for (const auto& [key, value] : given) {
        const auto& all = loop_questions();
        const auto q = std::find_if(all.begin(), all.end(), [&k = key](const LoopQuestion& x) { return k == x.key; });
        if (q == all.end())
            return Error{"“" + key + "” is no question about a loop", "", ""};
        std::string can;
        for (const auto& a : q->answers)
            can += (can.empty() ? "" : ", ") + std::string(a.key);
        if (std::none_of(q->answers.begin(), q->answers.end(), [&v = value](const auto& a) { return v == a.key; }))
            return Error{"“" + value + "” does not answer “" + q->text + "”", key, "Choose among " + can};
    }
    return std::monostate{};
}

} // namespace

const std::vector<LoopQuestion>& loop_questions()
{
    static const std::vector<LoopQuestion> table{
        {"array", "What collects?", {{"flat", "flat plates"}, {"tubes", "evacuated tubes"}, {"unglazed", "unglazed panels"}, {"air", "air collectors"}}},
        {"fields", "How many fields?", {{"1", "one"}, {"2", "two, facing apart"}}},
        {"carrier", "What runs through it?", {{"water", "water"}, {"glycol", "a glycol mix"}, {"air", "air"}}},
        {"empties", "How does it empty?", {{"full", "it stays full"}, {"reservoir", "into a reservoir"}, {"open-tank", "into the open tank"}, {"valve", "by a drain-down valve"}}},
        {"transfer", "How does the heat reach the store?", {{"straight", "with the store's own water or air"}, {"coil", "by a coil"}, {"exchanger", "by an outside exchanger"}}},
        {"exchanger-pumps", "What drives the exchanger's second pump?", {{"one", "there is none, or the first output"}, {"two", "an output of its own"}}},
        {"store", "What stores?", {{"tank", "a tank"}, {"two-tanks", "two tanks by a valve"}, {"pool", "a pool"}, {"slab", "a heated slab"}, {"room", "a room"}}},
        {"power", "What drives the pump?", {{"mains", "the mains"}, {"panel", "a panel"}, {"battery", "panel and battery"}}},
        {"excess", "What takes too much heat?", {{"none", "nothing"}, {"cooler", "a cooler on a three-way valve"}}},
        {"backup", "What backs it up?", {{"none", "nothing"}, {"element", "an element in the tank"}}},
    };
    return table;
}

const std::vector<LoopPreset>& loop_presets()
{
    static const std::vector<LoopPreset> table = [] {
        const LoopAnswers usual{{"array", "flat"}, {"fields", "1"}, {"carrier", "glycol"}, {"empties", "full"}, {"transfer", "coil"}, {"exchanger-pumps", "one"}, {"store", "tank"}, {"power", "mains"}, {"excess", "none"}, {"backup", "none"}};
        std::vector<LoopPreset> out;
        const auto preset = [&](const char* arrangement, const LoopAnswers& other) {
            LoopAnswers all = other;
            all.insert(usual.begin(), usual.end());
            out.push_back({arrangement, std::move(all)});
        };
        preset("direct", {{"carrier", "water"}, {"empties", "valve"}, {"transfer", "straight"}});
        preset("glycol-coil", {});
        preset("glycol-hx", {{"transfer", "exchanger"}, {"exchanger-pumps", "two"}});
        preset("drainback", {{"carrier", "water"}, {"empties", "reservoir"}});
        preset("open-tank", {{"carrier", "water"}, {"empties", "open-tank"}, {"transfer", "straight"}});
        preset("pool", {{"array", "unglazed"}, {"carrier", "water"}, {"empties", "valve"}, {"transfer", "straight"}, {"store", "pool"}});
        preset("pv-direct", {{"power", "panel"}});
        preset("pv-battery", {{"carrier", "water"}, {"empties", "valve"}, {"transfer", "straight"}, {"power", "battery"}});
        preset("floor", {{"transfer", "straight"}, {"store", "slab"}});
        preset("air", {{"array", "air"}, {"carrier", "air"}, {"transfer", "straight"}, {"store", "room"}});
        preset("two-stores", {{"store", "two-tanks"}});
        preset("two-arrays", {{"fields", "2"}});
        preset("dump", {{"excess", "cooler"}});
        preset("tube-manifold", {{"array", "tubes"}});
        return out;
    }();
    return table;
}

const LoopPreset* find_preset(const std::string& arrangement)
{
    const auto& all = loop_presets();
    const auto it = std::find_if(all.begin(), all.end(), [&](const LoopPreset& p) { return arrangement == p.arrangement; });
    return it == all.end() ? nullptr : &*it;
}

std::string cannot_combine(const LoopAnswers& given)
{
    for (const Refusal& r : refusals())
        if (holds(given, r.where))
            return r.reason;
    return "";
}

Result<LoopPreset> nearest_preset(const LoopAnswers& given)
{
    if (const auto fine = known(given); !fine)
        return fine.error();
    if (const std::string reason = cannot_combine(given); !reason.empty())
        return Error{reason, listed(given), ""};
    // An element fits every tank: it is a part of each of them.
    LoopAnswers asked = given;
    asked.erase("backup");
    const LoopPreset* nearest = nullptr;
    std::ptrdiff_t most = -1;
    for (const LoopPreset& p : loop_presets()) {
        const auto same = std::count_if(asked.begin(), asked.end(), [&](const auto& a) { return p.answers.at(a.first) == a.second; });
        if (same > most) {
            most = same;
            nearest = &p;
        }
    }
    if (!holds(nearest->answers, asked))
        return Error{"no arrangement here joins these", listed(given), std::string("The nearest is “") + nearest->arrangement + "”: " + listed(nearest->answers)};
    LoopPreset out = *nearest;
    if (const auto backup = given.find("backup"); backup != given.end())
        out.answers["backup"] = backup->second;
    if (const std::string reason = cannot_combine(out.answers); !reason.empty())
        return Error{reason, listed(given), ""};
    return out;
}

Result<Job> new_job_of(const LoopAnswers& given)
{
    const auto preset = nearest_preset(given);
    if (!preset)
        return preset.error();
    Job job = new_job(preset->arrangement);
    if (preset->answers.at("backup") == "element") {
        constexpr double morning_h = 5, until_h = 7; // before the hours of use: estimate
        Element& e = job.variants.front().loop.element;
        e.mode = ElementMode::windows;
        if (std::none_of(e.windows.begin(), e.windows.end(), [](const HeatingWindow& w) { return w.start_h != w.end_h; }))
            e.windows.front() = {morning_h, until_h};
    }
    return job;
}

} // namespace vernal
