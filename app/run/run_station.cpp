#include "run_station.h"

#include "app/shell/theme.h"
#include "app/widgets/cursor_clock.h"
#include "app/widgets/form.h"
#include "audit_sheet.h"
#include "core/wording/why.h"
#include "difference_line.h"
#include "disagreement_list.h"
#include "figure_sheet.h"

#include <QHBoxLayout>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>

namespace vernal {
namespace {

QPushButton* quiet(const QString& words)
{
    auto* b = new QPushButton(words);
    b->setObjectName("quiet");
    return b;
}

} // namespace

RunStation::RunStation(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    auto* head = new QHBoxLayout;
    head->addWidget(heading(tr("Run"), "h1"));
    auto* hint = new QLabel(tr("wheel zooms, click asks why"));
    hint->setObjectName("second");
    head->addWidget(hint, 1);
    head->addWidget(new CursorClock(session));
    QPushButton *whole = quiet(tr("Whole day")), *copy = quiet(tr("Copy the picture"));
    head->addWidget(whole);
    head->addWidget(copy);
    chart_ = new DayChart(session, true);
    below_ = new QWidget;
    auto* row = new QHBoxLayout(below_);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(10);
    row->addWidget(make_table(), 3);
    row->addWidget(make_why(), 2);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(14, 10, 10, 8);
    box->setSpacing(6);
    box->addLayout(head);
    box->addWidget(chart_, 1);
    box->addWidget(below_);
    connect(whole, &QPushButton::clicked, this, [this] {
        if (const auto& o = session_.outcome(); o && o->size())
            chart_->axisRect()->axis(QCPAxis::atBottom)->setRange(o->time_s(0) + o->start_s(), o->time_s(o->size() - 1) + o->start_s());
        chart_->replot();
    });
    connect(copy, &QPushButton::clicked, this, [this] { copy_picture(*chart_); });
    for (auto signal : {&Session::outcome_changed, &Session::verdict_changed, &Session::units_changed})
        connect(&session, signal, this, &RunStation::show_figures);
    for (auto signal : {&Session::outcome_changed, &Session::cursor_changed, &Session::units_changed})
        connect(&session, signal, this, &RunStation::show_why);
}

void RunStation::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    show_figures();
    show_why();
}

// What is below the picture takes two fifths at most.
void RunStation::resizeEvent(QResizeEvent* e)
{
    QWidget::resizeEvent(e);
    below_->setFixedHeight(std::clamp(height() * 2 / 5, 200, 310));
}

QWidget* RunStation::make_table()
{
    auto* card = new QFrame;
    card->setObjectName("card");
    auto* column = new QVBoxLayout(card);
    column->setContentsMargins(10, 6, 6, 6);
    column->setSpacing(4);
    table_title_ = heading(tr("Figures"));
    figures_ = new FigureSheet(session_);
    difference_ = new DifferenceLine(session_);
    disagreements_ = new DisagreementList(session_);
    audits_ = new QPushButton(tr("Audit"));
    audits_->setObjectName(QStringLiteral("showAudit"));
    audits_->setCheckable(true);
    audits_->setToolTip(tr("What the log shows of the unit: its settings, what is wrong, and where that is seen"));
    audit_ = new AuditSheet(session_);
    auto* title = new QHBoxLayout;
    title->addWidget(table_title_, 1);
    title->addWidget(audits_);
    connect(audits_, &QPushButton::toggled, this, &RunStation::show_figures);
    column->addLayout(title);
    column->addWidget(figures_, 1);
    column->addWidget(difference_);
    column->addWidget(disagreements_, 1);
    column->addWidget(audit_, 1);
    disagreements_->hide();
    audit_->hide();
    return card;
}

QWidget* RunStation::make_why()
{
    auto* panel = new QFrame;
    panel->setObjectName("card");
    auto* column = new QVBoxLayout(panel);
    column->setContentsMargins(12, 6, 10, 6);
    at_ = new QLabel;
    at_->setWordWrap(true);
    why_ = new QLabel;
    why_->setObjectName("runWhy");
    why_->setWordWrap(true);
    why_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    column->addWidget(heading(tr("Why, at the cursor")));
    column->addWidget(at_);
    column->addWidget(why_);
    column->addStretch(1);
    auto* scroll = new QScrollArea;
    scroll->setWidget(panel);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    return scroll;
}

void RunStation::show_figures()
{
    const auto& o = session_.outcome();
    if (!o || !isVisible()) // at another station the strip waits for this thread
        return;
    const bool replay = o->is_replay(), log = session_.document().day().kind == DayKind::recorded, audit = log && audits_->isChecked();
    audits_->setVisible(log);
    audit_->setVisible(audit);
    table_title_->setText(audit ? tr("What the log shows") : replay ? o->replay->disagreements.empty() ? tr("The log and the rules agree throughout") : tr("Where the log and the rules differ: %1 times, %2 in all").arg(o->replay->disagreements.size()).arg(text(o->replay->disagree_s, Quantity::minutes, session_.units()))
                                                                    : tr("Figures"));
    figures_->setVisible(!log);
    disagreements_->setVisible(replay && !audit);
    disagreements_->refresh();
    figures_->refresh();
    replay ? difference_->hide() : difference_->refresh();
}

void RunStation::show_why()
{
    const auto& o = session_.outcome();
    if (!o || o->size() == 0 || !isVisible())
        return;
    const std::size_t i = session_.cursor_index();
    const ChannelBits distrusted = faults(o->program, o->state(i));
    QString readings;
    for (std::size_t p = 0; p < o->variant.probes.size(); ++p)
        readings += QStringLiteral("%1%2 <b>%3</b>").arg(p ? QStringLiteral(" · ") : QString(), qs(o->variant.probes[p].name), reading_text(o->variant.probes[p], o->reading(i, p), session_.units())) + ((distrusted >> p & 1U) != 0 ? tr(", distrusted") : QString());
    if (o->is_replay())
        for (const std::string& note : replay_notes(o->variant, *o->replay))
            readings += QStringLiteral("<br><span style='color:%1'>%2</span>").arg(theme().second_ink.name(), qs(note).toHtmlEscaped());
    at_->setText(readings);
    QString s;
    for (std::size_t k = 0; k < o->variant.unit.outputs.size(); ++k) {
        const WhyText w = why(o->variant, o->program, o->inputs(i), o->state(i), o->decisions(i)[k], k, session_.units());
        s += QStringLiteral("<p><b>%1</b>").arg(qs(w.headline).toHtmlEscaped());
        if (!w.margin.empty())
            s += QStringLiteral("<br>%1").arg(qs(w.margin).toHtmlEscaped());
        for (const std::string& v : w.overruled)
            s += QStringLiteral("<br><span style='color:%1'>%2</span>").arg(theme().second_ink.name(), tr("overruled: %1").arg(qs(v)).toHtmlEscaped());
        for (const std::string& v : w.why_not)
            s += QStringLiteral("<br><span style='color:%1'>%2</span>").arg(theme().second_ink.name(), qs(v).toHtmlEscaped());
        s += QStringLiteral("</p>");
    }
    why_->setText(s);
}

} // namespace vernal
