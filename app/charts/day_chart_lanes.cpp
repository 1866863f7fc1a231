// Under the curves: a lane an output, one for what a log says of it, and one an instrument.
#include "day_chart.h"

#include "app/shell/theme.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr int usual_lane_px = 20, low_lane_px = 13; // low: of many
constexpr int many_lanes = 4;

} // namespace

int DayChart::lane_px() const { return lane_count_ > many_lanes ? low_lane_px : usual_lane_px; }

int DayChart::lanes_height() const { return lane_count_ * lane_px() + axis_px; }

void DayChart::draw_lanes(const Outcome& o)
{
    auto ticker = QSharedPointer<QCPAxisTickerText>::create();
    QVector<double> t;
    for (std::size_t i = 0; i < o.size(); ++i)
        t.append(o.time_s(i) + o.start_s());
    int lane = 0;
    for (std::size_t k = 0; k < o.variant.unit.outputs.size(); ++k) {
        QVector<double> on;
        for (std::size_t i = 0; i < o.size(); ++i)
            on.append(o.decisions(i)[k].on ? 1 : 0);
        ticker->addTick(-lane - 0.5, qs(o.variant.unit.outputs[k].key));
        add_lane(t, on, theme().accent);
        ++lane;
        const TraceColumn* recorded = o.trace ? o.trace->find(o.variant.unit.outputs[k].key) : nullptr;
        if (!recorded)
            continue;
        QVector<double> was, when;
        for (std::size_t i = 0; i < recorded->values.size(); ++i) {
            when.append(o.trace->time_s[i] + o.start_s());
            was.append(recorded->values[i] > 0.005 ? 1 : 0);
        }
        ticker->addTick(-lane - 0.5, tr("log"));
        add_lane(when, was, theme().air);
        ++lane;
    }
    // What instruments read, each lane from 0 to the most it comes to.
    for (std::size_t p = 0; p < o.variant.probes.size(); ++p) {
        if (reads_temperature(o.variant.probes[p]))
            continue;
        QVector<double> share;
        for (std::size_t i = 0; i < o.size(); ++i)
            share.append(std::max(0.0, std::isfinite(o.reading(i, p)) ? o.reading(i, p) : 0.0));
        const double most = *std::max_element(share.begin(), share.end());
        for (double& x : share)
            x = most > 0 ? x / most : 0;
        ticker->addTick(-lane - 0.5, qs(o.variant.probes[p].key));
        add_lane(t, share, signal_of(o.variant.probes[p]).colour);
        lane_scales_.emplace_back(lane, tr("to %1").arg(reading_text(o.variant.probes[p], most, session_.units())));
        ++lane;
    }
    QCPAxis* y = lanes_->axis(QCPAxis::atLeft);
    y->setTicker(ticker);
    y->setRange(-lane, 0);
    lane_count_ = lane;
    lanes_->axis(QCPAxis::atLeft)->setTickLabelFont(text_font(lane_px() == usual_lane_px ? 13 : 12, true));
    lanes_->setMinimumSize(10, lane * lane_px());
    lanes_->setMaximumSize(QWIDGETSIZE_MAX, lane * lane_px());
}

void DayChart::add_lane(const QVector<double>& t, const QVector<double>& on, const QColor& colour)
{
    // Lanes count downwards: 0…−1, −1…−2.
    const int lane = static_cast<int>(lanes_->graphs().size()) / 2; // each has a floor and a bar
    QVector<double> top, bottom;
    for (double v : on) {
        bottom.append(-lane - 0.9);
        top.append(-lane - 0.9 + 0.8 * v);
    }
    QCPGraph* floor = addGraph(lanes_->axis(QCPAxis::atBottom), lanes_->axis(QCPAxis::atLeft));
    floor->setData(t, bottom, true);
    floor->setPen(Qt::NoPen);
    QCPGraph* graph = addGraph(lanes_->axis(QCPAxis::atBottom), lanes_->axis(QCPAxis::atLeft));
    graph->setData(t, top, true);
    graph->setLineStyle(QCPGraph::lsStepLeft);
    graph->setPen(Qt::NoPen);
    graph->setBrush(colour);
    graph->setChannelFillGraph(floor);
}

} // namespace vernal
