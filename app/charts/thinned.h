// The points of a line that are seen.
#pragma once

#include <QVector>

namespace vernal {

struct Polyline {
    QVector<double> x, y;
};

// Leaves out points that lie within the tolerance of the straight line between
// those kept (in y). x rises or stays; of the same length as y. What is not a
// number is kept, so that gaps stay gaps.
Polyline thinned(const QVector<double>& x, const QVector<double>& y, double tolerance);

} // namespace vernal
