#include "probe_knob_page.h"

#include "app/shell/theme.h"

#include <QComboBox>
#include <QVBoxLayout>

namespace vernal {

ProbeKnobPage::ProbeKnobPage(Session& session, const std::size_t& shown) : ProbePageView(session, shown)
{
    plot_ = new QCustomPlot;
    plot_->setObjectName("knobPlot");
    plot_->legend->setVisible(true);
    auto* column = beside(*this, plot_);
    column->addWidget(heading(tr("One knob for both")));
    column->addWidget(remark(tr("Some units have one knob that moves start and stop together. Describe its two ends; the mark for the pair you want follows.")));
    auto* sheet = new FieldSheet(session);
    sheet->set_path("knob");
    const auto edit_knob = [this](const std::function<void(Knob&)>& change, const QString& merge) { session_.document().edit_variant(
                                                                                                        tr("Describe the knob"), [&](Variant& v) { change(v.unit.knob); }, merge); };
    rows_ = add_rows(*sheet, session_, QStringLiteral("knob"), Knob{}, [edit_knob](const std::string& key, double to) {
        edit_knob([&](Knob& k) {
            set_number(k, key, to);
            if (k.first == k.last) // a scale without length has no marks
                k.last = k.first + 1;
        },
            QStringLiteral("knob%1").arg(qs(key)));
    });
    law_ = choice_row(*sheet, QStringLiteral("knobLaw"), tr("Along the scale"), {tr("evenly"), tr("in equal ratios")}, [edit_knob](int i) { edit_knob([i](Knob& k) { k.law = static_cast<KnobLaw>(i); }, {}); });
    column->addWidget(sheet);
    words_ = new QLabel;
    words_->setObjectName("knobWords");
    words_->setWordWrap(true);
    column->addWidget(words_);
    sums_ = new QVBoxLayout;
    column->addLayout(sums_);
    column->addStretch(1);
}

void ProbeKnobPage::refresh()
{
    refresh_rows(rows_, variant().unit.knob);
    law_->setCurrentIndex(static_cast<int>(variant().unit.knob.law));
    show_sums(*sums_, ProbePage::knob);
    draw();
}

void ProbeKnobPage::draw()
{
    const Theme& t = theme();
    const Units& u = session_.units();
    const Knob& k = variant().unit.knob;
    plot_->clearGraphs();
    style_plot(*plot_);
    plot_->legend->setFont(text_font(13));
    plot_->legend->setTextColor(t.ink);
    plot_->legend->setBrush(t.card);
    plot_->legend->setBorderPen(Qt::NoPen);
    plot_->axisRect()->insetLayout()->setInsetAlignment(0, Qt::AlignTop | Qt::AlignLeft);
    QVector<double> x, on, off;
    for (int i = 0; i <= 60; ++i) {
        const double mark = std::lerp(k.first, k.last, i / 60.0);
        const KnobPair p = knob_pair(k, mark);
        x.append(mark);
        on.append(to_display(p.on_k, Quantity::difference, u));
        off.append(to_display(p.off_k, Quantity::difference, u));
    }
    const auto line = [&](const QVector<double>& y, const QColor& colour, Qt::PenStyle style, const QString& name) {
        QCPGraph* g = plot_->addGraph();
        g->setData(x, y);
        g->setPen(QPen(colour, t.line_px, style));
        g->setName(name);
    };
    line(on, t.accent, Qt::SolidLine, tr("start"));
    line(off, t.start, Qt::DashLine, tr("stop"));
    words_->clear();
    for (const Rule& r : variant().unit.rules)
        if (const auto d = difference_of(variant().unit, r); d && r.enabled) {
            const KnobSetting s = knob_setting(k, {d->on.in_kelvin(), d->off.in_kelvin()});
            QCPGraph* here = plot_->addGraph();
            here->addData(s.mark, to_display(d->on.in_kelvin(), Quantity::difference, u));
            here->addData(s.mark, to_display(d->off.in_kelvin(), Quantity::difference, u));
            here->setLineStyle(QCPGraph::lsNone);
            here->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssDiamond, t.ink, t.card, 13));
            here->setName(tr("the rule's pair, at the closest mark"));
            words_->setText(tr("Closest to the rule: mark %1. It misses the start by %2 and the stop by %3.").arg(s.mark, 0, 'f', 1).arg(text(s.miss.on_k, Quantity::difference, u), text(s.miss.off_k, Quantity::difference, u)));
            break;
        }
    plot_->xAxis->setLabel(tr("mark of the knob"));
    plot_->yAxis->setLabel(tr("difference, %1").arg(qs(unit_name(Quantity::difference, u))));
    plot_->rescaleAxes();
    const QCPRange all = plot_->yAxis->range(); // room for the legend above
    plot_->yAxis->setRange(all.lower - 0.06 * all.size(), all.upper + 0.36 * all.size());
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

} // namespace vernal
