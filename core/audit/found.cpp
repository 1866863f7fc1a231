#include "found.h"

#include "found_speeds.h"
#include "pair_course.h"
#include "stated.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr std::size_t least_of_a_kind = 3; // this bound and those below are estimates, set by runs whose settings are known (docs/audit.md)

struct Subject {
    std::size_t output, source, store;
};

std::vector<Subject> subjects_of(const LogView& log, const Variant& v)
{
    const Arrangement& a = arrangement_of(v.loop);
    const auto at = [&](ProbePlace place) { return static_cast<std::size_t>(std::find_if(v.probes.begin(), v.probes.end(), [&](const Probe& p) { return p.place == place; }) - v.probes.begin()); };
    std::vector<Subject> out;
    for (std::size_t o = 0; o < v.unit.outputs.size(); ++o) {
        auto pairs = difference_pairs(v, o);
        if (pairs.empty() && a.output_of(Driver::pump) == static_cast<int>(o) && a.places.size() > 1)
            pairs = {{at(a.places[0]), at(a.places[1])}};
        for (const DifferencePair& p : pairs)
            if (p.source < v.probes.size() && p.store < v.probes.size() && log.has_output(o) && log.has_probe(p.source) && log.has_probe(p.store)) {
                out.push_back({o, p.source, p.store});
                break;
            }
    }
    return out;
}

class Finder {
public:
    Finder(const LogView& log, const Variant& v, Subject s) : log_(log), v_(v), s_(s), course_(log, s.output, s.source, s.store), sigma_k_(course_.sigma_k())
    {
        out_.output = s.output;
        out_.source = s.source;
        out_.store = s.store;
        for (const DifferencePair& p : difference_pairs(v, s.output))
            if (p.source != s.source || p.store != s.store)
                others_.push_back(p);
    }

    FoundSettings find()
    {
        collect();
        find_times();
        find_on();
        find_off();
        find_limit();
        find_cut_out();
        find_movement();
        find_speeds();
        out_.no_latch = out_.on_k && out_.off_k && out_.on_k->points >= 5 && out_.off_k->points >= 5 && std::fabs(out_.on_k->value - out_.off_k->value) < 0.4 && out_.on_k->high - out_.on_k->low < 0.8;
        return std::move(out_);
    }

private:
    // By enough of those that could have shown it.
    static std::optional<Estimate> told(std::optional<Estimate> e, std::size_t of) { return e && e->points >= least_of_a_kind && e->points * 2 >= of ? e : std::nullopt; }

    // Of the start: where those after a night's rest stand, which nothing else holds back; of
    // too few of these low among all.
    double first_guess(std::vector<double> before) const
    {
        constexpr double night_rest_s = 6 * 3600.0;
        std::vector<double> first;
        for (std::size_t i = 0; i < why_.size(); ++i)
            if (out_.switchings[i].on && why_[i] == Why::difference && lasted_[i] > night_rest_s)
                first.push_back(out_.switchings[i].difference_k);
        const bool by_first = first.size() >= 2;
        std::vector<double>& from = by_first ? first : before;
        const std::size_t at = by_first ? (first.size() - 1) / 2 : before.size() / 5;
        std::nth_element(from.begin(), from.begin() + static_cast<std::ptrdiff_t>(at), from.end());
        return from[at];
    }

    bool had_been_past(std::size_t i) const
    {
        const Switching& s = out_.switchings[i];
        return std::isfinite(lasted_[i]) && course_.had_been_past(s.row, s.on, log_.time_s(s.row) - lasted_[i] + (s.on ? out_.min_rest_s : out_.min_run_s).value_or(Estimate{}).high);
    }

    bool held_after(std::size_t i, double on_k) const
    {
        const std::size_t row = out_.switchings[i].row;
        return course_.held_after(row, on_k, log_.time_s(row) + out_.min_rest_s.value_or(Estimate{}).high);
    }

    // A stop above the start is no difference's: a limit, a cut-out or a thermostat made it,
    // and the start after it comes when that lets go.
    void find_on()
    {
        std::vector<double> before;
        for (const Crossing& c : crossings(true))
            before.push_back(c.before);
        if (before.empty()) {
            std::fill(why_.begin(), why_.end(), Why::other); // nor is a stop told from a limit's
            return;
        }
        constexpr double let_go_k = 1;
        double on_k = first_guess(std::move(before));
        for (int pass = 0; pass < 2; ++pass) {
            for (std::size_t i = 0; i < why_.size(); ++i) {
                const Switching& s = out_.switchings[i];
                if (why_[i] == Why::time)
                    continue;
                if (!s.on)
                    why_[i] = std::min(s.difference_k, course_.difference(s.row)) > on_k + 0.1 + 2 * sigma_k_ || had_been_past(i) || !course_.on_its_way(s.row, false) || held_after(i, on_k) ? Why::other : Why::difference;
                else
                    why_[i] = (i > 0 && !out_.switchings[i - 1].on && why_[i - 1] == Why::other && s.difference_k > on_k + let_go_k) || had_been_past(i) || course_.held_above(s.row, on_k) ? Why::other : Why::difference;
            }
            starts_ = crossings(true);
            out_.on_k = told(setting_from(starts_, true), starts_.size());
            if (!out_.on_k)
                return;
            on_k = out_.on_k->value;
        }
    }

