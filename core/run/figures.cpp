#include "figures.h"

#include <algorithm>

namespace vernal {

void RunCounter::output(double time_s, bool on, PumpFigures& f)
{
    if (on == running_)
        return;
    running_ = on;
    if (on) {
        if (f.starts++ == 0)
            f.first_start_s = time_s;
        since_s_ = time_s;
        counted_ = true;
    } else if (counted_) {
        f.runs_s.push_back(time_s - since_s_);
    }
}

void RunCounter::finish(PumpFigures& f)
{
    if (f.runs_s.empty())
        return;
    std::vector<double> r = f.runs_s;
    std::sort(r.begin(), r.end());
    f.shortest_run_s = r.front();
    f.median_run_s = 0.5 * (r[(r.size() - 1) / 2] + r[r.size() / 2]);
}

} // namespace vernal
