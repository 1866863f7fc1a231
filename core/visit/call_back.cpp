#include "call_back.h"

#include "core/units/calendar.h"
#include "due.h"
#include "measured.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace vernal {
namespace {

using C = Complaint;

struct Likely { // how often it is complained of, or answered so, with this cause
    const char* key;
    double share;
};

// What of the loop's history makes a cause likelier, and by how much; empty words: nothing.
struct History {
    std::string because;
    double times = 1;
};

struct CauseEntry {
    const char* key;
    const char* title;
    Loops loops;
    double often; // against the others; an estimate, as are all shares below
    std::vector<std::pair<C, double>> complained;
    std::vector<Likely> answered; // yes, by question
    const char* on_phone;
    const char* spares;
    History (*history)(const Job&, const Variant&) = nullptr;
};

constexpr double unlikely = 0.03, undecided = 0.5; // a complaint that a cause does not make; a question it says nothing of

const Visit* last_visit(const Job& job) { return job.logbook.visits.empty() ? nullptr : &job.logbook.visits.back(); }

History switch_left(const Job&, const Variant& v)
{
    for (const Output& o : v.unit.outputs)
        if (o.mode != Mode::automatic || o.bypass)
            return {"the switch of " + o.key + " was left " + (o.mode == Mode::off ? "OFF" : o.mode == Mode::on ? "ON"
                                                                                                                : "on AUTO with its bypass closed"),
                8};
    return {};
}

History pressure_fell(const Job& job, const Variant& v)
{
    if (const Visit* last = last_visit(job)) {
        const auto readings = valid_readings(*last);
        const VisitReading* r = reading_of(readings, "pressure");
        if (r && r->value < 0.8 * v.loop.vessel.fill_pa)
            return {"the gauge was low on " + date_words(last->when), 5};
    }
    return {};
}

History probes_apart(const Job& job, const Variant&)
{
    if (const Visit* last = last_visit(job))
        for (const VisitReading& r : valid_readings(*last))
            if (r.kind == "apart" && std::fabs(r.value) > 1.0)
                return {"probes were " + to_text(std::fabs(r.value), Quantity::difference, Units::metric()) + " apart on " + date_words(last->when), 4};
    return {};
}

History changed_lately(const Job& job, const Variant&)
{
    const Visit* last = last_visit(job);
    if (last && !last->found.empty() && !last->left.empty() && !(last->found.front() == last->left.front()))
        return {"settings were changed on " + date_words(last->when), 2.5};
    return {};
}

History worn(const Job& job, const Variant&)
{
    if (const Visit* last = last_visit(job))
        for (const VisitReading& r : valid_readings(*last))
            if ((r.kind == "starts" && r.value > 20000) || (r.kind == "hours" && r.value > 15000)) // of a small circulator; estimates
                return {r.of + " has " + to_text(r.value, r.kind == "starts" ? Quantity::count : Quantity::hours, Units::metric()) + (r.kind == "starts" ? " starts" : " of running"), 2};
    return {};
}

History battery_old(const Job& job, const Variant&)
{
    for (const DueNow& d : due_list(job, last_visit(job) ? *date_of(last_visit(job)->when) : Day1970{}))
        if (d.id == "battery")
            return {"its service is " + d.why, 1.5};
    return {};
}

History near_limit(const Job& job, const Variant&)
{
    if (const Visit* last = last_visit(job)) {
        const auto readings = valid_readings(*last);
        if (const VisitReading* r = reading_of(readings, "tap"); r && r->value > 50)
            return {"the tap had " + to_text(r->value, Quantity::temperature, Units::metric()) + " on " + date_words(last->when), 5};
    }
    return {};
}

const std::vector<CauseEntry>& causes()
{
    static const std::vector<CauseEntry> all{
        {"switch", "A switch left OFF or ON, or a bypass left closed", Loops::pumped, 1.2, {{C::cold, 0.5}, {C::runs_at_night, 0.5}, {C::never_runs, 0.5}, {C::never_stops, 0.7}}, {{"hand", 0.9}, {"lamp_on", 0.5}}, "Read the switches aloud; each belongs on AUTO.", "nothing", switch_left},
        {"no_supply", "No supply at the unit: plug, breaker, fuse", Loops::pumped, 1.0, {{C::cold, 0.5}, {C::never_runs, 0.8}, {C::lamp, 0.4}}, {{"display", 0.03}, {"sunny", 0.7}}, "Look whether the display is lit; put the plug in. A breaker that falls again stays off.", "fuse", nullptr},
        {"probe", "A probe that is broken, shorted, loose or wrong", Loops::all, 1.2, {{C::cold, 0.5}, {C::runs_at_night, 0.4}, {C::never_runs, 0.4}, {C::lamp, 0.7}, {C::often_on_off, 0.2}, {C::never_stops, 0.5}}, {{"fault_shown", 0.6}, {"sense", 0.1}}, "Read what the unit shows for each probe, and the weather outside.", "a probe of each curve, paste, junction", probes_apart},
        {"pump", "The pump stands or is worn", Loops::pumped, 0.9, {{C::cold, 0.6}, {C::noise, 0.5}, {C::never_runs, 0.4}}, {{"hum", 0.6}, {"lamp_on", 0.9}, {"pipes_warm", 0.1}}, "A hand near the pump, not on it: does it hum? Do not open anything.", "pump, seals, valves", worn},
        {"air", "Air in the loop, or too little fluid", Loops::pumped_liquid, 1.1, {{C::cold, 0.5}, {C::noise, 0.8}}, {{"gurgle", 0.8}, {"lamp_on", 0.9}, {"gauge_low", 0.5}, {"pipes_warm", 0.2}}, "Nothing is opened or topped up by the customer while the sun is on it.", "fluid, flush pump", nullptr},
        {"leak", "Fluid lost: a leak, or the relief valve after a stagnation", Loops::closed, 0.9, {{C::wet, 0.8}, {C::cold, 0.4}, {C::noise, 0.3}}, {{"gauge_low", 0.95}, {"away", 0.4}, {"gurgle", 0.5}}, "Read the gauge in the morning. Keep away from the discharge: it scalds.", "fluid, vessel, relief valve by the licensed person", pressure_fell},
        {"vessel", "The vessel has lost its gas", Loops::closed, 0.5, {{C::wet, 0.7}}, {{"gauge_swings", 0.9}, {"gauge_low", 0.5}}, "Read the gauge in the morning and at noon.", "vessel, tyre pump", nullptr},
        {"shadow", "Shadow, snow or dirt on the array", Loops::pumped, 0.5, {{C::cold, 0.5}}, {{"sunny", 0.8}, {"clear_glass", 0.1}}, "Look at the array from the ground; nobody climbs.", "nothing", nullptr},
        {"draws", "More drawn than before, or too little sun", Loops::tank, 1.0, {{C::cold, 0.8}}, {{"guests", 0.8}, {"sunny", 0.2}, {"pipes_warm", 0.8}}, "Ask what the week was like, and who was there.", "nothing", nullptr},
        {"backup", "The backup does not come in", Loops::tank, 0.8, {{C::cold, 0.7}}, {{"sunny", 0.2}, {"backup_on", 0.1}}, "Is the backup's own switch on?", "element, thermostat, by a licensed person", nullptr},
        {"tempering", "Tempering valve set too high or stuck", Loops::tank, 0.5, {{C::too_hot, 0.9}, {C::cold, 0.1}}, {{"tap_scalds", 0.9}}, "Scald: mix with cold at the tap, warn children and old people, let nobody bathe before it is measured.", "tempering valve", near_limit},
        {"limit", "The store's limit is too high, or does not act", Loops::tank, 0.4, {{C::too_hot, 0.7}}, {{"tap_scalds", 0.6}, {"away", 0.4}}, "Scald: mix with cold at the tap.", "a probe", nullptr},
        {"check_valve", "The check valve leaks: the store heats the array at night", Loops::liquid, 0.6, {{C::cold, 0.6}, {C::runs_at_night, 0.3}}, {{"warm_at_night", 0.9}, {"lamp_on", 0.1}}, "Feel the return pipe before sunrise, away from the array.", "check valve", nullptr},
        {"settings", "Start and stop, limit or freeze set otherwise than it wants", Loops::pumped, 0.8, {{C::often_on_off, 0.8}, {C::runs_at_night, 0.5}, {C::cold, 0.3}, {C::never_stops, 0.4}}, {{"changed", 0.8}}, "Nothing is typed on the phone; the card is read aloud.", "settings card", changed_lately},
        {"freeze", "Freeze protection runs: as it should, or by a wrong reading", Loops::liquid, 0.5, {{C::runs_at_night, 0.8}, {C::never_stops, 0.3}}, {{"frost", 0.9}, {"lamp_on", 0.9}}, "How cold was the night? Leave it on AUTO while it freezes.", "a probe", nullptr},
        {"relay", "A relay contact that has welded: the pump is fed though the unit says off", Loops::pumped, 0.3, {{C::never_stops, 0.8}, {C::runs_at_night, 0.5}, {C::cold, 0.3}}, {{"lamp_on", 0.3}, {"hand", 0.05}, {"warm_at_night", 0.6}}, "Does the pump still run with its lamp dark? In frost ask first whether the loop may stand; then the unit's plug or breaker, nothing else.", "unit or relay, contactor", nullptr},
        {"drains_badly", "It does not drain, or does not fill to the top", Loops::draining, 0.7, {{C::cold, 0.5}, {C::noise, 0.6}}, {{"gurgle", 0.7}, {"sight_low", 0.7}, {"frost", 0.4}}, "Read the sight glass with the pump off.", "water, level, clips", nullptr},
        {"battery", "The battery is empty or old; low voltage cuts off", Loops::battery, 1.0, {{C::cold, 0.6}, {C::never_runs, 0.6}, {C::lamp, 0.5}, {C::often_on_off, 0.4}}, {{"volts_low", 0.9}, {"display", 0.5}}, "Read the volts from the unit. Nobody opens the battery; no sparks near it.", "battery, fuse", battery_old},
        {"panel", "Panel shaded, dirty or its wire broken", Loops::panel, 0.7, {{C::never_runs, 0.6}, {C::cold, 0.5}}, {{"clear_glass", 0.3}, {"sunny", 0.8}}, "Look at the panel from the ground.", "connectors", nullptr},
    };
    return all;
}

double answered_yes(const CauseEntry& c, const std::string& question)
{
    for (const Likely& l : c.answered)
        if (question == l.key)
            return l.share;
    return undecided;
}

double plausibility(double p)
{
    constexpr double least = 1e-12;
    return -p * std::log2(std::max(p, least));
}

double entropy(const std::vector<double>& p)
{
    double sum = 0, out = 0;
    for (const double x : p)
        sum += x;
    for (const double x : p)
        out += sum > 0 ? plausibility(x / sum) : 0;
    return out;
}

} // namespace