    // Likewise a stop well above those that are alike.
    void find_off()
    {
        constexpr double above_k = 1;
        for (int pass = 0; pass < 2; ++pass) {
            stops_ = crossings(false);
            out_.off_k = told(setting_from(stops_, false), stops_.size());
            if (out_.off_k && out_.on_k && out_.off_k->low > out_.on_k->high) // a stop above the start is none of the difference
                out_.off_k.reset();
            if (!out_.off_k || pass > 0)
                return;
            for (std::size_t i = 0; i < why_.size(); ++i)
                if (const Switching& s = out_.switchings[i]; !s.on && why_[i] == Why::difference && std::min(s.difference_k, course_.difference(s.row)) > out_.off_k->high + above_k + 3 * sigma_k_)
                    why_[i] = Why::other;
        }
    }

    // Another pair of this output stood higher: it decided.
    bool by_another_pair(std::size_t row) const
    {
        constexpr double higher_k = 1;
        return std::any_of(others_.begin(), others_.end(), [&](const DifferencePair& p) { return log_.reading(p.source, row) - log_.reading(p.store, row) > course_.difference(row) + higher_k; });
    }

    void collect()
    {
        constexpr std::size_t unknown = static_cast<std::size_t>(-1);
        std::size_t since = unknown; // row at which the state began
        for (std::size_t row = 1; row < log_.rows(); ++row) {
            const int was = log_.output(s_.output, row - 1), is = log_.output(s_.output, row);
            if (was < 0 || is < 0 || log_.after_gap(row)) { // what went on meanwhile is not known
                since = unknown;
                continue;
            }
            if (was == is)
                continue;
            if (std::isfinite(course_.difference(row - 1)) && !by_another_pair(row - 1)) {
                out_.switchings.push_back({row, is == 1, course_.difference(row - 1), log_.reading(s_.store, row - 1), log_.reading(s_.source, row - 1)});
                lasted_.push_back(since != unknown ? log_.time_s(row) - log_.time_s(since) : NAN);
                why_.push_back(Why::difference);
            }
            since = row;
        }
    }

    // What was before it lasted as long as the unit's shortest, or no longer than a row or
    // two tell: a time may have held it.
    void find_times()
    {
        for (const bool on : {false, true}) {
            std::vector<double> before;
            for (std::size_t i = 0; i < lasted_.size(); ++i)
                if (out_.switchings[i].on == on && std::isfinite(lasted_[i]))
                    before.push_back(lasted_[i]);
            const auto shortest = alike(before);
            (on ? out_.min_rest_s : out_.min_run_s) = shortest;
            for (std::size_t i = 0; i < lasted_.size(); ++i)
                if (out_.switchings[i].on == on && (lasted_[i] < 3.5 * log_.usual_s() || (shortest && lasted_[i] < shortest->high + 0.5 * log_.usual_s())))
                    why_[i] = why_[i] == Why::difference ? Why::time : why_[i];
        }
    }

    // Several of one length at the shortest end, within a row.
    std::optional<Estimate> alike(std::vector<double> s) const
    {
        if (s.size() < least_of_a_kind)
            return {};
        std::sort(s.begin(), s.end());
        const double row = log_.usual_s();
        std::size_t best = 0, at = 0;
        for (std::size_t i = 0; i < s.size() && s[i] <= s.front() + 3 * row; ++i) {
            const auto same = static_cast<std::size_t>(std::upper_bound(s.begin(), s.end(), s[i] + 1.01 * row) - s.begin()) - i;
            if (same > best) {
                best = same;
                at = i;
            }
        }
        constexpr double longest_s = 7200; // of a minimum time that a unit has; days alike make runs alike
        const double length = s[at + best / 2];
        if (best < least_of_a_kind || best * 6 < s.size() || length > longest_s)
            return {};
        return Estimate{length, length - row, length + row, best};
    }

    std::vector<Crossing> crossings(bool on) const
    {
        const auto d = [this](std::size_t row) { return course_.difference(row); };
        std::vector<Crossing> out;
        for (std::size_t i = 0; i < why_.size(); ++i)
            if (out_.switchings[i].on == on && why_[i] == Why::difference)
                out.push_back(course_.crossing(out_.switchings[i].row, on, sigma_k_, course_.rounding_k(), d));
        return out;
    }

    // By something else than the difference, whatever that is; no start known: it may have been.
    bool was_stopped(std::size_t i) const
    {
        const Switching& s = out_.switchings[i];
        return !out_.on_k || std::min(s.difference_k, course_.difference(s.row)) > out_.on_k->value || held_after(i, out_.on_k->value);
    }

