#include "drill_page.h"

#include "bench_parts.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "files/attachment.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QVBoxLayout>

#include <algorithm>

namespace vernal {
namespace {

constexpr const char* ending = ".drill.md";

} // namespace

DrillPage::DrillPage(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(10);
    row->addWidget(make_calls(), 22);
    row->addWidget(make_acts(), 46);
    row->addWidget(make_diagnosis(), 32);
    for (auto signal : {&Document::changed, &Document::view_changed})
        connect(&session.document(), signal, this, [this] {
            if (isVisible())
                collect();
        });
}

QWidget* DrillPage::make_calls()
{
    auto* c = bench_card();
    auto* in = new QVBoxLayout(c);
    in->setContentsMargins(12, 8, 8, 10);
    c->setMaximumWidth(220);
    calls_ = new QListWidget;
    calls_->setObjectName(QStringLiteral("drillCalls"));
    calls_->setAccessibleName(tr("Calls"));
    calls_->setFrameShape(QFrame::NoFrame);
    begin_ = new QPushButton(tr("Take this call"));
    begin_->setObjectName(QStringLiteral("beginDrill"));
    begin_->setProperty("look", QStringLiteral("act"));
    auto* others = new QPushButton(tr("Other calls"));
    others->setObjectName(QStringLiteral("otherDrills"));
    others->setToolTip(tr("The same faults behind other calls"));
    auto* own = new QPushButton(tr("Your own …"));
    own->setObjectName(QStringLiteral("ownDrill"));
    own->setToolTip(tr("A story from a text file; docs/drills.md has its form"));
    auto* acts = new QHBoxLayout;
    acts->addWidget(others);
    acts->addWidget(own);
    in->addWidget(heading(tr("Calls")));
    in->addWidget(remark(tr("Something is wrong with the unit of this job. Find out what, in as little time as you can.")));
    in->addWidget(calls_, 1);
    in->addWidget(begin_);
    in->addLayout(acts);
    connect(begin_, &QPushButton::clicked, this, &DrillPage::begin);
    connect(calls_, &QListWidget::itemActivated, this, &DrillPage::begin);
    connect(others, &QPushButton::clicked, this, [this] {
        ++seed_;
        of_.reset();
        collect();
    });
    connect(own, &QPushButton::clicked, this, &DrillPage::open_own);
    return c;
}

QWidget* DrillPage::make_acts()
{
    auto* c = bench_card();
    auto* in = new QVBoxLayout(c);
    in->setContentsMargins(12, 8, 12, 10);
    story_ = wrapped_label("drillStory");
    clock_ = remark();
    clock_->setObjectName(QStringLiteral("drillClock"));
    grid_ = new QGridLayout;
    grid_->setSpacing(4);
    for (std::size_t a = 0; a < drill_acts; ++a) {
        const DrillActText& t = drill_act_text(static_cast<DrillAct>(a));
        auto* b = acts_[a] = new QPushButton(tr("%1, %2 min").arg(tr(t.title)).arg(t.minutes));
        b->setObjectName(QStringLiteral("act.%1").arg(QLatin1String(t.key)));
        b->setToolTip(*t.caution ? tr(t.caution) : tr("Costs %1 minutes").arg(t.minutes));
        b->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        grid_->addWidget(b, static_cast<int>(a) / 2, static_cast<int>(a) % 2);
        connect(b, &QPushButton::clicked, this, [this, a] { look(static_cast<DrillAct>(a)); });
    }
    caution_ = wrapped_label("drillCaution");
    seen_ = new QListWidget;
    seen_->setObjectName(QStringLiteral("drillSeen"));
    seen_->setAccessibleName(tr("What was found; tick what speaks for your diagnosis"));
    seen_->setWordWrap(true);
    seen_->setFrameShape(QFrame::NoFrame);
    seen_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    in->addWidget(story_);
    in->addWidget(clock_);
    in->addLayout(grid_);
    in->addWidget(caution_);
    in->addWidget(seen_, 1);
    return c;
}

QWidget* DrillPage::make_diagnosis()
{
    auto* c = bench_card();
    auto* in = new QVBoxLayout(c);
    in->setContentsMargins(12, 8, 12, 10);
    cause_ = new QComboBox;
    cause_->setObjectName(QStringLiteral("drillCause"));
    cause_->setAccessibleName(tr("What is wrong"));
    cause_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    say_ = new QPushButton(tr("That is it"));
    say_->setObjectName(QStringLiteral("sayDiagnosis"));
    debrief_ = wrapped_label("drillDebrief");
    debrief_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    in->addWidget(heading(tr("What is it?")));
    in->addWidget(remark(tr("Choose the cause, tick at the left what speaks for it.")));
    in->addWidget(cause_);
    in->addWidget(say_);
    auto* scroll = new QScrollArea;
    scroll->setWidget(debrief_);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->viewport()->setAutoFillBackground(false);
    debrief_->setAutoFillBackground(false); // setWidget() has turned it on
    in->addWidget(scroll, 1);
    c->setMinimumWidth(210);
    connect(say_, &QPushButton::clicked, this, &DrillPage::diagnose);
    return c;
}

void DrillPage::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    collect();
}

