#include "run_station.h"

#include "app/shell/theme.h"
#include "app/widgets/cursor_clock.h"
#include "app/widgets/form.h"
#include "core/wording/figure_table.h"
#include "core/wording/why.h"

#include <QApplication>
#include <QClipboard>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include <cmath>

namespace vernal {

RunStation::RunStation(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    auto* head = new QHBoxLayout;
    head->addWidget(heading(tr("Run"), "h1"));
    auto* hint = new QLabel(tr("wheel zooms, click asks why"));
    hint->setObjectName("second");
    head->addWidget(hint, 1);
    head->addWidget(new CursorClock(session));
    auto* whole = new QPushButton(tr("Whole day"));
    whole->setObjectName("quiet");
    auto* copy = new QPushButton(tr("Copy the picture"));
    copy->setObjectName("quiet");
    head->addWidget(whole);
    head->addWidget(copy);
    chart_ = new DayChart(session, true);
    auto* left = new QVBoxLayout;
    left->addLayout(head);
    left->addWidget(chart_, 1);
    table_ = new QTableWidget;
    table_->setObjectName("figures");
    table_->verticalHeader()->hide();
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setShowGrid(false);
    table_->setFocusPolicy(Qt::StrongFocus);
    why_ = new QLabel;
    why_->setObjectName("runWhy");
    why_->setWordWrap(true);
    at_ = new QLabel;
    at_->setWordWrap(true);
    auto* right = new QVBoxLayout;
    table_title_ = heading(tr("Figures"));
    right->addWidget(table_title_);
    right->addWidget(table_, 1);
    right->addWidget(heading(tr("Readings at the cursor")));
    right->addWidget(at_);
    right->addWidget(why_);
    auto* panel = new QWidget;
    panel->setLayout(right);
    panel->setFixedWidth(346);
    auto* box = new QHBoxLayout(this);
    box->setContentsMargins(14, 10, 10, 8);
    box->setSpacing(10);
    box->addLayout(left, 1);
    box->addWidget(panel);
    connect(whole, &QPushButton::clicked, this, [this] {
        if (const auto& o = session_.outcome(); o && o->size())
            chart_->axisRect()->axis(QCPAxis::atBottom)->setRange(o->time_s(0) + o->start_s(), o->time_s(o->size() - 1) + o->start_s());
        chart_->replot();
    });
    connect(copy, &QPushButton::clicked, this, [this] { QApplication::clipboard()->setPixmap(chart_->grab()); });
    for (auto signal : {&Session::outcome_changed, &Session::verdict_changed, &Session::units_changed})
        connect(&session, signal, this, &RunStation::show_figures);
    for (auto signal : {&Session::outcome_changed, &Session::cursor_changed, &Session::units_changed})
        connect(&session, signal, this, &RunStation::show_why);
}

void RunStation::show_figures()
{
    const auto& o = session_.outcome();
    if (!o)
        return;
    table_->clear();
    table_title_->setText(o->is_replay() ? tr("Where the log and the rules differ") : tr("Figures"));
    if (o->is_replay())
        return show_disagreements(*o);
    const Verdict& verdict = session_.verdict();
    const bool two = verdict.baseline_figures.has_value();
    table_->setColumnCount(two ? 3 : 2);
    QStringList heads{tr("figure"), qs(o->variant.name)};
    if (two)
        heads << qs(verdict.baseline_name);
    table_->setHorizontalHeaderLabels(heads);
    table_->setRowCount(0);
    for (const Figure* row : figure_rows()) {
        const QString mine = o->figures() ? qs(figure_text(*row, *o->figures(), session_.units())) : QString(), other = two ? qs(figure_text(*row, *verdict.baseline_figures, session_.units())) : QString();
        if (mine.isEmpty() && other.isEmpty())
            continue;
        const int i = table_->rowCount();
        table_->insertRow(i);
        table_->setItem(i, 0, new QTableWidgetItem(tr(row->label)));
        for (int c = 1; c < table_->columnCount(); ++c) {
            auto* item = new QTableWidgetItem(c == 1 ? mine : other);
            item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            item->setFont(text_font(13));
            table_->setItem(i, c, item);
        }
    }
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->horizontalHeader()->setStretchLastSection(true);
}

void RunStation::show_disagreements(const Outcome& o)
{
    table_->setColumnCount(3);
    table_->setHorizontalHeaderLabels({tr("from – to"), tr("log, rules"), tr("decided by")});
    table_->setRowCount(static_cast<int>(o.replay->disagreements.size()));
    for (int i = 0; i < table_->rowCount(); ++i) {
        const Disagreement& d = o.replay->disagreements[static_cast<std::size_t>(i)];
        table_->setItem(i, 0, new QTableWidgetItem(QStringLiteral("%1–%2").arg(qs(clock_text(d.from_s + o.start_s())), qs(clock_text(d.to_s + o.start_s())))));
        table_->setItem(i, 1, new QTableWidgetItem(d.recorded_on ? tr("on, off") : tr("off, on")));
        table_->setItem(i, 2, new QTableWidgetItem(qs(decider_name(o.variant.unit, d.priority, d.rule))));
    }
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
}

void RunStation::show_why()
{
    const auto& o = session_.outcome();
    if (!o || o->size() == 0)
        return;
    const std::size_t i = session_.cursor_index();
    const ChannelBits distrusted = faults(o->program, o->state(i));
    QString readings;
    for (std::size_t p = 0; p < o->variant.probes.size(); ++p)
        readings += QStringLiteral("%1%2 %3").arg(p ? QStringLiteral("<br>") : QString(), qs(o->variant.probes[p].name), text(o->reading_c(i, p), Quantity::temperature, session_.units())) + ((distrusted >> p & 1U) != 0 ? tr(", distrusted") : QString());
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