    // Stops while some probe of the store stood at its highest, each at the same reading.
    void find_limit()
    {
        constexpr double of_the_top_k = 2.5, most_scatter_k = 0.8;
        std::optional<double> best;
        std::vector<std::size_t> chosen;
        for (std::size_t p = 0; p < v_.probes.size(); ++p) {
            if (!log_.has_probe(p) || !in_store(v_.probes[p].place))
                continue;
            const auto value = [&](std::size_t row) { return log_.reading(p, row); };
            double top = -INFINITY;
            for (const Switching& s : out_.switchings)
                if (!s.on && std::isfinite(value(s.row - 1)))
                    top = std::max(top, value(s.row - 1));
            std::vector<Crossing> at;
            std::vector<std::size_t> which;
            for (std::size_t i = 0; i < why_.size(); ++i)
                if (const Switching& s = out_.switchings[i]; !s.on && why_[i] == Why::other && was_stopped(i) && value(s.row - 1) > top - of_the_top_k) {
                    at.push_back(course_.crossing(s.row, true, log_.scatter_k(p), log_.step_k(p), value));
                    which.push_back(i);
                }
            if (at.size() < 2)
                continue;
            double mean = 0, var = 0, width = 0;
            for (const Crossing& c : at) {
                mean += (c.before + c.width / 2) / static_cast<double>(at.size());
                width = std::max(width, c.width);
            }
            for (const Crossing& c : at)
                var += std::pow(c.before + c.width / 2 - mean, 2) / static_cast<double>(at.size());
            if (std::sqrt(var) > most_scatter_k + width / 3 + log_.scatter_k(p) || (best && var >= *best))
                continue;
            best = var;
            out_.limit_c = setting_from(at, true);
            out_.limit_probe = p;
            chosen = which;
        }
        for (const std::size_t i : chosen)
            why_[i] = Why::limit;
    }

    void find_cut_out()
    {
        constexpr double hot_c = 85, within_k = 12;
        const auto value = [&](std::size_t row) { return log_.reading(s_.source, row); };
        std::vector<Crossing> at;
        std::vector<std::size_t> which;
        for (std::size_t i = 0; i < why_.size(); ++i)
            if (const Switching& s = out_.switchings[i]; !s.on && why_[i] == Why::other && s.source_c > hot_c) {
                at.push_back(course_.crossing(s.row, true, log_.scatter_k(s_.source), log_.step_k(s_.source), value));
                which.push_back(i);
            }
        if (at.empty())
            return;
        double lowest = INFINITY, highest = -INFINITY;
        for (const Crossing& c : at) {
            lowest = std::min(lowest, c.before);
            highest = std::max(highest, c.before + c.width);
        }
        if (highest - lowest > within_k)
            return;
        out_.cut_out_c = setting_from(at, true);
        for (const std::size_t i : which)
            why_[i] = Why::cut_out;
    }

    static std::vector<Crossing> near(const std::vector<Crossing>& all, const std::optional<Estimate>& e)
    {
        std::vector<Crossing> out;
        for (const Crossing& c : all)
            if (e && std::fabs(c.before - e->value) < 6 + c.width)
                out.push_back(c);
        return out;
    }

    void find_movement()
    {
        constexpr double tells_k_per_k = 0.03; // less is none of a bridge or a single knob; estimate
        out_.on_moves = slope_from(near(starts_, out_.on_k), true);
        out_.off_moves = slope_from(near(stops_, out_.off_k), false);
        if (!out_.on_moves)
            return;
        const bool away_from_0 = out_.on_moves->low > 0 || out_.on_moves->high < 0;
        out_.pair = away_from_0 && std::fabs(out_.on_moves->value) > tells_k_per_k ? FoundSettings::Pair::moves : out_.on_moves->high - out_.on_moves->low < 0.2 ? FoundSettings::Pair::fixed
                                                                                                                                                                 : FoundSettings::Pair::not_told;
    }

    void find_speeds()
    {
        const TraceColumn* column = log_.log().find(v_.unit.outputs[s_.output].key + "_speed");
        if (!column)
            return;
        std::vector<SpeedRow> rows;
        for (std::size_t row = 1; row < log_.rows(); ++row)
            if (const double share = column->values[row] / 100, k = course_.difference(row); log_.output(s_.output, row) == 1 && share > 0 && std::isfinite(k))
                rows.push_back({share, k});
        out_.speeds = found_speeds(rows);
    }

    enum class Why : std::uint8_t { difference,
        time,
        other,
        limit,
        cut_out };
    const LogView& log_;
    const Variant& v_;
    Subject s_;
    PairCourse course_;
    double sigma_k_ = 0;
    std::vector<DifferencePair> others_; // that start it as well
    std::vector<double> lasted_;         // by switching: how long the state before it had stood; NaN: not known
    std::vector<Why> why_;               // likewise
    std::vector<Crossing> starts_, stops_;
    FoundSettings out_;
};

} // namespace

std::vector<FoundSettings> found_settings(const LogView& log, const Variant& v)
{
    std::vector<FoundSettings> out;
    for (const Subject& s : subjects_of(log, v))
        out.push_back(Finder(log, v, s).find());
    return out;
}

} // namespace vernal
