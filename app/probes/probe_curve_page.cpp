#include "probe_curve_page.h"

#include "app/shell/theme.h"

#include <QVBoxLayout>

#include <cmath>

namespace vernal {
namespace {

constexpr NumberField ohm_field{"ohm", "The meter shows", Quantity::resistance, 0.001, 1e8, "Disconnect the probe first: the unit reads in parallel"};
constexpr NumberField plain_field{"signal", "The meter shows", Quantity::number, -100, 1000, "mA in series, V across"};
constexpr NumberField temp_field{"temp_c", "Temperature", Quantity::temperature, -200, 850, ""};
constexpr double drawn_from_c = -50, drawn_to_c = 200;

} // namespace

ProbeCurvePage::ProbeCurvePage(Session& session, CurveShelf& shelf, const std::size_t& shown) : ProbePageView(session, shown), shelf_(shelf)
{
    plot_ = new QCustomPlot;
    plot_->setObjectName("probePlot");
    below_ = plot_below(*plot_);
    auto* column = beside(*this, plot_);
    column->addWidget(converter());
    column->addWidget(editor());
    column->addStretch(1);
}

QWidget* ProbeCurvePage::editor()
{
    sheet_ = new FieldSheet(session_);
    name_ = new QLineEdit;
    name_->setObjectName("words");
    name_->setAccessibleName(tr("Name"));
    sheet_->add(tr("Name"), name_, "name");
    place_ = choice_row(
        *sheet_, QStringLiteral("probePlace"), tr("Place"), {}, [this](int i) {
            edit(tr("Place a probe"), [to = place_->itemData(i).toInt()](Probe& p) { p.place = static_cast<ProbePlace>(to); });
        },
        "place");
    curve_error_ = new QLabel;
    curve_error_->setObjectName("probeCurveError");
    curve_error_->setWordWrap(true);
    curve_error_->hide();
    curve_ = new CurveBox(shelf_, curve_error_);
    curve_->setObjectName("probeCurve");
    curve_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    curve_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    curve_->setMinimumContentsLength(8);
    sheet_->add(tr("Curve"), curve_, "curve");
    origin_ = remark();
    sheet_->add_wide(curve_error_);
    sheet_->add_wide(origin_);
    const QStringList kinds{tr("not stated"), tr("class AA"), tr("class A"), tr("class B"), tr("class C"), tr("percent"), tr("kelvin")};
    tolerance_ = choice_row(*sheet_, QStringLiteral("tolerance"), tr("Tolerance"), kinds, [this](int i) {
        edit(tr("State the tolerance"), [i](Probe& p) { p.sensor.tolerance.kind = static_cast<ToleranceKind>(i); });
    });
    tolerance_edits_ = add_rows(*sheet_, session_, QStringLiteral("tolerance"), Tolerance{}, [this](const std::string& key, double to) { set(tr("State the tolerance"), "sensor/tolerance/" + key, to); });
    sensor_edits_ = add_rows(*sheet_, session_, QStringLiteral("sensor"), Sensor{}, [this](const std::string& key, double to) { set(tr("Change a probe"), "sensor/" + key, to); });
    connect(name_, &QLineEdit::editingFinished, this, [this] { edit(tr("Name a probe"), [this](Probe& p) { p.name = name_->text().toStdString(); }); });
    connect(curve_, &CurveBox::chosen, this, [this](const ProbeCurve& curve, int entry) {
        edit(tr("Choose a curve"), [&](Probe& p) {
            p.curve = curve;
            if (entry >= 0) // what usually goes with it
                p.sensor.tolerance = shelf_.book()[static_cast<std::size_t>(entry)].tolerance;
        });
    });
    return sheet_;
}

QWidget* ProbeCurvePage::converter()
{
    auto* box = new QWidget;
    auto* column = new QVBoxLayout(box);
    column->setContentsMargins(0, 0, 0, 8);
    ohm_ = new NumberEdit(session_, ohm_field);
    plain_ = new NumberEdit(session_, plain_field);
    temp_ = new NumberEdit(session_, temp_field);
    ohm_->setObjectName("convertOhm");
    plain_->setObjectName("convertSignal");
    temp_->setObjectName("convertTemp");
    answer_ = remark();
    answer_->setObjectName("convertAnswer");
    column->addWidget(heading(tr("Ohms and degrees")));
    auto* sheet = new FieldSheet(session_);
    for (const auto& [name, edit] : {std::pair{tr("Ohms"), ohm_}, {tr("Signal"), plain_}, {tr("Temperature"), temp_}}) {
        edit->stand_in_row();
        sheet->add(name, edit);
    }
    column->addWidget(sheet);
    column->addWidget(answer_);
    temp_->set_value(25);
    for (NumberEdit* e : {ohm_, plain_})
        connect(e, &NumberEdit::edited, this, [this] { convert(true); });
    connect(temp_, &NumberEdit::edited, this, [this] { convert(false); });
    return box;
}

double ProbeCurvePage::signal() const { return is_resistance(probe().curve) ? ohm_->value() : plain_->value(); }
void ProbeCurvePage::set_signal(double value) { (is_resistance(probe().curve) ? ohm_ : plain_)->set_value(value); }

void ProbeCurvePage::convert(bool from_signal)
{
    const ProbeCurve& curve = probe().curve;
    if (from_signal) {
        const auto t = temperature_at(curve, signal());
        if (!t)
            return answer_->setText(qs(t.error().text()));
        temp_->set_value(t->in_celsius());
    } else {
        const auto s = signal_at(curve, Temperature::celsius(temp_->value()));
        if (!s)
            return answer_->setText(qs(s.error().text()));
        set_signal(*s);
    }
    const bool ohms = is_resistance(curve);
    if (const auto slope = slope_at(curve, Temperature::celsius(temp_->value()))) {
        const double one_unit = *slope * from_display(1, Quantity::difference, session_.units()); // of one K or one °F
        const QString one = ohms ? text(one_unit, Quantity::resistance, session_.units()) : QString::number(one_unit, 'f', 3) + QLatin1Char(' ') + QString::fromUtf8(signal_unit(curve));
        answer_->setText(tr("Here 1 %1 is %2.").arg(qs(unit_name(Quantity::difference, session_.units())), one) + QLatin1Char(' ') + (ohms ? tr("Measure with the probe disconnected.") : tr("Measure with the transmitter fed.")));
    }
    draw();
}

void ProbeCurvePage::show_tolerance()
{
    const Tolerance& t = probe().sensor.tolerance;
    tolerance_->setCurrentIndex(static_cast<int>(t.kind));
    refresh_rows(tolerance_edits_, t);
    const bool percent = t.kind == ToleranceKind::percent, kelvin = t.kind == ToleranceKind::kelvin;
    const bool wanted[] = {percent, percent && falls(probe().curve), kelvin};
    for (std::size_t i = 0; i < tolerance_edits_.size(); ++i)
        show_row(tolerance_edits_[i], wanted[i]);
}

void ProbeCurvePage::refresh()
{
    const Probe& p = probe();
    sheet_->set_path("probe/" + p.id);
    if (!name_->isModified())
        name_->setText(qs(p.name));
    place_->clear(); // what this arrangement has
    for (ProbePlace place : arrangement_of(variant().loop).places)
        place_->addItem(tr(place_names[static_cast<std::size_t>(place)]).toLower(), static_cast<int>(place));
    place_->setCurrentIndex(place_->findData(static_cast<int>(p.place)));
    curve_->show_curve(p.curve);
    const int entry = shelf_.find(p.curve);
    const QString from = entry >= 0 ? qs(shelf_.book()[static_cast<std::size_t>(entry)].origin) : tr("A curve of your own");
    origin_->setText((shelf_.trouble().isEmpty() ? QString() : tr("Your curve file is not in use: %1.").arg(shelf_.trouble()) + QLatin1Char('\n')) + from + tr("; good for %1 to %2").arg(text(p.curve.min_c, Quantity::temperature, session_.units()), text(p.curve.max_c, Quantity::temperature, session_.units())));
    show_tolerance();
    refresh_rows(sensor_edits_, p.sensor);
    show_row(ohm_, is_resistance(p.curve));
    show_row(plain_, !is_resistance(p.curve));
    convert(false);
    draw();
}

void ProbeCurvePage::draw()
{
    const Probe& p = probe();
    const Theme& t = theme();
    const Units& u = session_.units();
    plot_->clearGraphs();
    style_plot(*plot_);
    const double lo = std::max(p.curve.min_c, drawn_from_c), hi = std::min(p.curve.max_c, drawn_to_c);
    QVector<double> x, y, high, low, tol;
    for (int i = 0; i <= 200; ++i) {
        const double c = lo + (hi - lo) * i / 200, off = tolerance_k(p.curve, p.sensor.tolerance, c);
        x.append(to_display(c, Quantity::temperature, u));
        y.append(signal_beyond(p.curve, c));
        high.append(signal_beyond(p.curve, c + off));
        low.append(signal_beyond(p.curve, c - off));
        tol.append(to_display(off, Quantity::difference, u));
    }
    const bool log = is_resistance(p.curve) && std::max(y.front(), y.back()) / std::min(y.front(), y.back()) > 20;
    plot_->yAxis->setScaleType(log ? QCPAxis::stLogarithmic : QCPAxis::stLinear);
    plot_->yAxis->setTicker(log ? QSharedPointer<QCPAxisTicker>(new QCPAxisTickerLog) : QSharedPointer<QCPAxisTicker>(new QCPAxisTicker));
    plot_->yAxis->setNumberFormat(QStringLiteral("f"));
    plot_->yAxis->setNumberPrecision(is_resistance(p.curve) ? 0 : 1);
    QColor band = t.collector;
    band.setAlpha(70);
    QCPGraph *upper = plot_->addGraph(), *lower = plot_->addGraph(), *curve = plot_->addGraph(), *here = plot_->addGraph();
    upper->setData(x, high, true);
    lower->setData(x, low, true);
    upper->setPen(Qt::NoPen);
    lower->setPen(Qt::NoPen);
    upper->setBrush(band);
    upper->setChannelFillGraph(lower);
    curve->setData(x, y, true);
    curve->setPen(QPen(t.collector, t.line_px));
    here->addData(to_display(temp_->value(), Quantity::temperature, u), signal());
    here->setLineStyle(QCPGraph::lsNone);
    here->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssDiamond, t.ink, t.card, 13));
    QCPGraph* width = plot_->addGraph(below_->axis(QCPAxis::atBottom), below_->axis(QCPAxis::atLeft));
    width->setData(x, tol, true);
    width->setPen(QPen(t.collector, t.line_px));
    width->setBrush(band);
    plot_->xAxis->setTickLabels(false);
    plot_->yAxis->setLabel(is_resistance(p.curve) ? tr("resistance, Ω") : tr("signal, %1").arg(QString::fromUtf8(signal_unit(p.curve))));
    below_->axis(QCPAxis::atBottom)->setLabel(tr("temperature, %1").arg(qs(unit_name(Quantity::temperature, u))));
    below_->axis(QCPAxis::atLeft)->setLabel(p.sensor.tolerance.kind == ToleranceKind::none ? tr("tolerance\nnot stated") : tr("tolerance,\n± %1").arg(qs(unit_name(Quantity::difference, u))));
    curve->rescaleAxes();
    below_->axis(QCPAxis::atLeft)->setRange(0, std::max(0.5, 1.15 * *std::max_element(tol.begin(), tol.end())));
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

} // namespace vernal
