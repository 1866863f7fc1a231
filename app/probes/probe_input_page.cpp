#include "probe_input_page.h"

#include "app/shell/theme.h"
#include "core/sums/probe_health.h"
#include "core/sums/switching.h"

#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr int fewest_bits = 6, most_bits = 16;
constexpr double plotted_from_c = -30, plotted_to_c = 150;

} // namespace

ProbeInputPage::ProbeInputPage(Session& session, CurveShelf& shelf, const std::size_t& shown) : ProbePageView(session, shown)
{
    plot_ = new QCustomPlot;
    plot_->setObjectName("inputPlot");
    below_ = plot_below(*plot_);
    auto* column = beside(*this, plot_);
    column->addWidget(heading(tr("The unit's input")));
    auto* sheet = new FieldSheet(session);
    sheet->set_path("input");
    kind_ = choice_row(*sheet, QStringLiteral("stage"), tr("Reads by"), {tr("exactly"), tr("pull-up"), tr("bridge")}, [this](int i) { edit_input([i](InputStage& s) { s.kind = static_cast<StageKind>(i); }); });
    QStringList bits;
    for (int b = fewest_bits; b <= most_bits; ++b)
        bits << tr("%1 bits").arg(b);
    bits_ = choice_row(*sheet, QStringLiteral("bits"), tr("Converter"), bits, [this](int i) { edit_input([i](InputStage& s) { s.bits = fewest_bits + i; }); });
    rows_ = add_rows(*sheet, session_, QStringLiteral("input"), InputStage{}, [this](const std::string& key, double to) { session_.document().set(tr("Change the unit's input"), "input/" + key, to); });
    column->addWidget(sheet);
    limits_ = remark();
    column->addWidget(limits_);
    sums_ = new QVBoxLayout;
    column->addLayout(sums_);
    other_ = new QCheckBox(tr("The unit reads this probe by\nanother curve than its own"));
    other_->setObjectName("readByOther");
    other_->setMinimumHeight(40);
    other_error_ = new QLabel;
    other_error_->setObjectName("bad");
    other_error_->setWordWrap(true);
    other_curve_ = new CurveBox(shelf, other_error_);
    other_curve_->setObjectName("readByCurve");
    for (QWidget* w : {static_cast<QWidget*>(other_), static_cast<QWidget*>(other_curve_), static_cast<QWidget*>(other_error_)})
        column->addWidget(w);
    column->addStretch(1);
    connect(other_, &QCheckBox::clicked, this, [this](bool on) { edit(tr("What the unit reads by"), [on](Probe& p) { p.read_by.other = on; }); });
    connect(other_curve_, &CurveBox::chosen, this, [this](const ProbeCurve& c) { edit(tr("What the unit reads by"), [&](Probe& p) { p.read_by.curve = c; }); });
}

void ProbeInputPage::edit_input(const std::function<void(InputStage&)>& change)
{
    session_.document().edit_variant(
        tr("Change the unit's input"), [&](Variant& v) { change(v.input); });
}

// Rows that this kind of stage knows nothing of stay away.
void ProbeInputPage::show_what_counts(StageKind kind)
{
    const bool pull_up = kind == StageKind::pull_up, bridge = kind == StageKind::bridge;
    show_row(bits_, pull_up || bridge);
    for (NumberEdit* e : rows_) {
        const QString key = e->objectName().section(QLatin1Char('.'), 1);
        const bool both = key == QLatin1String("supply_v") || key == QLatin1String("gain");
        if (both || key == QLatin1String("pull_up_ohm") || key == QLatin1String("scale_at_c"))
            show_row(e, both ? pull_up || bridge : key == QLatin1String("pull_up_ohm") ? pull_up
                                                                                       : bridge);
    }
}

void ProbeInputPage::refresh()
{
    const InputStage& s = variant().input;
    const Units& u = session_.units();
    kind_->setCurrentIndex(static_cast<int>(s.kind));
    bits_->setCurrentIndex(s.bits - fewest_bits);
    refresh_rows(rows_, s);
    show_what_counts(s.kind);
    const DetectionLimits d = detection_limits(variant(), index());
    const auto ends = [&](double signal) { return is_resistance(probe().curve) ? text(signal, Quantity::resistance, u) : text(signal, Quantity::number, u) + QLatin1Char(' ') + QString::fromUtf8(signal_unit(probe().curve)); };
    limits_->setText(tr("Taken for broken below %1 (%2) and above %3 (%4); the rules then do what they do on a fault.").arg(text(d.low_c, Quantity::temperature, u), ends(d.at_low), text(d.high_c, Quantity::temperature, u), ends(d.at_high)));
    other_->setChecked(probe().read_by.other);
    other_curve_->setVisible(probe().read_by.other);
    if (probe().read_by.other)
        other_curve_->show_curve(probe().read_by.curve);
    show_sums(*sums_, ProbePage::input);
    draw();
}

