#include "loop_answers.h"

#include "core/plant/collector_kinds.h"

#include <algorithm>
#include <limits>

namespace vernal {
namespace {

std::string listed(const GivenAnswers& given)
{
    std::string s;
    for (const LoopQuestion& q : loop_questions())
        if (const auto it = given.find(q.key); it != given.end())
            s += (s.empty() ? "" : ", ") + std::string(q.key) + " " + it->second;
    return s;
}

// What was given, and which questions stay open.
struct Partly {
    LoopAnswers answers;
    OpenQuestions open = OpenQuestions(loop_questions().size(), true);
};

// Error: a question or answer that is not in the table.
Result<Partly> understood(const GivenAnswers& given)
{
    Partly out;
    for (const auto& [key, value] : given) {
        const LoopQuestion* q = find_question(key);
        if (!q)
            return Error{"“" + key + "” is no question about a loop", "", ""};
        const auto it = std::find_if(q->answers.begin(), q->answers.end(), [&v = value](const auto& a) { return v == a.key; });
        if (it == q->answers.end()) {
            std::string can;
            for (const auto& a : q->answers)
                can += (can.empty() ? "" : ", ") + std::string(a.key);
            return Error{"“" + value + "” does not answer “" + q->text + "”", key, "Choose among " + can};
        }
        q->set(out.answers, static_cast<std::size_t>(it - q->answers.begin()));
        out.open[static_cast<std::size_t>(q - loop_questions().data())] = false;
    }
    return out;
}

std::size_t differences(const LoopAnswers& a, const LoopAnswers& b)
{
    return static_cast<std::size_t>(std::count_if(loop_questions().begin(), loop_questions().end(), [&](const LoopQuestion& q) { return q.get(a) != q.get(b); }));
}

// What nobody would build who was not asked for it, so that open questions are not answered with it.
std::size_t oddness(const LoopAnswers& a)
{
    const bool bare = uncovered(a.array), glycol = a.carrier == Carrier::glycol, exchanger = a.transfer == Transfer::exchanger, pool = a.store == Store::pool;
    std::size_t out = 0;
    out += bare && glycol ? 3 : 0;               // plain water that is drained for the winter
    out += pool && exchanger && !glycol ? 3 : 0; // the pool's own water goes through
    out += pool && bare && a.transfer != Transfer::straight ? 3 : 0;
    out += glycol && exchanger && a.store == Store::tank ? 1 : 0; // a coil in the tank does
    return out;
}

bool holds(const LoopAnswers& all, const Partly& given)
{
    for (std::size_t q = 0; q < given.open.size(); ++q)
        if (!given.open[q] && loop_questions()[q].get(all) != loop_questions()[q].get(given.answers))
            return false;
    return true;
}

} // namespace

Result<LoopAnswers> complete(const GivenAnswers& given, const std::string& preset)
{
    if (!preset.empty() && !find_preset(preset))
        return Error{"there is no preset “" + preset + "”", "preset", "new --help lists them"};
    const auto partly = understood(given);
    if (!partly)
        return partly.error();
    if (const std::string reason = cannot_combine(partly->answers, partly->open); !reason.empty())
        return Error{reason, listed(given), ""};
    static const std::vector<LoopAnswers> all = all_answers();
    const LoopAnswers* nearest = nullptr;
    std::size_t least = std::numeric_limits<std::size_t>::max();
    // A preset that was named is wanted as it is.
    const auto far = [&](const LoopAnswers& a, const Arrangement& p) { return differences(a, p.answers) + (preset.empty() ? oddness(a) : 0); };
    for (const Arrangement& p : presets())
        for (const LoopAnswers& a : all)
            if ((preset.empty() || p.key == preset) && far(a, p) < least && holds(a, *partly)) {
                least = far(a, p);
                nearest = &a;
            }
    if (!nearest) // each pair may go together and all of them not
        return Error{"no loop joins all of these", listed(given), "Leave one of them open"};
    return *nearest;
}

Result<Job> new_job_of(GivenAnswers given, const std::string& preset, int probes)
{
    if (probes == 1)
        given.try_emplace("power", "none");
    const auto answers = complete(given, preset);
    if (!answers)
        return answers.error();
    const bool by_itself = answers->power == PoweredBy::none;
    if (probes != 0 && by_itself && probes != 1 && probes != 2)
        return Error{"where the water circulates by itself a unit has one probe, at the tank's top, or a second at its bottom", "probes", "Use 1 or 2"};
    if (probes != 0 && !by_itself && probes != 2 && probes != 3)
        return Error{"a unit that collects wants two probes to see a difference, and has three here at most", "probes", probes == 1 ? "Use 2 or 3; or --power none, where the water circulates by itself" : "Use 2 or 3"};
    return new_job(*answers, probes);
}

} // namespace vernal
