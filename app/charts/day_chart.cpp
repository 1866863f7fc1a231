#include "day_chart.h"

#include "thinned.h"

#include "app/shell/theme.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr int lane_px = 20;
constexpr int left_px = 62, right_px = 14;
constexpr int top_px = 4, axis_px = 24;

QSharedPointer<QCPAxisTickerTime> clock_ticker()
{
    auto ticker = QSharedPointer<QCPAxisTickerTime>::create();
    ticker->setTimeFormat(QStringLiteral("%h:%m"));
    ticker->setFieldWidth(QCPAxisTickerTime::tuHours, 2);
    ticker->setTickCount(8);
    return ticker;
}

} // namespace

DayChart::DayChart(Session& session, bool zoom, QWidget* parent) : QCustomPlot(parent), session_(session), zoom_(zoom)
{
    setObjectName(zoom ? "runChart" : "stripChart");
    setMinimumSize(60, 40); // never without a surface to draw on
    setFocusPolicy(Qt::StrongFocus);
    setAccessibleName(tr("The day: temperatures and outputs over time"));
    setPlottingHints(QCP::phFastPolylines | QCP::phCacheLabels);
    setNotAntialiasedElements(QCP::aeFills | QCP::aeGrid | QCP::aeAxes);
    plotLayout()->setRowSpacing(0);
    axisRect()->setAutoMargins(QCP::msNone);
    axisRect()->setMargins(QMargins(left_px, top_px, right_px, 4));
    lanes_ = new QCPAxisRect(this);
    lanes_->setAutoMargins(QCP::msNone);
    lanes_->setMargins(QMargins(left_px, 0, right_px, axis_px));
    plotLayout()->addElement(1, 0, lanes_);
    for (QCPAxisRect* r : {axisRect(), lanes_})
        for (QCPAxis* a : r->axes())
            a->setLayer(QStringLiteral("grid"));
    axisRect()->axis(QCPAxis::atBottom)->setTickLabels(false);
    axisRect()->axis(QCPAxis::atBottom)->setTicks(false);
    lanes_->axis(QCPAxis::atBottom)->setTicker(clock_ticker());
    axisRect()->axis(QCPAxis::atBottom)->setTicker(clock_ticker());
    axisRect()->axis(QCPAxis::atRight)->setRange(0, 1250); // W/m² of the sun's ground
    connect(lanes_->axis(QCPAxis::atBottom), qOverload<const QCPRange&>(&QCPAxis::rangeChanged), axisRect()->axis(QCPAxis::atBottom), qOverload<const QCPRange&>(&QCPAxis::setRange));
    connect(axisRect()->axis(QCPAxis::atBottom), qOverload<const QCPRange&>(&QCPAxis::rangeChanged), lanes_->axis(QCPAxis::atBottom), qOverload<const QCPRange&>(&QCPAxis::setRange));
    if (zoom) {
        setInteractions(QCP::iRangeDrag | QCP::iRangeZoom);
        axisRect()->setRangeDrag(Qt::Horizontal);
        axisRect()->setRangeZoom(Qt::Horizontal);
        lanes_->setRangeDrag(Qt::Horizontal);
        lanes_->setRangeZoom(Qt::Horizontal);
    }
    legend->setVisible(true);
    axisRect()->insetLayout()->take(legend);
    plotLayout()->insertRow(0);
    plotLayout()->addElement(0, 0, legend);
    plotLayout()->setRowStretchFactor(0, 0.001);
    plotLayout()->setRowStretchFactor(2, 0.001);
    legend->setFillOrder(QCPLegend::foColumnsFirst);
    legend->setWrap(zoom ? 3 : 8);
    legend->setBorderPen(Qt::NoPen);
    legend->setMargins(QMargins(left_px, 0, 6, 0));
    legend->setRowSpacing(0);
    line_ = new QCPItemLine(this);
    time_ = new QCPItemText(this);
    for (QCPAbstractItem* item : {static_cast<QCPAbstractItem*>(line_), static_cast<QCPAbstractItem*>(time_)})
        item->setClipToAxisRect(false);
    restyle();
    if (zoom_)
        connect(&session_, &Session::outcome_changed, this, [this] { show_outcome(); });
    else
        connect(&session_, &Session::strip_due, this, [this] {
            show_outcome(size().isEmpty() ? QCustomPlot::rpQueuedReplot : QCustomPlot::rpImmediateRefresh);
        });
    connect(&session_, &Session::units_changed, this, [this] { show_outcome(); });
    connect(&session_, &Session::cursor_changed, this, [this] {
        place_cursor();
        if (isVisible())
            replot(QCustomPlot::rpQueuedReplot);
    });
}

void DayChart::style_axis(QCPAxis* axis) const
{
    const Theme& t = theme();
    axis->setBasePen(QPen(t.hairline));
    axis->setTickPen(QPen(t.hairline));
    axis->setSubTickPen(Qt::NoPen);
    axis->setTickLabelFont(number_font(13));
    axis->setTickLabelColor(t.second_ink);
    axis->setLabelFont(text_font(13));
    axis->setLabelColor(t.second_ink);
    axis->grid()->setPen(QPen(t.glare ? QColor(0xBBBBBB) : t.hairline.lighter(106), 1));
    axis->grid()->setZeroLinePen(axis->grid()->pen());
}