// Those of the job first; another variant has other calls.
void DrillPage::collect()
{
    const Document& d = session_.document();
    std::vector<Drill> own;
    for (const Attachment& a : d.job().attachments)
        if (a.bytes && a.name.ends_with(ending))
            if (auto drill = read_drill(*a.bytes, a.name))
                own.push_back(std::move(*drill));
    const std::size_t was = drills_.size();
    const bool same = of_ && *of_ == d.variant();
    std::vector<Drill> all = own;
    for (Drill& drill : drills_for(d.variant(), seed_))
        all.push_back(std::move(drill));
    if (same && all == drills_ && was > 0)
        return refresh();
    of_ = d.variant();
    drills_ = std::move(all);
    faults_ = bench_faults(*of_);
    worker_.drop();
    run_.reset();
    const QSignalBlocker quiet(calls_);
    calls_->clear();
    for (const Drill& drill : drills_)
        calls_->addItem(qs(drill.title));
    if (calls_->count() > 0)
        calls_->setCurrentRow(0);
    cause_->clear();
    std::vector<std::pair<QString, QString>> causes;
    for (const BenchFault& f : faults_)
        causes.emplace_back(qs(f.name), qs(f.key));
    std::sort(causes.begin(), causes.end());
    for (const auto& [name, key] : causes)
        cause_->addItem(name, key);
    refresh();
}

void DrillPage::begin()
{
    const int i = calls_->currentRow();
    if (i < 0 || static_cast<std::size_t>(i) >= drills_.size())
        return;
    worker_.drop();
    auto made = DrillRun::make(session_.document().job(), session_.document().variant_index(), drills_[static_cast<std::size_t>(i)]);
    seen_->clear();
    debrief_->clear();
    if (made) {
        run_.emplace(std::move(*made));
    } else {
        run_.reset();
        debrief_->setText(qs(made.error().text()));
    }
    refresh();
}

void DrillPage::look(DrillAct act)
{
    if (!run_ || run_->looks_left() <= 0)
        return;
    const Evidence& e = run_->look(act, session_.units());
    auto* item = new QListWidgetItem(tr("%1: %2").arg(tr(drill_act_text(act).title), qs(e.text)));
    item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsUserCheckable | Qt::ItemIsSelectable);
    item->setCheckState(Qt::Unchecked);
    item->setData(Qt::UserRole, static_cast<int>(act));
    seen_->addItem(item);
    seen_->scrollToBottom();
    const char* caution = drill_act_text(act).caution;
    caution_->setText(*caution ? QStringLiteral("<span style='color:%1'>%2</span>").arg(theme().caution.name(), tr(caution)) : QString());
    refresh();
}

void DrillPage::refresh()
{
    const bool on = run_.has_value();
    story_->setText(on ? QStringLiteral("<b>“%1”</b>").arg(qs(run_->drill().story).toHtmlEscaped()) : tr("Take a call: the customer says what there is to say, and you look."));
    clock_->setText(on ? tr("%1 min spent, time for %2 more looks").arg(run_->minutes()).arg(run_->looks_left()) : QString());
    int place = 0; // without holes
    for (std::size_t a = 0; a < drill_acts; ++a) {
        const bool can = !on || run_->can(static_cast<DrillAct>(a));
        acts_[a]->setVisible(can);
        acts_[a]->setEnabled(on && run_->looks_left() > 0);
        grid_->removeWidget(acts_[a]);
        if (can) {
            grid_->addWidget(acts_[a], place / 2, place % 2);
            ++place;
        }
    }
    say_->setEnabled(on);
    cause_->setEnabled(on);
    begin_->setEnabled(!drills_.empty());
}

