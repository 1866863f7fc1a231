#include "answers.h"

#include <algorithm>
#include <sstream>
#include <tuple>

namespace vernal {
namespace {

// A question of this table whose answer is kept in this member.
template <auto Member>
LoopQuestion question(const char* key, const char* text, std::vector<LoopQuestion::Answer> answers)
{
    return {key, text, std::move(answers), [](const LoopAnswers& a) { return static_cast<std::size_t>(a.*Member); },
        [](LoopAnswers& a, std::size_t i) { a.*Member = static_cast<std::decay_t<decltype(a.*Member)>>(i); }};
}

// That a question has one of these answers.
struct Condition {
    std::size_t question;
    std::uint32_t answers; // bit by value
};

// In the order of loop_questions().
using AnswerTypes = std::tuple<Array, Fields, Carrier, Empties, Transfer, ExchangerPumps, Store, PoweredBy, Excess, Backup, Circulates>;
template <class E, std::size_t i = 0>
constexpr std::size_t question_of()
{
    if constexpr (std::is_same_v<std::tuple_element_t<i, AnswerTypes>, E>)
        return i;
    else
        return question_of<E, i + 1>();
}

template <class E, class... More>
Condition is(E first, More... more)
{
    Condition c{question_of<E>(), 1U << static_cast<unsigned>(first)};
    ((c.answers |= 1U << static_cast<unsigned>(more)), ...);
    return c;
}

// What cannot go together: each entry holds where all its conditions do.
struct Refusal {
    std::vector<Condition> where;
    const char* reason;
};

const std::vector<Refusal>& refusals()
{
    static const std::vector<Refusal> table{
        {{is(Carrier::glycol), is(Transfer::straight), is(Store::tank, Store::two_tanks)}, "Glycol must not run through water that people use: a coil or an exchanger parts them"},
        {{is(Carrier::glycol), is(Transfer::straight), is(Store::pool)}, "Glycol must not run through a pool: an exchanger parts them"},
        {{is(Carrier::air), is(Transfer::coil, Transfer::exchanger)}, "Air gives its heat to a room or a rock bed here, not through a coil or an exchanger"},
        {{is(Carrier::air), is(Store::tank, Store::two_tanks, Store::pool, Store::slab)}, "Air heats a room; for water choose water or glycol in the collector"},
        {{is(Carrier::water, Carrier::glycol), is(Store::room)}, "A room takes its heat from air; for a heated floor choose slab"},
        {{is(Carrier::water, Carrier::glycol), is(Array::air)}, "An air collector holds no liquid"},
        {{is(Carrier::air), is(Array::flat, Array::selective, Array::tubes, Array::unglazed, Array::hose, Array::trickle)}, "Air runs through air collectors"},
        {{is(Array::trickle), is(Carrier::glycol)}, "Glycol that trickles in the open takes up air and foams: plain water"},
        {{is(Array::trickle), is(Empties::full, Empties::valve)}, "What trickles down an open absorber runs off it when the pump rests: into a reservoir or the open tank"},
        {{is(Carrier::air), is(Empties::reservoir, Empties::open_tank, Empties::valve)}, "There is nothing to empty where air runs"},
        {{is(Carrier::air), is(Excess::cooler, Excess::house)}, "Air that is too warm is let out of doors by a damper: no cooler hangs on it"},
        {{is(Carrier::glycol), is(Empties::valve)}, "A drain-down valve would let the glycol run away each cold night"},
        {{is(Empties::valve), is(Transfer::coil, Transfer::exchanger)}, "A closed loop that was let out does not fill itself again: a drain-down valve wants the store's own water in the collector"},
        {{is(Empties::valve), is(Store::slab)}, "A floor's loop that was let out does not fill itself again: let it stay full or empty into a reservoir"},
        {{is(Empties::reservoir), is(Transfer::straight), is(Store::tank, Store::two_tanks)}, "The tank's water stands under pressure and does not fall into a reservoir: a coil or an exchanger parts them, or the tank is an open one"},
        {{is(Empties::reservoir), is(Transfer::straight), is(Store::pool)}, "The pool's own water runs back into the pool: let it out by a valve"},
        {{is(Empties::open_tank), is(Transfer::coil, Transfer::exchanger)}, "The open tank's own water runs through the collector: no coil or exchanger stands between them"},
        {{is(Empties::open_tank), is(Store::pool, Store::slab, Store::room)}, "The open tank into which the array drains is the store"},
        {{is(Empties::open_tank), is(Store::two_tanks)}, "Two open tanks on one valve would level out through it"},
        {{is(Empties::open_tank), is(Carrier::glycol)}, "An open tank's own water fills the array"},
        {{is(Empties::reservoir, Empties::open_tank, Empties::valve), is(Carrier::water), is(Excess::cooler)}, "What empties its array against frost leaves water in a cooler in the open, which freezes: a loop through the house, or glycol"},
        {{is(Array::tubes), is(Empties::valve)}, "Tubes stay warm while the pipe beside them freezes: a valve that drains by the collector's probe opens too late"},
        {{is(Transfer::coil), is(Store::pool, Store::slab, Store::room)}, "A coil lies in a tank"},
        {{is(Backup::element), is(Store::pool, Store::slab, Store::room)}, "The element sits in a tank"},
        {{is(Backup::heater_after), is(Store::pool, Store::slab, Store::room)}, "A heater after the tank warms what is drawn from a tank"},
        {{is(Circulates::taps), is(Store::pool, Store::slab, Store::room)}, "What circulates to the taps comes from a tank"},
        {{is(Excess::circulation), is(Circulates::none)}, "The tap circulation takes heat only where there is one"},
        {{is(Excess::circulation), is(Store::pool, Store::slab, Store::room)}, "The tap circulation takes heat from a tank"},
        {{is(Excess::circulation), is(Backup::heater_after)}, "Behind a heater of its own the circulation keeps that heater warm and takes nothing from the solar tank"},
        {{is(PoweredBy::none), is(Store::two_tanks, Store::pool, Store::slab, Store::room)}, "Water rises by itself into one tank above the collector"},
        {{is(PoweredBy::none), is(Carrier::air)}, "Air that rises by itself leaves a unit nothing to switch"},
        {{is(PoweredBy::none), is(Transfer::exchanger)}, "What rises by itself does not push through an outside exchanger: straight or by a coil"},
        {{is(PoweredBy::none), is(Empties::reservoir, Empties::open_tank)}, "An array that empties wants a pump to fill it"},
        {{is(PoweredBy::none), is(Empties::valve)}, "Collector and tank in one are not drained by the unit: where it freezes, glycol and a coil"},
        {{is(PoweredBy::none), is(Fields::two)}, "Each array whose water circulates by itself has a tank of its own"},
        {{is(PoweredBy::none), is(Excess::cooler, Excess::house)}, "Without a pump nothing sends heat to a cooler"},
        {{is(PoweredBy::none), is(Backup::none, Backup::heater_after), is(Circulates::none)}, "Where the water circulates by itself and neither element nor tap circulation is there, a unit has nothing to switch"},
        {{is(Transfer::straight, Transfer::coil), is(ExchangerPumps::two)}, "Without an exchanger there is no second pump for it"},
    };
    return table;
}

} // namespace

const std::vector<LoopQuestion>& loop_questions()
{
    using A = LoopAnswers;
    static const std::vector<LoopQuestion> table{
        question<&A::array>("array", "What collects?", {{"flat", "painted flat plates"}, {"selective", "selective flat plates"}, {"tubes", "evacuated tubes"}, {"unglazed", "unglazed panels"}, {"hose", "black hose"}, {"air", "air collectors"}, {"trickle", "open trickle absorber"}}),
        question<&A::fields>("fields", "How many fields?", {{"1", "one"}, {"2", "two, facing apart"}}),
        question<&A::carrier>("carrier", "What runs through it?", {{"water", "water"}, {"glycol", "a glycol mix"}, {"air", "air"}}),
        question<&A::empties>("empties", "How does it empty?", {{"full", "it stays full"}, {"reservoir", "into a reservoir"}, {"open-tank", "into the open tank"}, {"valve", "by a drain-down valve"}}),
        question<&A::transfer>("transfer", "How does the heat reach the store?", {{"straight", "with the store's own water or air"}, {"coil", "by a coil"}, {"exchanger", "by an outside exchanger"}}),
        question<&A::exchanger_pumps>("exchanger_pumps", "What drives the exchanger's second pump?", {{"one", "there is none, or the first output"}, {"two", "an output of its own"}}),
        question<&A::store>("store", "What stores?", {{"tank", "a tank"}, {"two-tanks", "two tanks by a valve"}, {"pool", "a pool"}, {"slab", "a heated slab"}, {"room", "a room"}}),
        question<&A::power>("power", "What drives the pump?", {{"mains", "the mains"}, {"panel", "a panel"}, {"battery", "panel and battery"}, {"none", "nothing: the water circulates by itself"}}),
        question<&A::excess>("excess", "What takes too much heat?", {{"none", "nothing"}, {"cooler", "a cooler on a three-way valve"}, {"house", "a loop through the house"}, {"circulation", "the tap circulation"}}),
        question<&A::backup>("backup", "What backs it up?", {{"none", "nothing"}, {"element", "an element in the tank"}, {"heater-after", "a heater after the tank"}}),
        question<&A::circulation>("circulation", "Does hot water circulate?", {{"none", "no"}, {"taps", "past the taps and back"}}),
    };
    return table;
}

const std::vector<const char*>& answer_keys(const std::string& question)
{
    static const std::vector<std::vector<const char*>> table = [] {
        std::vector<std::vector<const char*>> out;
        for (const LoopQuestion& q : loop_questions())
            for (auto& keys = out.emplace_back(); const LoopQuestion::Answer& a : q.answers)
                keys.push_back(a.key);
        return out;
    }();
    return table[static_cast<std::size_t>(find_question(question) - loop_questions().data())];
}

const LoopQuestion* find_question(const std::string& key)
{
    const auto& all = loop_questions();
    const auto it = std::find_if(all.begin(), all.end(), [&](const LoopQuestion& q) { return key == q.key; });
    return it == all.end() ? nullptr : &*it;
}

std::string answers_text(const LoopAnswers& answers)
{
    std::string s;
    for (const LoopQuestion& q : loop_questions())
        s += (s.empty() ? "" : " ") + std::string(q.key) + "=" + q.answers[q.get(answers)].key;
    return s;
}

std::optional<LoopAnswers> answers_of_text(const std::string& text)
{
    LoopAnswers out;
    std::istringstream words(text);
    std::size_t given = 0;
    for (std::string word; words >> word; ++given) {
        const std::size_t at = word.find('=');
        const LoopQuestion* q = at == std::string::npos ? nullptr : find_question(word.substr(0, at));
        if (!q)
            return {};
        const auto it = std::find_if(q->answers.begin(), q->answers.end(), [&](const auto& a) { return word.substr(at + 1) == a.key; });
        if (it == q->answers.end())
            return {};
        q->set(out, static_cast<std::size_t>(it - q->answers.begin()));
    }
    return given == loop_questions().size() ? std::optional(out) : std::nullopt;
}

std::string cannot_combine(const LoopAnswers& answers, const OpenQuestions& open)
{
    const auto holds = [&](const Condition& c) {
        return (open.empty() || !open[c.question]) && (c.answers >> loop_questions()[c.question].get(answers) & 1U) != 0;
    };
    for (const Refusal& r : refusals())
        if (std::all_of(r.where.begin(), r.where.end(), holds))
            return r.reason;
    return "";
}

std::vector<LoopAnswers> all_answers()
{
    std::vector<LoopAnswers> found{{}};
    OpenQuestions open(loop_questions().size(), true);
    for (std::size_t q = 0; q < open.size(); ++q) {
        open[q] = false;
        std::vector<LoopAnswers> next;
        for (const LoopAnswers& a : found)
            for (std::size_t i = 0; i < loop_questions()[q].answers.size(); ++i) {
                LoopAnswers with = a;
                loop_questions()[q].set(with, i);
                if (cannot_combine(with, open).empty())
                    next.push_back(with);
            }
        found = std::move(next);
    }
    return found;
}

} // namespace vernal
