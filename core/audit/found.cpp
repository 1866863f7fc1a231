#include "found.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double slope_s = 120; // before a switching, for the way it went: so long, four rows at least, twelve at most
constexpr std::size_t least_of_a_kind = 3;

struct Subject {
    std::size_t output, source, store;
};

std::vector<Subject> subjects_of(const LogView& log, const Variant& v)
{
    const auto keys = probe_keys(v);
    const auto probe = [&](const std::string& key) { return static_cast<std::size_t>(std::find(keys.begin(), keys.end(), key) - keys.begin()); };
    std::vector<Subject> out;
    const auto put = [&](Subject s) {
        const bool seen = std::any_of(out.begin(), out.end(), [&](const Subject& x) { return x.output == s.output; });
        if (!seen && s.source < keys.size() && s.store < keys.size() && log.has_output(s.output) && log.has_probe(s.source) && log.has_probe(s.store))
            out.push_back(s);
    };
    for (const Rule& r : v.unit.rules)
        if (const auto d = difference_of(v.unit, r); d && r.enabled)
            for (std::size_t o = 0; o < v.unit.outputs.size(); ++o)
                if (v.unit.outputs[o].key == r.output)
                    put({o, probe(d->source), probe(d->store)});
    const Arrangement& a = arrangement_of(v.loop);
    const auto at = [&](ProbePlace place) { return static_cast<std::size_t>(std::find_if(v.probes.begin(), v.probes.end(), [&](const Probe& p) { return p.place == place; }) - v.probes.begin()); };
    if (const int pump = a.output_of(Driver::pump); pump >= 0 && a.places.size() > 1)
        put({static_cast<std::size_t>(pump), at(a.places[0]), at(a.places[1])});
    return out;
}

