#include "bench_recorder.h"

#include "app/charts/probe_pen.h"
#include "app/shell/theme.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr double longest_s = 600, shortest_s = 60;
constexpr int least_ms = 150; // between two pictures

} // namespace

BenchRecorder::BenchRecorder(Session& session, const std::deque<BenchSample>& rows, const QString& clock, QWidget* parent) : QCustomPlot(parent), session_(session), rows_(rows), clock_(clock)
{
    setObjectName(QStringLiteral("recorder"));
    setAccessibleName(tr("Recorder: the last ten minutes"));
    setMinimumHeight(130);
    connect(&session, &Session::units_changed, this, &BenchRecorder::redraw);
}

void BenchRecorder::set_now(double now_s)
{
    now_s_ = now_s;
    if (isVisible() && (!last_.isValid() || last_.elapsed() >= least_ms))
        redraw();
}

void BenchRecorder::set_unit(std::optional<Variant> unit)
{
    unit_ = std::move(unit);
    clearGraphs();
    clearItems();
    names_.clear();
    for (std::size_t p = 0; unit_ && p < unit_->probes.size(); ++p)
        addGraph();
    for (std::size_t o = 0; unit_ && o < unit_->unit.outputs.size(); ++o) {
        addGraph();
        names_ << new QCPItemText(this);
        names_.back()->setText(qs(unit_->unit.outputs[o].key));
        names_.back()->setPositionAlignment(Qt::AlignLeft | Qt::AlignVCenter);
        names_.back()->setFont(text_font(12, true));
    }
    redraw();
}

// Readings as lines; below them a bar for each output while it turns.
void BenchRecorder::redraw()
{
    const Theme& t = theme();
    last_.start();
    setBackground(t.card);
    const double window_s = rows_.empty() ? longest_s : std::clamp(now_s_ - rows_.front().time_s, shortest_s, longest_s);
    const std::size_t probes = unit_ ? unit_->probes.size() : 0, outputs = unit_ ? unit_->unit.outputs.size() : 0;
    double low = INFINITY, high = -INFINITY;
    const auto shown = [&](double c) { return to_display(c, Quantity::temperature, session_.units()); };
    for (std::size_t p = 0; p < probes; ++p) {
        QVector<double> x, y;
        for (const BenchSample& s : rows_)
            if (s.time_s >= now_s_ - window_s) {
                x << (s.time_s - now_s_) / 60;
                y << shown(s.reads[p]);
                if (std::isfinite(s.reads[p])) {
                    low = std::min(low, y.back());
                    high = std::max(high, y.back());
                }
            }
        graph(static_cast<int>(p))->setData(x, y, true);
        graph(static_cast<int>(p))->setPen(probe_pen(unit_->probes[p].place));
    }
    if (!(high > low)) {
        low = std::isfinite(low) ? low - 1 : 0;
        high = low + 2;
    }
    // Below the lines each bar has the height of its name.
    constexpr double bar_px = 16, most_share = 0.6;
    const double room = std::max(1.0, 0.08 * (high - low)), lines = high - low + 2 * room;
    const double share = std::min(most_share, bar_px * static_cast<double>(outputs) / std::max(1, axisRect()->height()));
    const double bars = lines * share / (1 - share), bar = outputs > 0 ? bars / static_cast<double>(outputs) : 0;
    const auto bar_at = [&](std::size_t o) { return low - room - bar * (0.5 + static_cast<double>(o)); };
    for (std::size_t o = 0; o < outputs; ++o) {
        QVector<double> x, y;
        for (const BenchSample& s : rows_)
            if (s.time_s >= now_s_ - window_s) {
                x << (s.time_s - now_s_) / 60;
                y << ((s.turns >> o & 1U) != 0 ? bar_at(o) : qQNaN());
            }
        QCPGraph* line = graph(static_cast<int>(probes + o));
        line->setData(x, y, true);
        line->setPen(QPen(t.accent, 6, Qt::SolidLine, Qt::FlatCap));
        names_[static_cast<int>(o)]->position->setCoords(-window_s / 60 * 0.997, bar_at(o));
        names_[static_cast<int>(o)]->setColor(t.second_ink);
    }
    yAxis->setRange(low - room - bars, high + room);
    xAxis->setRange(-window_s / 60, window_s / 60 / 30);
    constexpr int ticks = 4;
    yAxis->ticker()->setTickCount(ticks);
    for (QCPAxis* a : {xAxis, yAxis}) {
        a->setTickLabelFont(text_font(12));
        a->setLabelFont(text_font(12));
        a->setTickLabelColor(t.second_ink);
        a->setLabelColor(t.second_ink);
        a->setBasePen(QPen(t.hairline));
        a->setTickPen(QPen(t.hairline));
        a->setSubTickPen(Qt::NoPen);
        a->grid()->setPen(QPen(t.hairline, 0.6));
        a->grid()->setZeroLinePen(QPen(t.hairline, 0.6));
    }
    xAxis->setLabel(clock_);
    yAxis->setLabel(qs(unit_name(Quantity::temperature, session_.units())));
    replot(QCustomPlot::rpQueuedReplot);
}

} // namespace vernal