void DayChart::restyle()
{
    const Theme& t = theme();
    setBackground(QBrush(t.surface));
    axisRect()->setBackground(QBrush(t.card));
    lanes_->setBackground(QBrush(t.desk));
    for (QCPAxisRect* r : {axisRect(), lanes_})
        for (QCPAxis* a : r->axes())
            style_axis(a);
    lanes_->axis(QCPAxis::atLeft)->grid()->setVisible(false);
    lanes_->axis(QCPAxis::atBottom)->grid()->setVisible(false);
    lanes_->axis(QCPAxis::atLeft)->setTickLabelColor(t.ink);
    lanes_->axis(QCPAxis::atLeft)->setTickLabelFont(text_font(13, true));
    lanes_->axis(QCPAxis::atBottom)->setTickLabelFont(text_font(13));
    lanes_->axis(QCPAxis::atLeft)->setTicks(true);
    lanes_->axis(QCPAxis::atLeft)->setTickLength(0);
    legend->setFont(text_font(13));
    legend->setTextColor(t.ink);
    legend->setBrush(Qt::NoBrush);
    line_->setPen(QPen(t.ink, t.line_px));
    time_->setFont(text_font(13, true));
    time_->setColor(t.card);
    time_->setBrush(t.ink);
    time_->setPadding(QMargins(6, 2, 6, 2));
    time_->setPositionAlignment(Qt::AlignTop | Qt::AlignHCenter);
    show_outcome();
}

DayChart::Signal DayChart::signal_of(const Probe& p) const
{
    const Theme& t = theme();
    const QString name = qs(p.name);
    switch (p.place) {
    case ProbePlace::collector: return {name, t.collector, Qt::SolidLine, t.line_px + 0.2};
    case ProbePlace::tank_bottom: return {name, t.store_bottom, Qt::SolidLine, t.line_px + 0.2};
    case ProbePlace::tank_top: return {name, t.store_top, Qt::DashLine, t.line_px};
    case ProbePlace::tank_middle: return {name, t.store_top, Qt::DotLine, t.line_px};
    case ProbePlace::return_pipe: return {name, t.protect, Qt::DashDotLine, t.line_px};
    case ProbePlace::supply_pipe: return {name, t.start, Qt::DashDotDotLine, t.line_px};
    case ProbePlace::collector_2: return {name, t.collector, Qt::DashDotLine, t.line_px};
    case ProbePlace::tank_2_bottom: return {name, t.store_bottom, Qt::DashDotLine, t.line_px};
    case ProbePlace::tank_2_top: return {name, t.store_top, Qt::DashDotDotLine, t.line_px};
    case ProbePlace::pool_water:
    case ProbePlace::slab_return:
    case ProbePlace::room_air: return {name, t.store_bottom, Qt::SolidLine, t.line_px + 0.2};
    }
    return {name, t.ink, Qt::SolidLine, 1};
}

void DayChart::show_outcome(QCustomPlot::RefreshPriority when)
{
    if (!isVisible())
        return; // drawn when it comes to light
    const auto& o = session_.outcome();
    clearGraphs();
    if (!o || o->size() == 0)
        return replot(when);
    draw_sun(*o);
    draw_temperatures(*o);
    draw_lanes(*o);
    const double begin = o->time_s(0) + o->start_s(), end = o->time_s(o->size() - 1) + o->start_s();
    QCPAxis* x = axisRect()->axis(QCPAxis::atBottom);
    if (!zoom_ || painted_ == 0 || x->range().upper < begin || x->range().lower > end || x->range().size() > 2 * (end - begin))
        x->setRange(begin, std::max(end, begin + 60));
    pending_ = o->id;
    place_cursor();
    replot(when);
}

// A chart that can be looked into keeps every point; on the strip a quarter of a
// pixel is seen by nobody, and few points are painted in a third of the time.
void DayChart::draw_line(QCPGraph& graph, const QVector<double>& t, const QVector<double>& y) const
{
    const int high = axisRect()->height();
    if (zoom_ || high <= 0)
        return graph.setData(t, y, true);
    const Polyline few = thinned(t, y, graph.valueAxis()->range().size() / high / 4);
    graph.setData(few.x, few.y, true);
}

void DayChart::draw_sun(const Outcome& o)
{
    if (o.is_replay())
        return;
    QVector<double> t, g, air;
    for (const Record& r : o.coupled.records) {
        t.append(r.time_s);
        g.append(r.plane_w_m2);
        air.append(to_display(r.air_c, Quantity::temperature, session_.units()));
    }
    QCPGraph* sun = addGraph(axisRect()->axis(QCPAxis::atBottom), axisRect()->axis(QCPAxis::atRight));
    draw_line(*sun, t, g);
    sun->setPen(Qt::NoPen);
    QColor fill = theme().sun;
    fill.setAlpha(theme().glare ? 130 : 85);
    sun->setBrush(fill);
    sun->setName(tr("sun on the collector"));
    QCPGraph* graph = addGraph(axisRect()->axis(QCPAxis::atBottom), axisRect()->axis(QCPAxis::atLeft));
    draw_line(*graph, t, air);
    graph->setPen(QPen(theme().air, 1.0));
    graph->setName(tr("air"));
}

