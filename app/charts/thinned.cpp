#include "thinned.h"

#include <algorithm>
#include <cmath>

namespace vernal {

// From the last point kept, the slopes of lines that pass all points since within
// the tolerance; a point that no such line ends at begins the next stretch.
Polyline thinned(const QVector<double>& x, const QVector<double>& y, double tolerance)
{
    Polyline out;
    const auto keep = [&](qsizetype i) {
        out.x.append(x[i]);
        out.y.append(y[i]);
    };
    double least = -INFINITY, most = INFINITY;
    qsizetype from = -1;
    for (qsizetype i = 0; i < x.size(); ++i) {
        const double dx = from < 0 ? 0 : x[i] - x[from], dy = from < 0 ? 0 : y[i] - y[from];
        const bool straight = dx > 0 && std::isfinite(dy) && dy >= least * dx && dy <= most * dx;
        if (!straight) {
            if (from >= 0 && from < i - 1)
                keep(i - 1);
            from = i - 1;
            if (from < 0 || !std::isfinite(y[i]) || !std::isfinite(y[from]) || x[i] <= x[from]) {
                keep(i);
                from = i;
            }
            least = -INFINITY;
            most = INFINITY;
        }
        if (from < i) {
            const double step = x[i] - x[from], rise = y[i] - y[from];
            least = std::max(least, (rise - tolerance) / step);
            most = std::min(most, (rise + tolerance) / step);
        }
    }
    if (from >= 0 && from < x.size() - 1)
        keep(x.size() - 1);
    return out;
}

} // namespace vernal
