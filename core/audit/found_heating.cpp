#include "found_heating.h"

#include "core/units/constants.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace vernal {
namespace {

constexpr double disinfects_c = 60;
constexpr std::size_t slots = 96; // quarters of an hour of a day

bool heats(const Variant& v, std::size_t output)
{
    if (v.unit.outputs[output].drives == Drives::element)
        return true;
    return std::any_of(v.unit.rules.begin(), v.unit.rules.end(), [&](const Rule& r) {
        return r.output == v.unit.outputs[output].key && (std::holds_alternative<Heating>(r.body) || std::holds_alternative<HeatOnce>(r.body) || std::holds_alternative<Disinfection>(r.body) || std::holds_alternative<Thermostat>(r.body));
    });
}

class HeatingFinder {
public:
    HeatingFinder(const LogView& log, const Variant& v, std::size_t output) : log_(log), v_(v) { out_.output = output; }

    std::optional<FoundHeating> find()
    {
        find_points();
        if (!found_)
            return {};
        find_windows();
        find_disinfection();
        return std::move(out_);
    }

private:
    double scatter(std::size_t p) const { return std::max(log_.noise_k(p), log_.step_k(p) / std::sqrt(12.0)); }

    std::vector<Crossing> crossings(std::size_t p, bool on) const
    {
        std::vector<Crossing> out;
        for (std::size_t row = 2; row < log_.rows(); ++row) {
            if (log_.output(out_.output, row - 1) != (on ? 0 : 1) || log_.output(out_.output, row) != (on ? 1 : 0) || log_.after_gap(row) || !std::isfinite(log_.reading(p, row - 1)))
                continue;
            const double way = (log_.reading(p, row - 1) - log_.reading(p, row - 2)) * (on ? -1 : 1), seen = (log_.reading(p, row) - log_.reading(p, row - 1)) * (on ? -1 : 1);
            out.push_back({log_.reading(p, row - 1), std::max({0.0, std::isfinite(way) ? way : 0.0, std::isfinite(seen) ? seen : 0.0}), scatter(p), log_.step_k(p), row, 0});
        }
        return out;
    }

    // By the probe whose stops are most alike.
    void find_points()
    {
        constexpr std::size_t least = 2;
        double best = INFINITY;
        for (std::size_t p = 0; p < v_.probes.size(); ++p) {
            if (!log_.has_probe(p) || !in_store(v_.probes[p].place))
                continue;
            const auto stops = crossings(p, false);
            double mean = 0, var = 0;
            for (const Crossing& c : stops)
                mean += c.before / static_cast<double>(std::max<std::size_t>(1, stops.size()));
            for (const Crossing& c : stops)
                var += std::pow(c.before - mean, 2) / static_cast<double>(stops.size());
            if (found_ && (stops.size() < least || var >= best))
                continue;
            found_ = true;
            best = stops.size() < least ? INFINITY : var;
            out_.probe = p;
            const auto told = [&](std::optional<Estimate> e, std::size_t of) { return e && e->points >= least && e->points * 2 >= of ? e : std::nullopt; };
            const auto starts = crossings(p, true);
            out_.off_c = told(setting_from(stops, true), stops.size());
            out_.on_c = told(setting_from(starts, false), starts.size());
        }
    }

    void find_windows()
    {
        std::array<std::size_t, slots> of_days{};
        std::array<long, slots> last{};
        last.fill(-1000000);
        double on_s = 0;
        for (std::size_t row = 0; row + 1 < log_.rows(); ++row) {
            if (log_.output(out_.output, row) != 1)
                continue;
            if (!log_.after_gap(row + 1))
                on_s += log_.time_s(row + 1) - log_.time_s(row);
            const auto slot = std::min(slots - 1, static_cast<std::size_t>(log_.of_day_s(row) / day_s * slots));
            if (last[slot] != log_.day(row)) {
                last[slot] = log_.day(row);
                ++of_days[slot];
            }
        }
        out_.run_h_a_day = on_s / hour_s / std::max(1.0, (log_.time_s(log_.rows() - 1) - log_.time_s(0)) / day_s);
        constexpr double joined_h = 1;
        for (std::size_t s = 0; s < slots; ++s) {
            if (of_days[s] == 0)
                continue;
            const double from = 24.0 * static_cast<double>(s) / slots, to = 24.0 * static_cast<double>(s + 1) / slots;
            if (!out_.windows.empty() && from - out_.windows.back().to_h <= joined_h) {
                out_.windows.back().to_h = to;
                out_.windows.back().days = std::max(out_.windows.back().days, of_days[s]);
            } else {
                out_.windows.push_back({from, to, of_days[s]});
            }
        }
    }

    void find_disinfection()
    {
        double lowest = INFINITY;
        for (std::size_t p = 0; p < v_.probes.size(); ++p) {
            if (!log_.has_probe(p) || !in_store(v_.probes[p].place))
                continue;
            double mean = 0;
            std::size_t n = 0;
            for (std::size_t row = 0; row < log_.rows(); row += 7)
                if (std::isfinite(log_.reading(p, row))) {
                    mean += log_.reading(p, row);
                    ++n;
                }
            if (n > 0 && mean / static_cast<double>(n) < lowest) {
                lowest = mean / static_cast<double>(n);
                out_.coldest_probe = p;
            }
        }
        double since = log_.time_s(0), longest = 0;
        for (std::size_t row = 0; row < log_.rows(); ++row)
            if (log_.reading(out_.coldest_probe, row) >= disinfects_c) {
                longest = std::max(longest, log_.time_s(row) - since);
                since = log_.time_s(row);
            }
        out_.longest_below_60_days = std::max(longest, log_.time_s(log_.rows() - 1) - since) / day_s;
    }

    const LogView& log_;
    const Variant& v_;
    bool found_ = false;
    FoundHeating out_;
};

} // namespace

std::vector<FoundHeating> found_heating(const LogView& log, const Variant& v)
{
    std::vector<FoundHeating> out;
    for (std::size_t o = 0; o < v.unit.outputs.size(); ++o)
        if (log.has_output(o) && heats(v, o))
            if (auto f = HeatingFinder(log, v, o).find())
                out.push_back(std::move(*f));
    return out;
}

} // namespace vernal
