// What is kept of a procedure, and what it found of a knob.
#include "procedure_run.h"

#include <cmath>
#include <cstdio>

namespace vernal {

namespace {

// As a person sees it: the quantity, and how much of its inside unit one of the procedure's is. None: as it is.
struct Seen {
    Quantity quantity;
    double times;
};
std::optional<Seen> seen_as(Captured what)
{
    switch (what) {
    case Captured::reading:
    case Captured::tap: return Seen{Quantity::temperature, 1};
    case Captured::difference:
    case Captured::media_difference:
    case Captured::spread:
    case Captured::rise: return Seen{Quantity::difference, 1};
    case Captured::rate: return Seen{Quantity::small_difference, 1};
    case Captured::flow: return Seen{Quantity::flow, 1.0 / 60000};
    case Captured::gauge:
    case Captured::cold_gauge:
    case Captured::gas: return Seen{Quantity::pressure, 1e5};
    case Captured::watt: return Seen{Quantity::power, 1};
    default: return {};
    }
}

} // namespace

std::string captured_text(Captured what, double value, const Units& units)
{
    if (!std::isfinite(value))
        return "not read";
    if (const auto seen = seen_as(what == Captured::bucket ? Captured::flow : what))
        return to_text(value * seen->times, seen->quantity, units) + (what == Captured::rate ? "/min" : "");
    const bool fine = what == Captured::bridge || what == Captured::pitch, whole = !fine && what != Captured::heat && what != Captured::supply;
    char b[40];
    std::snprintf(b, sizeof b, "%.*f", fine ? 3 : whole ? 0
                                                        : 2,
        value);
    return std::string(b) + (*unit_of(what) ? std::string(" ") + unit_of(what) : "");
}

std::string typed_unit(Captured what, const Units& units)
{
    const auto seen = seen_as(what);
    return what == Captured::bucket ? "s" : seen ? unit_name(seen->quantity, units)
                                                 : unit_of(what);
}

double from_typed(Captured what, double typed, const Units& units)
{
    const auto seen = seen_as(what);
    return seen ? from_display(typed, seen->quantity, units) / seen->times : typed;
}

std::string said_text(const StepResult& step, const Units& units)
{
    std::string out;
    for (const Judgement& j : step.judged) {
        // A tolerance of a reading is a difference.
        const Captured within = j.what == Captured::reading || j.what == Captured::tap ? Captured::difference : j.what;
        out += (out.empty() ? "" : "; ") + j.name + " " + captured_text(j.what, j.seen, units);
        if (j.how == Judged::near)
            out += ", set to " + captured_text(j.what, j.to, units) + (j.what == Captured::turning ? "" : ", within " + captured_text(within, j.within, units));
        else
            out += (j.how == Judged::below ? ", below " : ", above ") + captured_text(j.what, j.to, units);
    }
    return out + (step.said.empty() ? "" : (out.empty() ? "" : "; ") + step.said);
}

BenchRecord record_of(const ProcedureResult& result, const std::string& title, const std::string& when, const std::string& variant)
{
    BenchRecord out;
    out.when = when;
    out.procedure = result.name;
    out.title = title;
    out.variant = variant;
    out.verdict = result.verdict();
    for (const StepResult& s : result.steps) {
        BenchStep step{s.title, s.of, s.verdict, said_text(s, {}), {}};
        for (const CapturedValue& c : s.captured)
            for (std::size_t pass = 0; pass < c.passes.size(); ++pass)
                if (std::isfinite(c.passes[pass]))
                    step.readings.push_back({c.name, unit_of(c.what), c.passes[pass], static_cast<int>(pass) + 1});
        out.steps.push_back(std::move(step));
    }
    return out;
}

std::optional<Knob> found_knob(const ProcedureResult& result, const Knob& written)
{
    constexpr std::array marks{"first", "middle", "last"};
    std::array<double, 3> on{}, off{};
    std::array<int, 3> seen{};
    for (const StepResult& s : result.steps)
        for (std::size_t m = 0; m < marks.size(); ++m) {
            double start = NAN, stop = NAN;
            for (const CapturedValue& c : s.captured) {
                if (c.name == std::string(marks[m]) + " start read")
                    start = c.mean();
                if (c.name == std::string(marks[m]) + " stop read")
                    stop = c.mean();
            }
            if (!std::isfinite(start) || !std::isfinite(stop))
                continue;
            on[m] += start;
            off[m] += stop;
            ++seen[m];
        }
    for (std::size_t m = 0; m < marks.size(); ++m) {
        if (seen[m] == 0)
            return {};
        on[m] /= seen[m];
        off[m] /= seen[m];
    }
    Knob out = written;
    out.on_first = TempDiff::kelvin(on[0]);
    out.off_first = TempDiff::kelvin(off[0]);
    out.on_last = TempDiff::kelvin(on[2]);
    out.off_last = TempDiff::kelvin(off[2]);
    const auto miss = [&](KnobLaw law) {
        out.law = law;
        const KnobPair middle = knob_pair(out, (written.first + written.last) / 2);
        return std::hypot(middle.on_k - on[1], middle.off_k - off[1]);
    };
    const bool can_grow = on[0] > 0 && off[0] > 0 && on[2] > 0 && off[2] > 0;
    const double even = miss(KnobLaw::even);
    out.law = can_grow && miss(KnobLaw::growing) < even ? KnobLaw::growing : KnobLaw::even;
    return out;
}

} // namespace vernal