const char* complaint_text(Complaint c)
{
    static constexpr const char* texts[] = {"water or room stays cold", "too hot", "pump runs at night", "pump never runs", "on and off all the time", "noise", "it drips, or the gauge is low", "a lamp or a message", "pump never stops"};
    return texts[static_cast<std::size_t>(c)];
}

std::vector<Complaint> complaints_in(const std::string& words)
{
    // A phrase begins where a word begins; one that ends in "$" ends where a word ends ("red" is not in "tired").
    static const std::vector<std::pair<C, std::vector<const char*>>> keys{
        {C::cold, {"cold", "lukewarm", "no hot", "not warm", "not hot", "cool$", "isn't hot", "isn't warm", "barely warm"}},
        {C::too_hot, {"too hot", "scald", "burn", "boil", "very hot"}},
        {C::runs_at_night, {"night", "nights", "tonight", "overnight", "midnight", "dark", "evening", "three in the morning", "two in the morning", "four in the morning", "one in the morning", "before sunrise", "before dawn", "1 am$", "2 am$", "3 am$", "4 am$", "1am$", "2am$", "3am$", "4am$", "1 a.m", "2 a.m", "3 a.m", "4 a.m", "1 in the morning", "2 in the morning", "3 in the morning", "4 in the morning"}},
        {C::never_runs, {"never runs", "never starts", "never comes on", "never turns on", "never goes on", "does not run", "does not start", "does not come on", "doesn't run", "doesn't start", "doesn't come on", "doesn't turn on", "won't run", "won't start", "won't come on", "won't turn on", "not running", "not starting", "stands still", "stopped working", "dead"}},
        {C::often_on_off, {"on and off", "off and on", "clicks", "clicking", "starts and stops", "every minute", "every few minutes", "every few seconds", "short cycl", "chatter"}},
        {C::noise, {"noise", "noisy", "gurgl", "loud", "hum$", "hums$", "humming$", "buzz", "bang", "knock", "squeal", "squeak", "rattl", "whin", "grind", "splash", "bubbl"}},
        {C::wet, {"drip", "leak", "wet$", "puddle", "pressure", "gauge", "water on the floor", "stain"}},
        {C::lamp, {"lamp", "light$", "lights$", "led$", "red$", "blink", "flash", "message", "display", "screen", "error", "alarm", "beep"}},
        {C::never_stops, {"never stops", "never goes off", "never turns off", "never shuts off", "does not stop", "doesn't stop", "won't stop", "won't turn off", "won't shut off", "keeps running", "keeps on running", "runs all the time", "running all the time", "always running", "always runs", "always on$", "runs constantly", "runs all day and night", "nonstop", "non-stop", "runs day and night"}},
    };
    std::string low = " ";
    for (const char c : words)
        low += static_cast<char>(c >= 'A' && c <= 'Z' ? c - 'A' + 'a' : c);
    for (std::size_t at = low.find("\u2019"); at != std::string::npos; at = low.find("\u2019"))
        low.replace(at, std::string_view("\u2019").size(), "'");
    const auto is_letter = [](char c) { return (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || static_cast<unsigned char>(c) >= 0x80; };
    const auto said = [&](std::string_view phrase) {
        const bool whole = phrase.ends_with('$');
        phrase.remove_suffix(whole ? 1 : 0);
        for (std::size_t at = low.find(phrase); at != std::string::npos; at = low.find(phrase, at + 1)) {
            const std::size_t end = at + phrase.size();
            if (!is_letter(low[at - 1]) && (!whole || end == low.size() || !is_letter(low[end])))
                return true;
        }
        return false;
    };
    std::vector<Complaint> out;
    for (const auto& [complaint, all] : keys)
        if (std::any_of(all.begin(), all.end(), said))
            out.push_back(complaint);
    return out;
}

const std::vector<PhoneQuestion>& phone_questions()
{
    static const std::vector<PhoneQuestion> all{
        {"display", "Is the unit's display or lamp lit?"},
        {"fault_shown", "Does it show a fault, or dashes for a probe?"},
        {"hand", "Does any switch stand on OFF or ON?"},
        {"lamp_on", "Does the pump's lamp burn?"},
        {"hum", "Does the pump hum without turning?"},
        {"pipes_warm", "Are both pipes at the store warm while the sun shines?"},
        {"gurgle", "Does it gurgle or splash?"},
        {"gauge_low", "Is the gauge lower than its mark, in the morning?"},
        {"gauge_swings", "Does the gauge swing far between morning and noon?"},
        {"sunny", "Has the sun shone today?"},
        {"clear_glass", "Is the glass in full sun, free of snow and leaves?"},
        {"guests", "Was more drawn than usual?"},
        {"backup_on", "Is the backup's own switch on?"},
        {"tap_scalds", "Is the tap too hot to hold a hand under?"},
        {"away", "Were you away before it began?"},
        {"warm_at_night", "Is the pipe to the array warm before sunrise?"},
        {"changed", "Was anything set anew before it began?"},
        {"frost", "Was there frost last night?"},
        {"sense", "Do the readings make sense for the weather?"},
        {"sight_low", "Is the water in the sight glass below its mark?"},
        {"volts_low", "Does the unit show a low voltage?"},
    };
    return all;
}

CallBack call_back(const Job& job, const Variant& v, const std::vector<Complaint>& complaints, const std::vector<PhoneAnswer>& answers)
{
    CallBack out;
    std::vector<const CauseEntry*> left;
    std::vector<double> weight;
    double sum = 0;
    for (const CauseEntry& c : causes()) {
        if (!holds_for(c.loops, arrangement_of(v.loop)))
            continue;
        CauseNow now{c.key, c.title, c.often, {}, c.on_phone, c.spares};
        for (const Complaint x : complaints) {
            const auto it = std::find_if(c.complained.begin(), c.complained.end(), [&](const auto& p) { return p.first == x; });
            now.likelihood *= it == c.complained.end() ? unlikely : it->second;
        }
        if (c.history)
            if (const History h = c.history(job, v); !h.because.empty()) {
                now.likelihood *= h.times;
                now.because.push_back(h.because);
            }
        for (const PhoneAnswer& a : answers) {
            const double yes = answered_yes(c, a.question);
            now.likelihood *= a.yes ? yes : 1 - yes;
        }
        sum += now.likelihood;
        left.push_back(&c);
        weight.push_back(now.likelihood);
        out.causes.push_back(std::move(now));
    }
    for (CauseNow& c : out.causes)
        c.likelihood /= sum > 0 ? sum : 1;
    std::stable_sort(out.causes.begin(), out.causes.end(), [](const CauseNow& a, const CauseNow& b) { return a.likelihood > b.likelihood; });
    // The question after whose answer least is left open.
    std::vector<std::pair<double, std::string>> gains;
    const double open = entropy(weight);
    for (const PhoneQuestion& q : phone_questions()) {
        if (std::any_of(answers.begin(), answers.end(), [&](const PhoneAnswer& a) { return a.question == q.key; }))
            continue;
        std::vector<double> yes, no;
        double yes_sum = 0;
        for (std::size_t i = 0; i < left.size(); ++i) {
            const double p = answered_yes(*left[i], q.key);
            yes.push_back(weight[i] * p);
            no.push_back(weight[i] * (1 - p));
            yes_sum += yes.back();
        }
        const double share = sum > 0 ? yes_sum / sum : 0;
        constexpr double worth_asking = 0.01; // bits
        if (const double gain = open - share * entropy(yes) - (1 - share) * entropy(no); gain > worth_asking)
            gains.emplace_back(gain, q.key);
    }
    std::stable_sort(gains.begin(), gains.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    for (const auto& [gain, key] : gains)
        out.ask.push_back(key);
    return out;
}

} // namespace vernal
