#include "procedure_panel.h"

#include "bench_parts.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QStackedWidget>
#include <QVBoxLayout>

#include <cmath>

namespace vernal {
namespace {

QString sign_of(StepVerdict v, const QString& open)
{
    switch (v) {
    case StepVerdict::passed: return QStringLiteral("✓");
    case StepVerdict::failed: return QStringLiteral("■");
    case StepVerdict::not_possible: return QStringLiteral("–");
    case StepVerdict::open: break;
    }
    return open;
}

QColor colour_of(StepVerdict v)
{
    const Theme& t = theme();
    return v == StepVerdict::failed ? t.protect : v == StepVerdict::passed ? t.accent
                                                                           : t.second_ink;
}

QString words_of(StepVerdict v)
{
    return v == StepVerdict::failed ? QObject::tr("failed") : v == StepVerdict::passed     ? QObject::tr("passed")
                                                          : v == StepVerdict::not_possible ? QObject::tr("not possible")
                                                                                           : QObject::tr("not ended");
}

void put(QLabel* l, const QString& words)
{
    if (l->text() != words)
        l->setText(words);
}

} // namespace

ProcedurePanel::ProcedurePanel(Session& session, BenchModel& model, QWidget* parent) : QFrame(parent), session_(session), model_(model)
{
    setObjectName(QStringLiteral("card"));
    title_ = heading(tr("Tests"));
    title_->setWordWrap(true);
    count_ = remark();
    count_->setWordWrap(false);
    auto* head = new QHBoxLayout;
    head->addWidget(title_, 1);
    head->addWidget(count_);
    about_ = remark();
    caution_ = wrapped_label("benchCaution");
    now_ = wrapped_label("benchNow");
    verdict_ = wrapped_label("benchVerdict");
    list_ = new QListWidget;
    list_->setObjectName(QStringLiteral("procedure"));
    list_->setAccessibleName(tr("Procedures for this unit"));
    list_->setFrameShape(QFrame::NoFrame);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list_->setTextElideMode(Qt::ElideRight);
    auto* steps = new QWidget;
    steps_ = new QVBoxLayout(steps);
    steps_->setContentsMargins(0, 4, 6, 4);
    steps_->setSpacing(6);
    auto* scroll = new QScrollArea;
    scroll->setWidget(steps);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    for (QWidget* w : {static_cast<QWidget*>(scroll->viewport()), steps})
        w->setAutoFillBackground(false);
    pages_ = new QStackedWidget;
    pages_->addWidget(list_);
    pages_->addWidget(scroll);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(12, 8, 8, 10);
    box->setSpacing(6);
    box->addLayout(head);
    box->addWidget(pages_, 1);
    for (QWidget* w : {static_cast<QWidget*>(about_), static_cast<QWidget*>(caution_), static_cast<QWidget*>(now_), make_asked(), static_cast<QWidget*>(verdict_)})
        box->addWidget(w);
    box->addLayout(make_acts());
    connect(list_, &QListWidget::currentRowChanged, this, &ProcedurePanel::refresh);
    connect(list_, &QListWidget::itemActivated, begin_, &QPushButton::click);
    connect(&model, &BenchModel::remade, this, &ProcedurePanel::offer);
    connect(&model, &BenchModel::ticked, this, &ProcedurePanel::refresh);
    connect(&session, &Session::units_changed, this, &ProcedurePanel::refresh);
    connect(&session.document(), &Document::changed, this, &ProcedurePanel::show_list);
}

QWidget* ProcedurePanel::make_asked()
{
    asks_ = wrapped_label("benchAsks");
    typed_ = new QLineEdit;
    typed_->setObjectName(QStringLiteral("typedReading"));
    typed_->setAccessibleName(tr("What you read"));
    take_ = bench_button(tr("Take it"), "takeReading");
    as_shown_ = bench_button({}, "takeShown");
    as_shown_->setToolTip(tr("What an instrument at the rig shows"));
    yes_ = bench_button(tr("Yes"), "answerYes");
    no_ = bench_button(tr("No"), "answerNo");
    none_ = bench_button(tr("No instrument"), "noInstrument");
    none_->setToolTip(tr("It is left open; what is judged by it is not"));
    auto* row = new QHBoxLayout;
    for (QWidget* w : {static_cast<QWidget*>(typed_), static_cast<QWidget*>(take_), static_cast<QWidget*>(as_shown_), static_cast<QWidget*>(yes_), static_cast<QWidget*>(no_), static_cast<QWidget*>(none_)})
        row->addWidget(w);
    asked_ = new QWidget;
    auto* in = new QVBoxLayout(asked_);
    in->setContentsMargins(0, 0, 0, 0);
    in->addWidget(asks_);
    in->addLayout(row);
    const auto take = [this] {
        QString plain = typed_->text().trimmed();
        plain.replace(QLatin1Char(','), QLatin1Char('.'));
        bool good = false;
        const double x = plain.toDouble(&good);
        if (!good || !std::isfinite(x) || (asking_ && asking_->captured == Captured::bucket && x <= 0)) {
            put(asks_, tr("“%1” is no number: type what the instrument shows, without its unit.").arg(typed_->text()));
            return typed_->setFocus();
        }
        typed_->clear();
        model_.answer(from_typed(asking_ ? asking_->captured : Captured::watt, x, session_.units()));
    };
    connect(take_, &QPushButton::clicked, this, take);
    connect(typed_, &QLineEdit::returnPressed, this, take);
    connect(as_shown_, &QPushButton::clicked, this, [this] { model_.answer(model_.run() ? model_.run()->shown() : NAN); });
    connect(yes_, &QPushButton::clicked, this, [this] { model_.answer(1); });
    connect(no_, &QPushButton::clicked, this, [this] { model_.answer(0); });
    connect(none_, &QPushButton::clicked, this, [this] { model_.answer(NAN); });
    return asked_;
}

QLayout* ProcedurePanel::make_acts()
{
    begin_ = bench_button(tr("Begin"), "beginProcedure");
    begin_->setProperty("look", QStringLiteral("act"));
    resume_ = bench_button(tr("Resume"), "resumeProcedure");
    leave_ = bench_button(tr("Leave it"), "leaveProcedure");
    leave_->setToolTip(tr("Every switch goes back to AUTO, no bypass stays closed; it can be resumed"));
    repeat_ = bench_button(tr("Step before"), "repeatStep");
    repeat_->setToolTip(tr("Does the step before this one once more"));
    own_ = bench_button(tr("Your own …"), "ownProcedure");
    own_->setToolTip(tr("A procedure from a text file; docs/procedures.md has the words it understands"));
    knob_ = bench_button(tr("Take into the knob's table"), "takeKnob");
    by_hand_ = new QCheckBox(tr("readings typed by hand"));
    by_hand_->setObjectName(QStringLiteral("readByHand"));
    by_hand_->setToolTip(tr("A person reads flow, gauge, current and answers; else the rig's own instruments are taken"));
    at_unit_ = new QCheckBox(tr("at the unit on the wire"));
    at_unit_->setObjectName(QStringLiteral("readAtUnit"));
    at_unit_->setToolTip(tr("The real unit is read, by the clock on the wall; you do each act and say when it is done"));
    reason_ = new QLineEdit;
    reason_->setObjectName(QStringLiteral("notPossibleReason"));
    reason_->setPlaceholderText(tr("why it is not possible here"));
    reason_->setAccessibleName(tr("Why this step is not possible"));
    skip_ = bench_button(tr("Not possible"), "notPossible");
    auto* acts = new QHBoxLayout;
    for (QWidget* w : {begin_, resume_, leave_, repeat_})
        acts->addWidget(w);
    acts->addStretch(1);
    acts->addWidget(own_);
    auto* skips = new QHBoxLayout;
    skips->addWidget(reason_, 1);
    skips->addWidget(skip_);
    auto* all = new QVBoxLayout;
    all->addWidget(knob_);
    all->addWidget(at_unit_);
    all->addWidget(by_hand_);
    all->addLayout(acts);
    all->addLayout(skips);
    connect(begin_, &QPushButton::clicked, this, [this] {
        left_.clear();
        if (const Procedure* p = chosen())
            model_.begin(*p);
    });
    connect(resume_, &QPushButton::clicked, this, [this] {
        if (const Procedure* p = chosen())
            model_.resume(*p);
    });
    connect(leave_, &QPushButton::clicked, &model_, &BenchModel::leave);
    connect(repeat_, &QPushButton::clicked, &model_, &BenchModel::repeat);
    connect(own_, &QPushButton::clicked, this, &ProcedurePanel::open_own);
    connect(knob_, &QPushButton::clicked, this, &ProcedurePanel::take_knob);
    connect(by_hand_, &QCheckBox::clicked, &model_, &BenchModel::read_by_hand);
    connect(at_unit_, &QCheckBox::clicked, this, [this](bool on) {
        model_.read_unit(on);
        refresh();
    });
    connect(&model_, &BenchModel::left_alone, this, [this](const QString& why) {
        left_ = why;
        refresh();
    });
    const auto skip = [this] {
        if (reason_->text().trimmed().isEmpty())
            return reason_->setFocus();
        model_.not_possible(reason_->text().trimmed());
        reason_->clear();
    };
    connect(skip_, &QPushButton::clicked, this, skip);
    connect(reason_, &QLineEdit::returnPressed, this, skip);
    return all;
}

const Procedure* ProcedurePanel::chosen() const
{
    if (model_.run())
        return model_.procedure();
    const int i = list_->currentRow();
    return i >= 0 && static_cast<std::size_t>(i) < model_.procedures().size() ? model_.procedures()[static_cast<std::size_t>(i)] : nullptr;
}

void ProcedurePanel::open_own()
{
    const auto error = take_own_file(this, tr("A procedure of your own"), tr("Procedures (*.md);;All files (*)"), [this](const QString& name, const std::string& text) { return model_.add_procedure(name, text); });
    verdict_->setVisible(error.has_value());
    if (error)
        put(verdict_, in_colour(theme().protect, qs(error->text())));
}

void ProcedurePanel::take_knob()
{
    if (!model_.run())
        return;
    const auto found = found_knob(model_.run()->result(), session_.document().variant().unit.knob);
    if (found)
        session_.document().edit_variant(tr("Knob as found"), [&](Variant& v) { v.unit.knob = *found; });
}

void ProcedurePanel::offer()
{
    {
        const QSignalBlocker quiet(list_);
        const int was = list_->currentRow();
        const QString called = was >= 0 ? list_->item(was)->data(Qt::UserRole).toString() : QString();
        list_->clear();
        for (const Procedure* p : model_.procedures()) {
            auto* item = new QListWidgetItem;
            item->setData(Qt::UserRole, qs(p->name));
            item->setSizeHint({0, 30});
            list_->addItem(item);
            if (qs(p->name) == called)
                list_->setCurrentItem(item);
        }
        if (list_->currentRow() < 0 && list_->count() > 0)
            list_->setCurrentRow(0);
    }
    shown_ = nullptr;
    show_list();
    refresh();
}

// What each last said in this job.
void ProcedurePanel::show_list()
{
    if (!isVisible() && list_->count() == 0)
        return;
    for (int i = 0; i < list_->count() && static_cast<std::size_t>(i) < model_.procedures().size(); ++i) {
        const Procedure& p = *model_.procedures()[static_cast<std::size_t>(i)];
        const BenchRecord* last = model_.last_of(p);
        const bool left = model_.can_resume(p);
        QListWidgetItem* item = list_->item(i);
        const QString words = QStringLiteral("%1  %2").arg(left ? QStringLiteral("…") : last ? sign_of(last->verdict, QStringLiteral(" "))
                                                                                             : QStringLiteral("·"),
            qs(p.title));
        if (item->text() != words)
            item->setText(words);
        item->setForeground(last && !left ? colour_of(last->verdict) : theme().ink);
        item->setToolTip(left ? tr("left before its end") : last ? tr("%1, %2").arg(words_of(last->verdict), qs(last->when).replace(QLatin1Char('T'), QLatin1Char(' ')))
                                                                 : tr("not done yet"));
    }
}

void ProcedurePanel::make_steps()
{
    clear_layout(steps_);
    lines_.clear();
    shown_ = chosen();
    const std::size_t steps = model_.run() ? model_.run()->result().steps.size() : 0;
    for (std::size_t i = 0; i < steps; ++i) {
        lines_.push_back(wrapped_label("benchStep"));
        steps_->addWidget(lines_.back());
    }
    steps_->addStretch(1);
}

void ProcedurePanel::show_asked()
{
    const ProcedureRun* run = model_.run();
    const Line* line = run ? run->asked() : nullptr;
    asked_->setVisible(line != nullptr);
    if (!line) {
        asking_ = nullptr;
        return;
    }
    const bool act = run->is_act(*line), question = act || line->verb == Act::ask || line->verb == Act::await;
    const double shown = run->shown();
    as_shown_->setVisible(!question && std::isfinite(shown));
    if (!question && std::isfinite(shown))
        as_shown_->setText(tr("the rig shows %1").arg(line->captured == Captured::bucket ? tr("%1 s").arg(shown, 0, 'f', 0) : qs(captured_text(line->captured, shown, session_.units()))));
    if (line == asking_)
        return;
    asking_ = line;
    for (QWidget* w : {static_cast<QWidget*>(typed_), static_cast<QWidget*>(take_)})
        w->setVisible(!question);
    yes_->setVisible(question);
    yes_->setText(act ? tr("Done") : tr("Yes"));
    no_->setVisible(question && !act);
    none_->setVisible(!question && run->is_on_unit());
    typed_->clear();
    put(asks_, words_for(*run, *line));
    if (act)
        yes_->setFocus();
}

QString ProcedurePanel::words_for(const ProcedureRun& run, const Line& line) const
{
    const Units& units = session_.units();
    if (run.is_act(line))
        return QStringLiteral("<b>%1</b>").arg(qs(run.act_text(line, units)).toHtmlEscaped());
    if (line.verb == Act::await)
        return tr("<b>Is it so?</b> Awaited %1").arg(qs(run.waits_for()).toHtmlEscaped());
    if (line.verb == Act::ask)
        return QStringLiteral("<b>%1</b>").arg(line.fact == Fact::none ? qs(line.name).toHtmlEscaped() : tr("Is it so: %1?").arg(QString::fromUtf8(fact_texts[static_cast<std::size_t>(line.fact)])));
    if (line.captured == Captured::bucket)
        return tr("<b>Seconds</b> until a bucket of %1 is full").arg(text(line.litres / 1000, Quantity::volume, units));
    const std::string unit = typed_unit(line.captured, units);
    return tr("<b>%1</b>, in %2").arg(qs(line.name).toHtmlEscaped(), unit.empty() ? tr("plain numbers") : qs(unit));
}

void ProcedurePanel::refresh()
{
    const Theme& t = theme();
    const ProcedureRun* run = model_.run();
    const Procedure* p = chosen();
    const std::size_t steps = run ? run->result().steps.size() : p ? p->steps.size()
                                                                   : 0;
    pages_->setCurrentIndex(run ? 1 : 0);
    if (shown_ != p || (run && lines_.size() != steps))
        make_steps();
    put(title_, run && p ? qs(p->title) : tr("Tests"));
    put(count_, run ? tr("%1 of %2").arg(std::min(run->step() + 1, steps)).arg(steps) : p ? tr("%n steps", nullptr, static_cast<int>(steps))
                                                                                          : QString());
    about_->setVisible(!run);
    if (!run) {
        const BenchRecord* last = p ? model_.last_of(*p) : nullptr;
        put(about_, !p ? tr("No procedure fits this unit.") : qs(p->text) + (last ? tr("<br>Last: %1, %2.").arg(words_of(last->verdict), qs(last->when).replace(QLatin1Char('T'), QLatin1Char(' '))) : QString()));
        show_list();
    }
    for (std::size_t i = 0; run && i < lines_.size(); ++i) {
        const StepResult& r = run->result().steps[i];
        const bool now = i == run->step();
        QString words = QStringLiteral("<span style='color:%1'>%2</span>&nbsp;&nbsp;%3%4%5").arg(colour_of(r.verdict).name(), sign_of(r.verdict, now ? QStringLiteral("▸") : QString::number(i + 1)), now ? QStringLiteral("<b>") : QString(), qs(r.title).toHtmlEscaped() + (r.of.empty() ? QString() : QStringLiteral(", ") + qs(r.of)), now ? QStringLiteral("</b>") : QString());
        if (const QString said = qs(said_text(r, session_.units())); !said.isEmpty())
            words += QStringLiteral("<br><span style='color:%1'>%2</span>").arg(t.second_ink.name(), said.toHtmlEscaped());
        put(lines_[i], words);
    }
    const bool going = run && run->step() < run->result().steps.size();
    const ProcedureStep* step = run ? run->step_under_way() : nullptr;
    caution_->setVisible(step && !step->caution.empty());
    if (step)
        put(caution_, QStringLiteral("<span style='color:%1'>%2</span>").arg(t.caution.name(), qs(step->caution).toHtmlEscaped()));
    now_->setVisible(going);
    if (going) {
        const QString waits = qs(run->waits_for());
        put(now_, qs(step ? step->text : std::string()).toHtmlEscaped() + (waits.isEmpty() ? QString() : tr("<br>Waiting %1.").arg(waits.toHtmlEscaped())));
    }
    show_asked();
    verdict_->setVisible(run && !going);
    if (run && !going) {
        const StepVerdict v = run->result().verdict();
        const QString kept = model_.fault() >= 0 && !run->is_on_unit() ? tr(" Not kept: a fault is put in.") : tr(" Kept in the job.");
        put(verdict_, QStringLiteral("<b><span style='color:%1'>%2</span></b>%3").arg(colour_of(v).name(), v == StepVerdict::failed ? tr("Failed.") : v == StepVerdict::passed ? tr("Passed.")
                                                                                                                                                                               : tr("Not possible here."),
                          kept));
    }
    at_unit_->setVisible(!run && model_.can_read_unit());
    if (run && run->is_on_unit() && going)
        put(count_, tr("at the unit, %1 of %2").arg(std::min(run->step() + 1, steps)).arg(steps));
    if (!run && !left_.isEmpty()) {
        verdict_->setVisible(true);
        put(verdict_, in_colour(theme().protect, left_));
    }
    begin_->setText(run ? tr("Begin anew") : tr("Begin"));
    begin_->setEnabled(p != nullptr);
    resume_->setVisible(!run && p && model_.can_resume(*p));
    leave_->setVisible(run != nullptr);
    leave_->setText(going ? tr("Leave it") : tr("To the list"));
    repeat_->setVisible(run && run->step() > 0);
    own_->setVisible(!run);
    skip_->setVisible(going);
    reason_->setVisible(going);
    knob_->setVisible(run && !going && found_knob(run->result(), session_.document().variant().unit.knob).has_value());
    const bool reads = p && std::any_of(p->steps.begin(), p->steps.end(), [](const ProcedureStep& s) { return std::any_of(s.lines.begin(), s.lines.end(), [](const Line& l) { return l.verb == Act::read || l.verb == Act::ask; }); });
    by_hand_->setVisible(reads && (!run || going) && !(run ? run->is_on_unit() : model_.at_unit()));
}

} // namespace vernal
