#include "pump_triage.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace vernal {
namespace {

constexpr const char* mains_words = "Isolate and prove dead before a cover comes off; mains is a licensed person's work.";
constexpr const char* hot_words = "The loop is shut and cold before the pump is opened; what comes out may be hot and under pressure.";

enum class Only : std::uint8_t { any,
    direct, // current
    mains };

// How often an answer goes with a cause, by PumpLook and answer; estimates.
struct Row {
    const char *title, *what_to_do, *caution;
    Only only;
    double before; // how often it is met
    std::array<std::vector<double>, pump_looks> often;
};

const std::vector<Row>& rows()
{
    //                                     hum          current              shaft        by hand             flow                wet          gland        inlet        other
    static const std::vector<Row> all{
        {"Nothing is wrong with it", "Leave it; look at the loop and at the settings", "", Only::any, 0.15,
            {{{0.3, 0.7}, {0.01, 0.05, 0.9, 0.04}, {0.98, 0.02}, {0.95, 0.04, 0.01}, {0.02, 0.08, 0.9}, {0.97, 0.03}, {0.95, 0.05}, {0.8, 0.2}, {0.7, 0.3}}}},
        {"No voltage reaches it", "Volts at its terminals with the output on ON: fuse, breaker, switch, relay, wire, in that order", mains_words, Only::any, 0.2,
            {{{0.99, 0.01}, {0.98, 0.02, 0, 0}, {0.01, 0.99}, {0.93, 0.06, 0.01}, {0.98, 0.02, 0}, {0.96, 0.04}, {0.95, 0.05}, {0.8, 0.2}, {0.7, 0.3}}}},
        {"Its winding is burnt", "Measure the winding, dead and disconnected: no ohms, or far fewer than its sister. A new motor or pump; look for why it was overloaded", mains_words, Only::any, 0.1,
            {{{0.95, 0.05}, {0.9, 0.05, 0.02, 0.03}, {0.02, 0.98}, {0.85, 0.1, 0.05}, {0.97, 0.03, 0}, {0.7, 0.3}, {0.85, 0.15}, {0.8, 0.2}, {0.6, 0.4}}}},
        {"It is seized", "Power off, turn its shaft by the screw at its end, flush; then run it each week out of season", hot_words, Only::any, 0.12,
            {{{0.08, 0.92}, {0.02, 0.02, 0.06, 0.9}, {0.01, 0.99}, {0.02, 0.18, 0.8}, {0.98, 0.02, 0}, {0.92, 0.08}, {0.85, 0.15}, {0.85, 0.15}, {0.6, 0.4}}}},
        {"Its start capacitor is gone", "It hums and runs on when its shaft is spun: a new capacitor of the same value", mains_words, Only::mains, 0.08,
            {{{0.05, 0.95}, {0.02, 0.03, 0.1, 0.85}, {0.05, 0.95}, {0.95, 0.04, 0.01}, {0.95, 0.04, 0.01}, {0.97, 0.03}, {0.95, 0.05}, {0.8, 0.2}, {0.6, 0.4}}}},
        {"Its wheel is blocked, worn or loose", "Open it with the loop shut and cold: grit, tape, a wheel that turns on its shaft", hot_words, Only::any, 0.07,
            {{{0.15, 0.85}, {0.02, 0.5, 0.3, 0.18}, {0.95, 0.05}, {0.7, 0.25, 0.05}, {0.35, 0.6, 0.05}, {0.97, 0.03}, {0.93, 0.07}, {0.8, 0.2}, {0.6, 0.4}}}},
        {"Air stands in it", "Vent it at its highest point; then find where the air came in: an inlet above the water, a vent left open, a port in the wrong place", hot_words, Only::any, 0.1,
            {{{0.1, 0.9}, {0.01, 0.88, 0.1, 0.01}, {0.98, 0.02}, {0.97, 0.02, 0.01}, {0.75, 0.23, 0.02}, {0.98, 0.02}, {0.9, 0.1}, {0.5, 0.5}, {0.6, 0.4}}}},
        {"It cannot draw its water", "Prime the inlet and measure its height over the water: a centrifugal pump does not lift dry; hot water it lifts less", hot_words, Only::any, 0.06,
            {{{0.1, 0.9}, {0.01, 0.85, 0.13, 0.01}, {0.98, 0.02}, {0.97, 0.02, 0.01}, {0.9, 0.09, 0.01}, {0.98, 0.02}, {0.9, 0.1}, {0.04, 0.96}, {0.7, 0.3}}}},
        {"A valve in its line is shut, or the strainer full", "Walk the line with the valve board; clean the strainer", hot_words, Only::any, 0.08,
            {{{0.15, 0.85}, {0.01, 0.75, 0.22, 0.02}, {0.98, 0.02}, {0.96, 0.03, 0.01}, {0.7, 0.29, 0.01}, {0.98, 0.02}, {0.95, 0.05}, {0.85, 0.15}, {0.6, 0.4}}}},
        {"Water has come into its motor", "Isolate it now. Dry it only to learn how it came in; a new seal or pump", mains_words, Only::any, 0.05,
            {{{0.5, 0.5}, {0.45, 0.15, 0.1, 0.3}, {0.3, 0.7}, {0.4, 0.35, 0.25}, {0.6, 0.25, 0.15}, {0.03, 0.97}, {0.15, 0.85}, {0.8, 0.2}, {0.6, 0.4}}}},
        {"Its two wires are swapped", "Change them over: turned backwards it still moves a little water, about a third", "Fuse at the battery; no tool across its poles.", Only::direct, 0.05,
            {{{0.2, 0.8}, {0.01, 0.55, 0.42, 0.02}, {0.99, 0.01}, {0.97, 0.02, 0.01}, {0.1, 0.88, 0.02}, {0.98, 0.02}, {0.97, 0.03}, {0.8, 0.2}, {0.6, 0.4}}}},
        {"It gets too few volts", "Volts at the pump while it is on: a thin or long wire, an empty battery, a dull panel", "Fuse at the battery; no tool across its poles.", Only::direct, 0.1,
            {{{0.35, 0.65}, {0.1, 0.7, 0.1, 0.1}, {0.6, 0.4}, {0.96, 0.03, 0.01}, {0.45, 0.54, 0.01}, {0.98, 0.02}, {0.97, 0.03}, {0.8, 0.2}, {0.5, 0.5}}}}};
    return all;
}

double entropy(const std::vector<double>& p)
{
    double out = 0;
    for (const double x : p)
        out -= x > 0 ? x * std::log(x) : 0;
    return out;
}

std::vector<double> normal(std::vector<double> p)
{
    const double sum = std::accumulate(p.begin(), p.end(), 0.0);
    for (double& x : p)
        x = sum > 0 ? x / sum : 1.0 / static_cast<double>(p.size());
    return p;
}

double often(const Row& r, std::size_t look, std::size_t answer)
{
    constexpr double least = 0.002; // nothing is impossible
    const auto& a = r.often[look];
    return answer < a.size() ? std::max(least, a[answer]) : least;
}

} // namespace

