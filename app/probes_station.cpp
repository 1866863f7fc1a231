#include "probes_station.h"

#include "theme.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>

namespace vernal {
namespace {

constexpr NumberField ohm_field{"ohm", "The meter shows", Quantity::resistance, 0.001, 1e8, "Disconnect the probe first: the unit reads in parallel"};
constexpr NumberField temp_field{"temp_c", "Temperature", Quantity::temperature, -200, 850, ""};

const std::pair<const char*, const char*> usual_curves[] = {
    {"Pt1000 (IEC 60751)", "pt1000"},
    {"Pt100 (IEC 60751)", "pt100"},
    {"NTC 10 kΩ at 25 °C, B 3950", "ntc:r25=10000,beta=3950"},
    {"NTC 5 kΩ at 25 °C, B 3500", "ntc:r25=5000,beta=3500"},
    {"NTC 10 kΩ, by table", "table:0=32650,25=10000,50=3602,100=678.3"},
};

} // namespace

ProbesStation::ProbesStation(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    list_ = new QListWidget;
    list_->setObjectName("probeList");
    list_->setFixedWidth(196);
    auto* add = new QPushButton(tr("Add a probe"));
    connect(add, &QPushButton::clicked, this, [this] {
        if (session_.document().variant().probes.size() >= max_probes)
            return;
        session_.document().edit_variant(tr("Add a probe"), [](Variant& v) {
            Probe p;
            p.key = "S" + std::to_string(v.probes.size() + 1);
            p.name = "Return pipe";
            p.place = ProbePlace::return_pipe;
            v.probes.push_back(p);
        });
        list_->setCurrentRow(list_->count() - 1);
    });
    auto* left = new QVBoxLayout;
    left->addWidget(heading(tr("Probes"), "h1"));
    left->addWidget(list_, 1);
    left->addWidget(add);
    plot_ = new QCustomPlot;
    plot_->setObjectName("probePlot");
    auto* middle = new QVBoxLayout;
    middle->addWidget(heading(tr("Curve")));
    middle->addWidget(plot_, 1);
    auto* right = new QVBoxLayout;
    right->addWidget(editor());
    right->addWidget(converter());
    right->addStretch(1);
    auto* box = new QHBoxLayout(this);
    box->setContentsMargins(14, 10, 10, 8);
    box->setSpacing(10);
    box->addLayout(left);
    box->addLayout(middle, 1);
    box->addLayout(right);
    connect(list_, &QListWidget::currentRowChanged, this, [this](int row) {
        if (row >= 0) {
            shown_ = static_cast<std::size_t>(row);
            show_probe();
        }
    });
    connect(&session.document(), &Document::changed, this, &ProbesStation::refresh);
    connect(&session.document(), &Document::view_changed, this, &ProbesStation::refresh);
    connect(&session, &Session::units_changed, this, &ProbesStation::show_probe);
    refresh();
}

const Probe* ProbesStation::probe() const
{
    const auto& all = session_.document().variant().probes;
    return shown_ < all.size() ? &all[shown_] : nullptr;
}

QWidget* ProbesStation::editor()
{
    auto* frame = new QFrame;
    frame->setObjectName("card");
    frame->setFixedWidth(300);
    grid_ = new QGridLayout(frame);
    name_ = new QLineEdit;
    name_->setObjectName("words");
    place_ = new QComboBox;
    curve_ = new QComboBox;
    curve_->setObjectName("probeCurve");
    curve_->setEditable(true);
    curve_->setInsertPolicy(QComboBox::NoInsert);
    for (const auto& [name, spec] : usual_curves)
        curve_->addItem(QString::fromUtf8(name), QString::fromUtf8(spec));
    curve_error_ = new QLabel;
    curve_error_->setObjectName("probeCurveError");
    curve_error_->setWordWrap(true);
    int row = 0;
    for (const auto& [label, widget] : {std::pair<QString, QWidget*>(tr("Name"), name_), {tr("Place"), place_}, {tr("Curve"), curve_}}) {
        grid_->addWidget(new QLabel(label), row, 0);
        grid_->addWidget(widget, row++, 1);
    }
    grid_->addWidget(curve_error_, row, 0, 1, 2);
    edits_ = add_rows(*grid_, session_, QStringLiteral("probe"), Probe{}, [this](const std::string& key, double to) {
        session_.document().edit_variant(tr("Change a probe"), [&](Variant& v) { set_number(v.probes[shown_], key, to); }, QStringLiteral("probe%1").arg(qs(key)));
    });
    auto* note = new QLabel(tr("Place it where it touches the fluid's own metal, under the insulation, out of moving air. Probes have no polarity."));
    note->setWordWrap(true);
    note->setObjectName("second");
    grid_->addWidget(note, grid_->rowCount(), 0, 1, 2);
    connect(name_, &QLineEdit::editingFinished, this, [this] {
        session_.document().edit_variant(tr("Name a probe"), [this](Variant& v) { v.probes[shown_].name = name_->text().toStdString(); });
    });
    connect(place_, &QComboBox::activated, this, [this](int i) {
        session_.document().edit_variant(tr("Place a probe"), [this, to = place_->itemData(i).toInt()](Variant& v) { v.probes[shown_].place = static_cast<ProbePlace>(to); });
    });
    connect(curve_, &QComboBox::activated, this, &ProbesStation::change_curve);
    connect(curve_->lineEdit(), &QLineEdit::editingFinished, this, &ProbesStation::change_curve);
    return frame;
}

void ProbesStation::change_curve()
{
    const int i = curve_->findText(curve_->currentText());
    const std::string spec = (i >= 0 ? curve_->itemData(i).toString() : curve_->currentText()).toStdString();
    auto parsed = parse_curve(spec);
    curve_error_->setText(parsed ? QString() : qs(parsed.error().text()));
    if (!parsed || !probe() || *parsed == probe()->curve)
        return;
    session_.document().edit_variant(tr("Choose a curve"), [&](Variant& v) { v.probes[shown_].curve = *parsed; });
}

QWidget* ProbesStation::converter()
{
    auto* frame = new QFrame;
    frame->setObjectName("card");
    frame->setFixedWidth(300);
    auto* grid = new QGridLayout(frame);
    ohm_ = new NumberEdit(session_, ohm_field);
    temp_ = new NumberEdit(session_, temp_field);
    ohm_->setObjectName("convertOhm");
    temp_->setObjectName("convertTemp");
    answer_ = new QLabel;
    answer_->setObjectName("convertAnswer");
    answer_->setWordWrap(true);
    grid->addWidget(heading(tr("Ohms and degrees")), 0, 0, 1, 2);
    grid->addWidget(new QLabel(tr("The meter shows")), 1, 0);
    grid->addWidget(ohm_, 1, 1, Qt::AlignRight);
    grid->addWidget(new QLabel(tr("Temperature")), 2, 0);
    grid->addWidget(temp_, 2, 1, Qt::AlignRight);
    grid->addWidget(answer_, 3, 0, 1, 2);
    temp_->set_value(25);
    connect(ohm_, &NumberEdit::edited, this, [this] { convert(true); });
    connect(temp_, &NumberEdit::edited, this, [this] { convert(false); });
    return frame;
}

void ProbesStation::convert(bool from_ohm)
{
    const Probe* p = probe();
    if (!p)
        return;
    if (from_ohm) {
        const auto t = temperature_at(p->curve, ohm_->value());
        if (t)
            temp_->set_value(t->in_celsius());
        else
            return answer_->setText(qs(t.error().text()));
    } else {
        const auto r = signal_at(p->curve, Temperature::celsius(temp_->value()));
        if (r)
            ohm_->set_value(*r);
        else
            return answer_->setText(qs(r.error().text()));
    }
    const auto slope = slope_at(p->curve, Temperature::celsius(temp_->value()));
    answer_->setText(slope ? tr("Here one kelvin is %1.").arg(text(*slope, Quantity::resistance, session_.units())) + QLatin1Char(' ') + tr("Measure with the probe disconnected.") : QString());
    draw_curve();
}

void ProbesStation::refresh()
{
    const auto& all = session_.document().variant().probes;
    if (all == shown_probes_)
        return;
    shown_probes_ = all;
    const QSignalBlocker quiet(list_);
    list_->clear();
    for (const Probe& p : all)
        list_->addItem(QStringLiteral("%1  %2\n%3").arg(qs(p.key), qs(p.name), qs(curve_text(p.curve))));
    shown_ = std::min(shown_, all.size() - 1);
    list_->setCurrentRow(static_cast<int>(shown_));
    show_probe();
}

void ProbesStation::show_probe()
{
    const Probe* p = probe();
    if (!p)
        return;
    name_->setText(qs(p->name));
    place_->clear(); // what this arrangement has
    for (ProbePlace place : find_arrangement(session_.document().variant().loop.arrangement)->places)
        place_->addItem(tr(place_names[static_cast<std::size_t>(place)]).toLower(), static_cast<int>(place));
    place_->setCurrentIndex(place_->findData(static_cast<int>(p->place)));
    const int known = curve_->findData(qs(curve_text(p->curve)));
    if (known >= 0)
        curve_->setCurrentIndex(known);
    else
        curve_->setEditText(qs(curve_text(p->curve)));
    curve_->lineEdit()->setCursorPosition(0);
    curve_error_->clear();
    refresh_rows(edits_, *p);
    convert(false);
    draw_curve();
}

void ProbesStation::draw_curve()
{
    const Probe* p = probe();
    const Theme& t = theme();
    plot_->clearGraphs();
    plot_->setBackground(QBrush(t.card));
    const double lo = std::max(p->curve.min_c, -50.0), hi = std::min(p->curve.max_c, 200.0);
    QVector<double> x, y;
    for (int i = 0; i <= 200; ++i) {
        const double c = lo + (hi - lo) * i / 200;
        if (const auto r = signal_at(p->curve, Temperature::celsius(c))) {
            x.append(to_display(c, Quantity::temperature, session_.units()));
            y.append(*r);
        }
    }
    const bool log = !y.isEmpty() && std::max(y.front(), y.back()) / std::min(y.front(), y.back()) > 20;
    plot_->yAxis->setScaleType(log ? QCPAxis::stLogarithmic : QCPAxis::stLinear);
    plot_->yAxis->setTicker(log ? QSharedPointer<QCPAxisTicker>(new QCPAxisTickerLog) : QSharedPointer<QCPAxisTicker>(new QCPAxisTicker));
    plot_->yAxis->setNumberFormat("f");
    plot_->yAxis->setNumberPrecision(0);
    QCPGraph* curve = plot_->addGraph();
    curve->setData(x, y, true);
    curve->setPen(QPen(t.collector, t.line_px + 0.4));
    QCPGraph* here = plot_->addGraph();
    here->addData(to_display(temp_->value(), Quantity::temperature, session_.units()), ohm_->value());
    here->setLineStyle(QCPGraph::lsNone);
    here->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssDiamond, t.ink, t.card, 13));
    plot_->xAxis->setLabel(tr("temperature, %1").arg(qs(unit_name(Quantity::temperature, session_.units()))));
    plot_->yAxis->setLabel(tr("resistance, Ω"));
    for (QCPAxis* a : {plot_->xAxis, plot_->yAxis}) {
        a->setTickLabelFont(number_font(13));
        a->setLabelFont(text_font(13));
        a->setLabelColor(t.second_ink);
        a->setTickLabelColor(t.second_ink);
        a->setBasePen(QPen(t.hairline));
        a->setTickPen(QPen(t.hairline));
        a->setSubTickPen(Qt::NoPen);
        a->grid()->setPen(QPen(t.hairline));
    }
    curve->rescaleAxes();
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

} // namespace vernal
