#include "probe_instrument_page.h"

#include "app/shell/theme.h"
#include "core/wording/placing.h"

#include <QComboBox>
#include <QLineEdit>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

// Whether a row says something of such an instrument.
bool is_of(const QString& editor, Reads reads, bool stuck)
{
    if (editor.endsWith(QLatin1String("stuck_share")))
        return stuck;
    if (editor.endsWith(QLatin1String("_m3_s")))
        return reads == Reads::flow;
    if (editor.endsWith(QLatin1String("_pa")))
        return reads == Reads::pressure;
    return !editor.endsWith(QLatin1String("_w_m2")) || reads == Reads::irradiance;
}

} // namespace

ProbeInstrumentPage::ProbeInstrumentPage(Session& session, const std::size_t& shown) : ProbePageView(session, shown)
{
    plot_ = new QCustomPlot;
    plot_->setObjectName("instrumentPlot");
    auto* column = beside(*this, plot_);
    column->addWidget(heading(tr("This input")));
    sheet_ = new FieldSheet(session_);
    name_ = new QLineEdit;
    name_->setObjectName("words");
    name_->setAccessibleName(tr("Name"));
    sheet_->add(tr("Name"), name_, "name");
    place_ = choice_row(
        *sheet_, QStringLiteral("instrumentPlace"), tr("Place"), {}, [this](int i) {
            edit(tr("Place a probe"), [to = place_->itemData(i).toInt()](Probe& p) { p.place = static_cast<ProbePlace>(to); });
        },
        "place");
    rows_ = add_rows(*sheet_, session_, QStringLiteral("instrument"), Instrument{}, [this](const std::string& key, double to) { set(tr("Change a probe"), "instrument/" + key, to); });
    condition_ = choice_row(
        *sheet_, QStringLiteral("instrumentCondition"), tr("Condition"), {tr("sound"), tr("open"), tr("shorted"), tr("stuck")}, [this](int i) { edit(tr("A probe's condition"), [i](Probe& p) { p.condition.kind = static_cast<ConditionKind>(i); }); }, "condition/kind");
    column->addWidget(sheet_);
    note_ = remark();
    column->addWidget(note_);
    column->addStretch(1);
    connect(name_, &QLineEdit::editingFinished, this, [this] { edit(tr("Name a probe"), [this](Probe& p) { p.name = name_->text().toStdString(); }); });
    connect(&session_, &Session::outcome_changed, this, &ProbeInstrumentPage::bring_up_to_date);
}

void ProbeInstrumentPage::refresh()
{
    const Probe& p = probe();
    const Reads reads = reads_at(p.place);
    if (reads == Reads::temperature)
        return;
    sheet_->set_path("probe/" + p.id);
    if (!name_->isModified())
        name_->setText(qs(p.name));
    place_->clear();
    for (ProbePlace place : arrangement_of(variant().loop).places)
        place_->addItem(tr(place_names[static_cast<std::size_t>(place)]).toLower(), static_cast<int>(place));
    place_->setCurrentIndex(place_->findData(static_cast<int>(p.place)));
    refresh_rows(rows_, p.instrument);
    for (NumberEdit* row : rows_)
        show_row(row, is_of(row->objectName(), reads, p.condition.kind == ConditionKind::stuck));
    const int kind = static_cast<int>(p.condition.kind);
    condition_->setCurrentIndex(kind < condition_->count() ? kind : 0);
    const PlacingGuide guide = placing_guide(arrangement_of(variant().loop), p.place);
    note_->setText(QStringLiteral("%1\n\n%2 %3\n\n%4").arg(qs(guide.where), tr("Not so:"), qs(guide.mistake), qs(guide.caution)));
    draw();
}

std::vector<double> ProbeInstrumentPage::looked_at() const
{
    const Program program = compile(variant()).program;
    std::vector<double> out;
    const auto here = [&](std::size_t channel) {
        return channel == index() || std::any_of(program.averages.begin(), program.averages.end(), [&](const Average& a) { return a.to == channel && a.from == index(); });
    };
    for (const Latch& l : program.latches)
        if (here(l.plus) || here(l.minus))
            for (MilliKelvin edge : {l.set_mk, l.clear_mk})
                out.push_back((here(l.plus) ? edge : -edge) / 1000.0);
    for (const Gate& g : program.gates)
        if (g.kind == Gate::Kind::flow_guard && here(g.channel))
            out.push_back(g.change_mk / 1000.0);
    return out;
}

void ProbeInstrumentPage::draw()
{
    const Theme& t = theme();
    const Units& u = session_.units();
    const Reads reads = reads_at(probe().place);
    const auto shown = [&](double reading) { return to_display(reading * inside_per_reading(reads), quantity_of(reads), u); };
    plot_->clearGraphs();
    plot_->clearItems();
    style_plot(*plot_);
    plot_->xAxis->setLabel(tr("hour"));
    auto hours = QSharedPointer<QCPAxisTickerFixed>::create();
    hours->setTickStep(4);
    plot_->xAxis->setTicker(hours);
    plot_->yAxis->setLabel(QStringLiteral("%1, %2").arg(qs(probe().name).toLower(), qs(unit_name(quantity_of(reads), u))));
    double most = 0, least = 0;
    const auto& o = session_.outcome();
    if (o && o->size() > 0 && index() < o->variant.probes.size() && o->variant.probes[index()].place == probe().place) {
        QVector<double> x, y;
        for (std::size_t i = 0; i < o->size(); ++i) {
            x.append((o->time_s(i) + o->start_s()) / 3600);
            y.append(shown(o->reading(i, index())));
            if (std::isfinite(y.back())) {
                most = std::max(most, y.back());
                least = std::min(least, y.back());
            }
        }
        QCPGraph* line = plot_->addGraph();
        line->setData(x, y, true);
        line->setLineStyle(reads == Reads::irradiance ? QCPGraph::lsLine : QCPGraph::lsStepLeft);
        line->setPen(QPen(t.accent, t.line_px));
        QColor under = reads == Reads::irradiance ? t.sun : t.accent;
        under.setAlpha(50);
        line->setBrush(under);
        plot_->xAxis->setRange(x.front(), std::max(x.back(), x.front() + 0.1));
    }
    for (double reading : looked_at()) {
        auto* at = new QCPItemStraightLine(plot_);
        at->point1->setCoords(0, shown(reading));
        at->point2->setCoords(1, shown(reading));
        at->setPen(QPen(t.protect, 1, Qt::DashLine));
        auto* words = new QCPItemText(plot_);
        words->setPositionAlignment(Qt::AlignRight | Qt::AlignBottom);
        words->position->setTypeX(QCPItemPosition::ptAxisRectRatio);
        words->position->setTypeY(QCPItemPosition::ptPlotCoords);
        words->position->setCoords(0.995, shown(reading));
        words->setFont(text_font(13));
        words->setColor(t.protect);
        words->setText(tr("a rule looks at %1").arg(reading_text(probe(), reading, u)));
        most = std::max(most, shown(reading));
    }
    plot_->yAxis->setRange(least, most > least ? least + 1.12 * (most - least) : least + 1);
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

} // namespace vernal