const PumpLookText& pump_look_text(PumpLook look)
{
    static const std::array<PumpLookText, pump_looks> all{{{"hum", "Its hum", {"no", "yes"}},
        {"current", "Its current", {"none", "less than usual", "as usual", "more than usual"}},
        {"shaft", "Its shaft", {"turns", "stands"}},
        {"by_hand", "Turned by hand, power off", {"free", "stiff", "stuck"}},
        {"flow", "The flow", {"none", "little", "as stated"}},
        {"wet", "Its motor", {"dry", "wet"}},
        {"gland", "Its gland or seal", {"dry", "drips"}},
        {"inlet", "Its inlet", {"under water", "lifts"}},
        {"other", "The other of two", {"there is none, or it stands too", "runs"}}}};
    return all[static_cast<std::size_t>(look)];
}

PumpVerdict pump_verdict(const PumpSeen& seen, bool direct_current)
{
    std::vector<const Row*> may;
    for (const Row& r : rows())
        if (r.only == Only::any || (r.only == Only::direct) == direct_current)
            may.push_back(&r);
    std::vector<double> p;
    for (const Row* r : may) {
        double x = r->before;
        for (std::size_t l = 0; l < pump_looks; ++l)
            if (seen[l])
                x *= often(*r, l, static_cast<std::size_t>(*seen[l]));
        p.push_back(x);
    }
    p = normal(std::move(p));
    PumpVerdict out;
    double most = 0.02; // less is not worth a look
    const double now = entropy(p);
    for (std::size_t l = 0; l < pump_looks; ++l) {
        if (seen[l])
            continue;
        double after = 0;
        const std::size_t answers = pump_look_text(static_cast<PumpLook>(l)).answers.size();
        for (std::size_t a = 0; a < answers; ++a) {
            std::vector<double> q;
            double share = 0;
            for (std::size_t r = 0; r < may.size(); ++r) {
                q.push_back(p[r] * often(*may[r], l, a));
                share += q.back();
            }
            after += share * entropy(normal(std::move(q)));
        }
        if (now - after > most) {
            most = now - after;
            out.next = static_cast<PumpLook>(l);
        }
    }
    for (std::size_t r = 0; r < may.size(); ++r)
        out.causes.push_back({may[r]->title, may[r]->what_to_do, may[r]->caution, p[r]});
    std::stable_sort(out.causes.begin(), out.causes.end(), [](const PumpCause& a, const PumpCause& b) { return a.sure > b.sure; });
    return out;
}

} // namespace vernal