void DayChart::draw_temperatures(const Outcome& o)
{
    QVector<double> t;
    for (std::size_t i = 0; i < o.size(); ++i)
        t.append(o.time_s(i) + o.start_s());
    double lo = 1e9, hi = -1e9;
    std::vector<QVector<double>> curves;
    for (std::size_t p = 0; p < o.variant.probes.size(); ++p) {
        QVector<double> y;
        for (std::size_t i = 0; i < o.size(); ++i) {
            const double c = o.reading_c(i, p);
            y.append(to_display(c, Quantity::temperature, session_.units()));
            if (std::isfinite(c)) {
                lo = std::min(lo, y.back());
                hi = std::max(hi, y.back());
            }
        }
        curves.push_back(std::move(y));
    }
    QCPAxis* y = axisRect()->axis(QCPAxis::atLeft);
    y->setRange(std::floor(std::min(lo, session_.units().fahrenheit ? 32.0 : 0.0) / 10) * 10, std::max(hi * 1.12, lo + 20));
    y->setLabel(qs(unit_name(Quantity::temperature, session_.units())));
    for (std::size_t p = 0; p < curves.size(); ++p) {
        const Signal s = signal_of(o.variant.probes[p]);
        QCPGraph* graph = addGraph(axisRect()->axis(QCPAxis::atBottom), axisRect()->axis(QCPAxis::atLeft));
        draw_line(*graph, t, curves[p]);
        graph->setPen(QPen(s.colour, s.width, s.style));
        graph->setName(s.name);
    }
    legend->setVisible(true);
}

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
    QCPAxis* y = lanes_->axis(QCPAxis::atLeft);
    y->setTicker(ticker);
    y->setRange(-lane, 0);
    lanes_->setMinimumSize(10, lane * lane_px);
    lanes_->setMaximumSize(QWIDGETSIZE_MAX, lane * lane_px);
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
    floor->removeFromLegend();
    QCPGraph* graph = addGraph(lanes_->axis(QCPAxis::atBottom), lanes_->axis(QCPAxis::atLeft));
    graph->setData(t, top, true);
    graph->setLineStyle(QCPGraph::lsStepLeft);
    graph->setPen(Qt::NoPen);
    graph->setBrush(colour);
    graph->setChannelFillGraph(floor);
    graph->removeFromLegend();
}

void DayChart::place_cursor()
{
    const double x = session_.cursor_s() + (session_.outcome() ? session_.outcome()->start_s() : 0);
    for (QCPItemPosition* p : {line_->start, line_->end, time_->position}) {
        p->setTypeX(QCPItemPosition::ptPlotCoords);
        p->setTypeY(QCPItemPosition::ptAxisRectRatio);
        p->setAxisRect(p == line_->start ? axisRect() : lanes_);
        p->setAxes(axisRect()->axis(QCPAxis::atBottom), axisRect()->axis(QCPAxis::atLeft));
        p->setCoords(x, p == line_->start ? 0 : 1);
    }
    time_->setText(qs(clock_text(x)));
}

void DayChart::showEvent(QShowEvent* e)
{
    QCustomPlot::showEvent(e);
    show_outcome();
}

void DayChart::paintEvent(QPaintEvent* e)
{
    QCustomPlot::paintEvent(e);
    if (pending_ != painted_) {
        painted_ = pending_;
        emit shown(painted_);
    }
}

void DayChart::cursor_to(const QPoint& pos)
{
    const double x = axisRect()->axis(QCPAxis::atBottom)->pixelToCoord(pos.x());
    const double start = session_.outcome() ? session_.outcome()->start_s() : 0;
    session_.set_cursor(std::clamp(x - start, 0.0, session_.outcome() && session_.outcome()->size() ? session_.outcome()->time_s(session_.outcome()->size() - 1) : 86400.0));
}

void DayChart::mousePressEvent(QMouseEvent* e)
{
    if (e->button() == Qt::LeftButton && (!zoom_ || e->modifiers() == Qt::NoModifier))
        cursor_to(e->pos());
    QCustomPlot::mousePressEvent(e);
}

void DayChart::mouseMoveEvent(QMouseEvent* e)
{
    if ((e->buttons() & Qt::LeftButton) != 0 && !zoom_)
        cursor_to(e->pos());
    QCustomPlot::mouseMoveEvent(e);
}

void DayChart::keyPressEvent(QKeyEvent* e)
{
    const double step = (e->modifiers() & Qt::ShiftModifier) != 0 ? 600 : 60;
    if (e->key() == Qt::Key_Left || e->key() == Qt::Key_Right)
        session_.set_cursor(std::clamp(session_.cursor_s() + (e->key() == Qt::Key_Left ? -step : step), 0.0, 86400.0));
    else
        QCustomPlot::keyPressEvent(e);
}

} // namespace vernal