void DrillPage::diagnose()
{
    if (!run_)
        return;
    debrief_->setText(tr("What every act would have shown is being run …"));
    say_->setEnabled(false);
    worker_.run([job = session_.document().job(), at = session_.document().variant_index(), hour = run_->hour(), units = session_.units()](const std::stop_token& stop) { return drill_table(job, at, hour, stop, units); },
        [this, said = cause_->currentData().toString().toStdString()](const DrillTable& table) {
            if (run_)
                tell(run_->diagnose(said, table));
            refresh();
        });
}

void DrillPage::tell(const Debrief& d)
{
    const Theme& t = theme();
    QStringList out;
    out << QStringLiteral("<b><span style='color:%1'>%2</span></b> %3").arg((d.right ? t.accent : t.protect).name(), d.right ? tr("Right.") : tr("No."), tr("It was: %1. You took %2 min.").arg(qs(d.was).toHtmlEscaped()).arg(d.minutes));
    QStringList good, idle;
    for (int i = 0; i < seen_->count(); ++i) {
        const QListWidgetItem* item = seen_->item(i);
        if (item->checkState() != Qt::Checked)
            continue;
        const auto act = static_cast<DrillAct>(item->data(Qt::UserRole).toInt());
        const bool told = std::any_of(d.told.begin(), d.told.end(), [act](const Evidence& e) { return e.act == act; });
        (told ? good : idle) << tr(drill_act_text(act).title).toLower();
    }
    if (!good.isEmpty())
        out << tr("Your reasons that do tell: %1.").arg(good.join(QStringLiteral(", ")));
    if (!idle.isEmpty())
        out << tr("These show the same on a sound unit: %1.").arg(idle.join(QStringLiteral(", ")));
    if (good.isEmpty() && idle.isEmpty())
        out << tr("You ticked no reason.");
    QStringList told;
    for (const Evidence& e : d.told)
        told << tr("%1: %2").arg(tr(drill_act_text(e.act).title), qs(e.text)).toHtmlEscaped();
    out << tr("<b>What was there to be seen</b><br>%1").arg(told.isEmpty() ? tr("nothing that one of these acts shows") : told.join(QStringLiteral("<br>")));
    QStringList way;
    for (const DrillAct a : d.shortest)
        way << tr(drill_act_text(a).title).toLower();
    if (!way.isEmpty())
        out << tr("<b>The shortest way</b>, %1 min: %2.").arg(d.shortest_minutes).arg(way.join(tr(", then ")));
    QStringList like;
    for (const std::string& l : d.like_it)
        like << qs(l).toHtmlEscaped();
    if (!like.isEmpty())
        out << tr("Not told apart by any of these acts: %1.").arg(like.join(QStringLiteral(", ")));
    if (!run_->drill().afterwards.empty())
        out << qs(run_->drill().afterwards).toHtmlEscaped();
    debrief_->setText(out.join(QStringLiteral("<br><br>")));
}

std::optional<Error> DrillPage::add_drill(const QString& file, const std::string& text)
{
    const auto d = read_drill(text, file.toStdString());
    if (!d)
        return d.error();
    if (std::none_of(faults_.begin(), faults_.end(), [&](const BenchFault& f) { return f.key == d->fault; })) {
        std::string all;
        for (const BenchFault& f : faults_)
            all += (all.empty() ? "" : ", ") + f.key;
        return Error{"this unit can have no fault “" + d->fault + "”", file.toStdString(), "One of " + all};
    }
    const Attachment a = make_attachment(d->name + ending, write_drill(*d));
    session_.document().edit(tr("Drill %1").arg(qs(d->title)), [&](Job& j) { keep_attachment(j, a); });
    collect();
    return {};
}

void DrillPage::open_own()
{
    if (const auto error = take_own_file(this, tr("A story of your own"), tr("Drills (*.md);;All files (*)"), [this](const QString& name, const std::string& text) { return add_drill(name, text); }))
        debrief_->setText(in_colour(theme().protect, qs(error->text())));
}

} // namespace vernal
