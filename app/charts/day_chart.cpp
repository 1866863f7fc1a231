#include "day_chart.h"

#include "probe_pen.h"

#include "thinned.h"

#include "app/shell/theme.h"

#include <algorithm>
#include <cmath>
#include <utility>

namespace vernal {
namespace {

constexpr int above_px = 6;
constexpr int hour_px = 78; // at least, from one hour to the next

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
    lanes_ = new QCPAxisRect(this);
    lanes_->setAutoMargins(QCP::msNone);
    plotLayout()->addElement(1, 0, lanes_);
    plotLayout()->setRowStretchFactor(1, 0.001);
    for (QCPAxisRect* r : {axisRect(), lanes_})
        for (QCPAxis* a : r->axes())
            a->setLayer(QStringLiteral("grid"));
    for (QCPAxisRect* r : {axisRect(), lanes_}) {
        QCPAxis* x = r->axis(QCPAxis::atBottom);
        x->setTickLabels(false);
        x->setTicker(QSharedPointer<QCPAxisTickerFixed>::create());
    }
    axisRect()->axis(QCPAxis::atRight)->setRange(0, 1250); // W/m² of the sun's ground
    connect(lanes_->axis(QCPAxis::atBottom), qOverload<const QCPRange&>(&QCPAxis::rangeChanged), axisRect()->axis(QCPAxis::atBottom), qOverload<const QCPRange&>(&QCPAxis::setRange));
    connect(axisRect()->axis(QCPAxis::atBottom), qOverload<const QCPRange&>(&QCPAxis::rangeChanged), lanes_->axis(QCPAxis::atBottom), qOverload<const QCPRange&>(&QCPAxis::setRange));
    connect(axisRect()->axis(QCPAxis::atBottom), qOverload<const QCPRange&>(&QCPAxis::rangeChanged), this, [this] { tick(); });
    if (zoom) {
        setInteractions(QCP::iRangeDrag | QCP::iRangeZoom);
        axisRect()->setRangeDrag(Qt::Horizontal);
        axisRect()->setRangeZoom(Qt::Horizontal);
        lanes_->setRangeDrag(Qt::Horizontal);
        lanes_->setRangeZoom(Qt::Horizontal);
    }
    legend->setVisible(false);
    setAutoAddPlottableToLegend(false);
    restyle();
    if (zoom_)
        connect(&session_, &Session::outcome_changed, this, [this] { show_outcome(); });
    else
        connect(&session_, &Session::strip_due, this, [this] {
            show_outcome(size().isEmpty() ? QCustomPlot::rpQueuedReplot : QCustomPlot::rpImmediateRefresh);
        });
    connect(&session_, &Session::units_changed, this, [this] { show_outcome(); });
    connect(&session_, &Session::cursor_changed, this, qOverload<>(&QWidget::update)); // it lies above what is plotted
    connect(&session_, &Session::marked_changed, this, qOverload<>(&QWidget::update));
    connect(&session_.document(), &Document::changed, this, [this] {
        held_.reset();
        update();
    });
    setMouseTracking(true);
}

void DayChart::style_axis(QCPAxis* axis) const
{
    const Theme& t = theme();
    axis->setBasePen(QPen(t.hairline));
    axis->setTickPen(QPen(t.hairline));
    axis->setSubTickPen(Qt::NoPen);
    axis->setTickLabelFont(text_font(13));
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
    lanes_->axis(QCPAxis::atLeft)->setTicks(true);
    lanes_->axis(QCPAxis::atLeft)->setTickLength(0);
    show_outcome();
}

DayChart::Signal DayChart::signal_of(const Probe& p) const
{
    const QPen pen = probe_pen(p.place);
    return {qs(p.name), pen.color(), pen.style(), pen.widthF()};
}

void DayChart::show_outcome(QCustomPlot::RefreshPriority when)
{
    if (!isVisible())
        return; // drawn when it comes to light
    const auto& o = session_.outcome();
    clearGraphs();
    ends_.clear();
    lane_scales_.clear();
    if (!o || o->size() == 0)
        return replot(when);
    draw_sun(*o);
    draw_temperatures(*o);
    draw_lanes(*o);
    const double begin = o->time_s(0) + o->start_s(), end = o->time_s(o->size() - 1) + o->start_s();
    QCPAxis* x = axisRect()->axis(QCPAxis::atBottom);
    const bool as_long = std::exchange(shown_s_, end - begin) == end - begin;
    if (!zoom_ || painted_ == 0 || !as_long || x->range().upper < begin || x->range().lower > end || x->range().size() > 2 * (end - begin))
        x->setRange(begin, std::max(end, begin + 60));
    const QMargins margins(left_px, above_px, right_px(), 4);
    axisRect()->setMargins(margins);
    lanes_->setMargins(QMargins(left_px, 0, margins.right(), axis_px));
    tick();
    pending_ = o->id;
    replot(when);
}

// The widest name takes what it needs, so that no curve runs below one.
int DayChart::right_px() const
{
    const QFontMetrics m(text_font(12));
    int wide = 0;
    for (const End& e : ends_)
        wide = std::max(wide, m.horizontalAdvance(e.name));
    return std::min(wide + sample_px + 8, width() / 4);
}

DayChart::Hours DayChart::hours() const
{
    const QCPRange r = axisRect()->axis(QCPAxis::atBottom)->range();
    const double least = r.size() * hour_px / std::max(60, axisRect()->width());
    for (double step : {60.0, 300.0, 600.0, 1800.0, 3600.0, 2 * 3600.0, 3 * 3600.0, 6 * 3600.0, 12 * 3600.0})
        if (step >= least)
            return {r.lower, r.upper, step};
    return {r.lower, r.upper, 86400.0 * std::ceil(least / 86400.0)};
}

void DayChart::tick()
{
    constexpr int number_px = 20; // of one that is written at the left
    axisRect()->axis(QCPAxis::atLeft)->ticker()->setTickCount(std::clamp(axisRect()->height() / number_px, 1, 6));
    const double step = hours().step;
    for (QCPAxisRect* r : {axisRect(), lanes_})
        r->axis(QCPAxis::atBottom)->ticker().staticCast<QCPAxisTickerFixed>()->setTickStep(step);
}

void DayChart::show_lanes_only(bool only)
{
    if (only == lanes_only_)
        return;
    lanes_only_ = only;
    axisRect()->setVisible(!only);
    axisRect()->setMinimumSize(10, only ? 0 : 20);
    axisRect()->setMaximumSize(QWIDGETSIZE_MAX, only ? 1 : QWIDGETSIZE_MAX);
    show_outcome();
}

// A chart that can be looked into keeps every point; on the strip a quarter of a
// pixel is seen by nobody, and few points are painted in a third of the time.
void DayChart::draw_line(QCPGraph& graph, const QVector<double>& t, const QVector<double>& y) const
{
    const int high = axisRect()->height();
    if (zoom_ || lanes_only_ || high <= 0)
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
    QCPGraph* graph = addGraph(axisRect()->axis(QCPAxis::atBottom), axisRect()->axis(QCPAxis::atLeft));
    draw_line(*graph, t, air);
    graph->setPen(QPen(theme().air, 1.0));
    ends_.push_back({tr("Air"), graph->pen(), air.isEmpty() ? 0 : air.back()});
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
        if (!reads_temperature(o.variant.probes[p])) { // has a lane
            curves.emplace_back();
            continue;
        }
        for (std::size_t i = 0; i < o.size(); ++i) {
            const double c = o.reading(i, p);
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
    for (std::size_t p = 0; p < curves.size(); ++p) {
        if (curves[p].isEmpty())
            continue;
        const Signal s = signal_of(o.variant.probes[p]);
        QCPGraph* graph = addGraph(axisRect()->axis(QCPAxis::atBottom), axisRect()->axis(QCPAxis::atLeft));
        draw_line(*graph, t, curves[p]);
        graph->setPen(QPen(s.colour, s.width, s.style));
        double end = 0;
        for (qsizetype i = curves[p].size(); i-- > 0;)
            if (std::isfinite(curves[p][i])) {
                end = curves[p][i];
                break;
            }
        ends_.push_back({s.name, graph->pen(), end});
    }
}

void DayChart::showEvent(QShowEvent* e)
{
    QCustomPlot::showEvent(e);
    show_outcome();
}

void DayChart::paint_above(QPainter& p) const
{
    paint_marks(p);
    paint_tags(p);
    paint_ends(p);
    paint_lane_scales(p);
    paint_hours(p);
    paint_cursor(p);
}

void DayChart::paint_picture(QPainter& p)
{
    paint_plot(*this, p);
    paint_above(p);
}

void DayChart::paintEvent(QPaintEvent* e)
{
    QCustomPlot::paintEvent(e);
    QPainter p(this);
    paint_above(p);
    if (pending_ != painted_) {
        painted_ = pending_;
        emit shown(painted_);
    }
}

void DayChart::resizeEvent(QResizeEvent* e)
{
    tick();
    QCustomPlot::resizeEvent(e);
    if (!zoom_ && e->size().height() > e->oldSize().height()) // lines are thinned by the height
        QMetaObject::invokeMethod(
            this, [this] { show_outcome(); }, Qt::QueuedConnection);
}

void DayChart::cursor_to(const QPoint& pos)
{
    const double x = axisRect()->axis(QCPAxis::atBottom)->pixelToCoord(pos.x());
    const double start = session_.outcome() ? session_.outcome()->start_s() : 0;
    session_.set_cursor(std::clamp(x - start, 0.0, session_.outcome() && session_.outcome()->size() ? session_.outcome()->time_s(session_.outcome()->size() - 1) : 86400.0));
}

void DayChart::mousePressEvent(QMouseEvent* e)
{
    if (e->button() == Qt::LeftButton && (e->modifiers() & Qt::ShiftModifier) != 0) {
        marks_from_s_ = time_at(e->pos().x());
        return session_.mark({});
    }
    if (e->button() == Qt::LeftButton && e->modifiers() == Qt::NoModifier && take_tape(e->pos()))
        return;
    if (e->button() == Qt::LeftButton && (!zoom_ || e->modifiers() == Qt::NoModifier))
        cursor_to(e->pos());
    QCustomPlot::mousePressEvent(e);
}

void DayChart::mouseReleaseEvent(QMouseEvent* e)
{
    marks_from_s_.reset();
    if (held_)
        return drop_tape();
    QCustomPlot::mouseReleaseEvent(e);
}

void DayChart::mouseMoveEvent(QMouseEvent* e)
{
    if (marks_from_s_)
        return session_.mark(Session::Marked{*marks_from_s_, time_at(e->pos().x())});
    if (held_)
        return drag_tape(e->pos());
    if (e->buttons() == Qt::NoButton)
        tell_of_tape(e->pos());
    if ((e->buttons() & Qt::LeftButton) != 0 && !zoom_)
        cursor_to(e->pos());
    QCustomPlot::mouseMoveEvent(e);
}

// Arrows go from one switching point to the next; with Shift by a minute, with Ctrl by ten.
void DayChart::keyPressEvent(QKeyEvent* e)
{
    if (e->key() != Qt::Key_Left && e->key() != Qt::Key_Right)
        return QCustomPlot::keyPressEvent(e);
    const bool forward = e->key() == Qt::Key_Right;
    const double minutes = (e->modifiers() & Qt::ShiftModifier) != 0 ? 1 : (e->modifiers() & Qt::ControlModifier) != 0 ? 10
                                                                                                                       : 0;
    if (minutes == 0)
        return session_.step_cursor(forward);
    session_.set_cursor(session_.cursor_s() + (forward ? 60 : -60) * minutes);
}

} // namespace vernal
