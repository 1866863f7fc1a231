#include "seasons_panel.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "core/visit/over_the_seasons.h"
#include "season_chart.h"
#include "visit_edits.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <utility>

namespace vernal {
namespace {

constexpr int row_px = 32, most_rows = 7;

} // namespace

SeasonsPanel::SeasonsPanel(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    setObjectName(QStringLiteral("seasonsPanel"));
    seasons_ = new QVBoxLayout;
    due_list_ = new QListWidget;
    due_list_->setObjectName(QStringLiteral("dueList"));
    due_list_->setAccessibleName(tr("Due"));
    due_list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    due_list_->setTextElideMode(Qt::ElideRight);
    due_line_ = new QLineEdit;
    due_line_->setObjectName(QStringLiteral("dueLine"));
    due_line_->setAccessibleName(tr("When it comes due"));
    due_line_->setPlaceholderText(tr("Choose an item to change when it is due, or add one"));
    due_line_->setToolTip(tr("TITLE | every 12 months | every 4000 h of P1 | every 20000 starts of P1 | after WORDS | last 2025-05-01 | by the licensed person | not here"));
    due_said_ = remark();
    due_said_->hide();
    connect(due_list_, &QListWidget::currentRowChanged, this, &SeasonsPanel::show_due_line);
    connect(due_line_, &QLineEdit::returnPressed, this, &SeasonsPanel::take_due_line);
    nothing_due_ = remark(tr("Counts from the first visit on."));
    connect(due_list_, &QListWidget::itemActivated, this, [this] {
        const DueNow d = due_[static_cast<std::size_t>(due_list_->currentRow())];
        d.visit.empty() ? emit done_wanted(d.title, d.id) : emit visit_wanted(d.visit);
    });
    costs_ = remark();
    auto* calendar = new QPushButton(tr("To the calendar …"));
    calendar->setObjectName(QStringLiteral("dueCalendar"));
    connect(calendar, &QPushButton::clicked, this, &SeasonsPanel::calendar_wanted);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(12, 8, 12, 8);
    box->addWidget(heading(tr("Due")));
    box->addWidget(due_list_);
    box->addWidget(nothing_due_);
    box->addWidget(due_line_);
    box->addWidget(due_said_);
    box->addWidget(calendar, 0, Qt::AlignLeft);
    box->addSpacing(10);
    box->addWidget(heading(tr("Over the seasons")));
    box->addLayout(seasons_);
    box->addWidget(costs_);
    box->addStretch(1);
    const auto again = [this] {
        stale_ = true;
        refresh();
    };
    connect(&session.document(), &Document::changed, this, &SeasonsPanel::refresh);
    connect(&session, &Session::units_changed, this, again);
    connect(&session, &Session::outcome_changed, this, [this, again] {
        if (std::exchange(glare_, theme().glare) != theme().glare)
            again();
    });
}

void SeasonsPanel::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    refresh();
}

void SeasonsPanel::refresh()
{
    const Logbook& now = session_.document().job().logbook;
    if (!isVisible() || (!stale_ && now == shown_))
        return;
    shown_ = now;
    stale_ = false;
    show_due();
    show_seasons();
    show_costs();
}

// Beside the window: the job's logs are looked through for it.
void SeasonsPanel::show_seasons()
{
    worker_.run([job = session_.document().job(), units = session_.units()](const std::stop_token&) { return over_the_seasons(job, units); },
        [this](const std::vector<SeasonCourse>& courses) { lay_out(courses); });
}

void SeasonsPanel::lay_out(const std::vector<SeasonCourse>& courses)
{
    clear_layout(seasons_);
    if (courses.empty())
        seasons_->addWidget(remark(tr("After two visits that read the same, its course stands here; from five on it is told in words, with how sure that is.")));
    for (const SeasonCourse& c : courses) {
        auto* head = new QHBoxLayout;
        auto* title = new QLabel(QStringLiteral("<b>%1</b>").arg(qs(c.title).toHtmlEscaped()));
        title->setWordWrap(true);
        head->addWidget(title, 1);
        head->addWidget(remark(qs(c.unit)));
        seasons_->addLayout(head);
        seasons_->addWidget(new SeasonChart(c));
        auto* says = remark((c.tone == Tone::caution ? QStringLiteral("▲ ") : QString()) + qs(c.says));
        says->setObjectName(QStringLiteral("season.") + QString::fromUtf8(c.key));
        if (c.tone == Tone::caution) {
            QPalette p = says->palette();
            p.setColor(QPalette::WindowText, theme().caution);
            says->setPalette(p);
        }
        seasons_->addWidget(says);
    }
    emit told();
}

void SeasonsPanel::show_due()
{
    const std::string today = today_date();
    due_ = session_.document().job().logbook.visits.empty() ? std::vector<DueNow>() : due_list(session_.document().job(), *date_of(today));
    const QSignalBlocker quiet(due_list_);
    due_list_->clear();
    for (const DueNow& d : due_) {
        const std::string date = date_text(d.date);
        auto* item = new QListWidgetItem(QStringLiteral("%1  %2%3").arg(qs(date_words(date)), date < today ? QStringLiteral("▲ ") : QString(), qs(d.title)), due_list_);
        item->setToolTip(qs(d.title + ": " + d.why) + (d.licensed ? tr(" · by the licensed person") : QString()) + tr(" · Enter or a double click puts it into the open visit as done"));
        item->setSizeHint({0, row_px});
        if (date < today)
            item->setForeground(theme().caution);
    }
    due_list_->setFixedHeight(std::clamp(due_list_->count(), 1, most_rows) * row_px + 4);
    due_list_->setVisible(!due_.empty());
    nothing_due_->setVisible(due_.empty());
}

void SeasonsPanel::show_due_line(int row)
{
    edited_due_.reset();
    if (row < 0 || static_cast<std::size_t>(row) >= due_.size() || due_[static_cast<std::size_t>(row)].id.empty())
        return due_line_->clear();
    for (const DueItem& d : due_items(session_.document().job()))
        if (d.id == due_[static_cast<std::size_t>(row)].id) {
            edited_due_ = d;
            due_line_->setText(qs(due_line(d)));
            due_line_->setCursorPosition(0);
        }
}

void SeasonsPanel::take_due_line()
{
    auto item = due_in_line(due_line_->text().toStdString());
    due_said_->setVisible(!item);
    if (!item)
        return due_said_->setText(QStringLiteral("▲ ") + qs(item.error().text()));
    if (edited_due_ && edited_due_->title == item->title) {
        item->id = edited_due_->id;
        item->kind = edited_due_->kind;
    }
    due_line_->clear();
    session_.document().edit(tr("When it is due"), [&](Job& j) { change_due(j, *item); });
}

void SeasonsPanel::show_costs()
{
    QStringList lines;
    for (const std::string& l : life_lines(session_.document().job()))
        lines << qs(l);
    costs_->setText(lines.join(QLatin1Char('\n')));
    costs_->setVisible(!lines.isEmpty());
}

} // namespace vernal