void ProbeInputPage::draw()
{
    plot_->clearGraphs();
    style_plot(*plot_);
    variant().input.kind == StageKind::bridge&& is_resistance(probe().curve) ? draw_drift() : draw_counts();
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

// Volts at the converter, and one count in kelvin, over the temperature.
void ProbeInputPage::draw_counts()
{
    const Theme& t = theme();
    const Units& u = session_.units();
    const InputStage& s = variant().input;
    const ProbeCurve& c = probe().curve;
    const double lo = std::max(plotted_from_c, c.min_c), hi = std::min(plotted_to_c, c.max_c);
    QVector<double> x, volt, count;
    for (int i = 0; i <= 180; ++i) {
        const double at = lo + (hi - lo) * i / 180, signal = signal_beyond(c, at);
        x.append(to_display(at, Quantity::temperature, u));
        volt.append(!is_resistance(c) || s.kind == StageKind::exact ? signal : divider_volt(s, signal));
        const double k = kelvin_per_count(s, c, at);
        count.append(std::isfinite(k) ? to_display(k, Quantity::difference, u) : NAN);
    }
    QCPGraph* upper = plot_->addGraph();
    upper->setData(x, volt, true);
    upper->setPen(QPen(t.store_bottom, t.line_px));
    QCPGraph* lower = plot_->addGraph(below_->axis(QCPAxis::atBottom), below_->axis(QCPAxis::atLeft));
    lower->setData(x, count, true);
    lower->setPen(QPen(t.collector, t.line_px));
    plot_->xAxis->setTickLabels(false);
    plot_->xAxis->setLabel({});
    const bool ohms = is_resistance(c) && s.kind == StageKind::exact;
    plot_->yAxis->setLabel(ohms ? tr("at the terminals, Ω") : is_resistance(c) ? tr("at the converter, V")
                                                                               : tr("at the terminals, %1").arg(QString::fromUtf8(signal_unit(c))));
    below_->axis(QCPAxis::atBottom)->setLabel(tr("temperature of the probe, %1").arg(qs(unit_name(Quantity::temperature, u))));
    below_->axis(QCPAxis::atLeft)->setLabel(s.kind == StageKind::exact ? tr("no counts") : tr("one count,\n%1").arg(qs(unit_name(Quantity::difference, u))));
    upper->rescaleAxes();
    lower->rescaleValueAxis();
    below_->axis(QCPAxis::atLeft)->setRangeLower(0);
    below_->axis(QCPAxis::atLeft)->setRangeUpper(std::max(0.1, 1.15 * below_->axis(QCPAxis::atLeft)->range().upper));
    plot_->yAxis->scaleRange(1.08);
}

// The bridge's voltages for start and stop at the temperature its scale is right
// at: what they stand for over other store temperatures.
void ProbeInputPage::draw_drift()
{
    const Theme& t = theme();
    const Units& u = session_.units();
    const InputStage& s = variant().input;
    const ProbeCurve& c = probe().curve;
    const auto rule = first_difference(variant());
    const double sets[] = {rule ? rule->on.in_kelvin() : 8.0, rule ? rule->off.in_kelvin() : 4.0};
    for (std::size_t k = 0; k < 2; ++k) {
        const double volt = bridge_volt(s, signal_beyond(c, s.scale_at_c + sets[k]), signal_beyond(c, s.scale_at_c));
        QVector<double> x, means, volts;
        for (double store = 0; store <= 95; store += 2.5) {
            x.append(to_display(store, Quantity::temperature, u));
            means.append(to_display(bridge_difference_k(s, c, volt, store), Quantity::difference, u));
            volts.append(bridge_volt(s, signal_beyond(c, store + sets[k]), signal_beyond(c, store)));
        }
        QCPGraph* upper = plot_->addGraph();
        upper->setData(x, means, true);
        upper->setPen(QPen(k == 0 ? t.accent : t.start, t.line_px, k == 0 ? Qt::SolidLine : Qt::DashLine));
        QCPGraph* lower = plot_->addGraph(below_->axis(QCPAxis::atBottom), below_->axis(QCPAxis::atLeft));
        lower->setData(x, volts, true);
        lower->setPen(upper->pen());
    }
    plot_->rescaleAxes();
    plot_->xAxis->setTickLabels(false);
    plot_->yAxis->setLabel(tr("really starts (line) and\nstops (dashes) at, %1").arg(qs(unit_name(Quantity::difference, u))));
    plot_->yAxis->setRange(0, 1.25 * plot_->yAxis->range().upper);
    below_->axis(QCPAxis::atBottom)->setLabel(tr("store, %1").arg(qs(unit_name(Quantity::temperature, u))));
    below_->axis(QCPAxis::atLeft)->setLabel(tr("volts for\nthe set ones"));
    below_->axis(QCPAxis::atLeft)->scaleRange(1.2);
}

} // namespace vernal