class Finder {
public:
    Finder(const LogView& log, const Variant& v, Subject s) : log_(log), v_(v), s_(s)
    {
        out_.output = s.output;
        out_.source = s.source;
        out_.store = s.store;
        const double a = scatter(s.source), b = scatter(s.store);
        sigma_k_ = std::sqrt(a * a + b * b);
        const auto keys = probe_keys(v);
        const auto at = [&](const std::string& key) { return static_cast<std::size_t>(std::find(keys.begin(), keys.end(), key) - keys.begin()); };
        for (const Rule& r : v.unit.rules)
            if (const auto d = difference_of(v.unit, r); d && r.enabled && r.output == v.unit.outputs[s.output].key && at(d->source) < keys.size() && at(d->store) < keys.size() && (at(d->source) != s.source || at(d->store) != s.store))
                others_.emplace_back(at(d->source), at(d->store));
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
    // Noise, and of one that is rounded what rounding makes of it: not less.
    double scatter(std::size_t probe) const { return std::max(log_.noise_k(probe), log_.step_k(probe) / std::sqrt(12.0)); }

    double difference(std::size_t row) const { return log_.reading(s_.source, row) - log_.reading(s_.store, row); }

    // Per row, over the last rows in one state, by least squares.
    double slope(std::size_t last, const auto& value) const
    {
        double sx = 0, sy = 0, sxx = 0, sxy = 0;
        std::size_t n = 0;
        const auto most = static_cast<std::size_t>(std::clamp(std::ceil(slope_s / std::max(1.0, log_.usual_s())), 4.0, 12.0));
        for (std::size_t k = 0; k < most && k <= last; ++k) {
            const std::size_t row = last - k;
            const double y = value(row);
            if (!std::isfinite(y) || log_.output(s_.output, row) != log_.output(s_.output, last) || (k > 0 && log_.after_gap(row + 1)))
                break;
            const double x = -static_cast<double>(k);
            sx += x;
            sy += y;
            sxx += x * x;
            sxy += x * y;
            ++n;
        }
        const double m = static_cast<double>(n), d = m * sxx - sx * sx;
        return n < 2 || d <= 0 ? 0.0 : (m * sxy - sx * sy) / d;
    }

    // What `value` did from the row before a switching on; up: in the direction of the setting.
    Crossing crossing(std::size_t row, bool up, double sigma, double rounding_k, const auto& value) const
    {
        const double before = value(row - 1), after = value(row), way = slope(row - 1, value) * (up ? 1 : -1), moved = (after - before) * (up ? 1 : -1);
        const double seen = std::isfinite(moved) ? std::max(moved, 0.0) : 0.0;
        const double step = row >= 2 && log_.output(s_.output, row - 2) == log_.output(s_.output, row - 1) ? (before - value(row - 2)) * (up ? 1 : -1) : 0.0;
        // The course before it foretells how far it got. A fall goes on below a stop, where the
        // resting array would warm; a start may make the outlet jump, so that less of a rise counts.
        const double foretold = std::max(way, step > 4 * sigma ? step : 0.0), width = std::max({foretold, up ? std::min(seen, 3 * foretold) : seen, 0.0});
        Crossing c{before, std::max(width, 0.0), sigma, rounding_k, row, 0};
        c.at = log_.reading(s_.store, row - 1);
        return c;
    }

    // By enough of those that could have shown it.
    static std::optional<Estimate> told(std::optional<Estimate> e, std::size_t of) { return e && e->points >= least_of_a_kind && e->points * 2 >= of ? e : std::nullopt; }

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
        std::sort(before.begin(), before.end());
        double on_k = before[before.size() / 5];
        for (int pass = 0; pass < 2; ++pass) {
            for (std::size_t i = 0; i < why_.size(); ++i) {
                const Switching& s = out_.switchings[i];
                if (!s.on && why_[i] != Why::time)
                    why_[i] = std::min(s.difference_k, difference(s.row)) > on_k + 0.1 + 2 * sigma_k_ ? Why::other : Why::difference;
                if (s.on && why_[i] != Why::time)
                    why_[i] = i > 0 && !out_.switchings[i - 1].on && why_[i - 1] == Why::other && s.difference_k > on_k + let_go_k ? Why::other : Why::difference;
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
                if (const Switching& s = out_.switchings[i]; !s.on && why_[i] == Why::difference && std::min(s.difference_k, difference(s.row)) > out_.off_k->high + above_k + 3 * sigma_k_)
                    why_[i] = Why::other;
        }
    }

    // Another pair of this output stood higher: it decided.
    bool by_another_pair(std::size_t row) const
    {
        constexpr double higher_k = 1;
        for (const auto& [source, store] : others_)
            if (log_.reading(source, row) - log_.reading(store, row) > difference(row) + higher_k)
                return true;
        return false;
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
            if (std::isfinite(difference(row - 1)) && !by_another_pair(row - 1)) {
                out_.switchings.push_back({row, is == 1, difference(row - 1), log_.reading(s_.store, row - 1), log_.reading(s_.source, row - 1)});
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
                if (out_.switchings[i].on == on && (lasted_[i] < 2.5 * log_.usual_s() || (shortest && lasted_[i] < shortest->high + 0.5 * log_.usual_s())))
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
        if (best < least_of_a_kind || best * 6 < s.size())
            return {};
        const double length = s[at + best / 2];
        return Estimate{length, length - row, length + row, best};
    }

    std::vector<Crossing> crossings(bool on) const
    {
        const auto d = [this](std::size_t row) { return difference(row); };
        std::vector<Crossing> out;
        for (std::size_t i = 0; i < why_.size(); ++i)
            if (out_.switchings[i].on == on && why_[i] == Why::difference)
                out.push_back(crossing(out_.switchings[i].row, on, sigma_k_, std::max(log_.step_k(s_.source), log_.step_k(s_.store)), d));
        return out;
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
                if (const Switching& s = out_.switchings[i]; !s.on && why_[i] == Why::other && value(s.row - 1) > top - of_the_top_k) {
                    at.push_back(crossing(s.row, true, scatter(p), log_.step_k(p), value));
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
            if (std::sqrt(var) > most_scatter_k + width / 3 + scatter(p) || (best && var >= *best))
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
                at.push_back(crossing(s.row, true, scatter(s_.source), log_.step_k(s_.source), value));
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
        constexpr double tells_k_per_k = 0.03; // a bridge's scale moves by a twentieth of a kelvin a kelvin
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
        const TraceColumn* speed = log_.log().find(v_.unit.outputs[s_.output].key + "_speed");
        if (!speed)
            return;
        double least = INFINITY, sx = 0, sy = 0, sxx = 0, sxy = 0;
        std::size_t n = 0, all = 0;
        for (std::size_t row = 1; row < log_.rows(); ++row) {
            const double share = speed->values[row] / 100, d = difference(row);
            if (log_.output(s_.output, row) != 1 || !std::isfinite(share) || share <= 0 || !std::isfinite(d))
                continue;
            ++all;
            least = std::min(least, share);
            if (share < 0.99 && share > least + 0.01) {
                sx += d;
                sy += share;
                sxx += d * d;
                sxy += d * share;
                ++n;
            }
        }
        if (all < 10 || least > 0.99)
            return;
        const double m = static_cast<double>(n), den = m * sxx - sx * sx;
        out_.speeds = FoundSettings::Speeds{least, n > 10 && den > 0 ? (m * sxy - sx * sy) / den : 0.0, all};
    }

    enum class Why : std::uint8_t { difference,
        time,
        other,
        limit,
        cut_out };
    const LogView& log_;
    const Variant& v_;
    Subject s_;
    double sigma_k_ = 0;
    std::vector<std::pair<std::size_t, std::size_t>> others_; // pairs of probes that start it as well
    std::vector<double> lasted_;                              // by switching: how long the state before it had stood; NaN: not known
    std::vector<Why> why_;                                    // likewise
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
