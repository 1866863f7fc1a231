#include "procedure_panel.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QVBoxLayout>

namespace vernal {

ProcedurePanel::ProcedurePanel(Session& session, BenchModel& model, QWidget* parent) : QFrame(parent), session_(session), model_(model)
{
    setObjectName(QStringLiteral("card"));
    which_ = new QComboBox;
    which_->setObjectName(QStringLiteral("procedure"));
    which_->setAccessibleName(tr("Procedure"));
    count_ = remark();
    auto* head = new QHBoxLayout;
    head->addWidget(which_, 1);
    head->addWidget(count_);
    about_ = remark();
    caution_ = new QLabel;
    caution_->setWordWrap(true);
    caution_->setObjectName(QStringLiteral("benchCaution"));
    auto* list = new QWidget;
    steps_ = new QVBoxLayout(list);
    steps_->setContentsMargins(0, 4, 6, 4);
    steps_->setSpacing(6);
    auto* scroll = new QScrollArea;
    scroll->setWidget(list);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    for (QWidget* w : {static_cast<QWidget*>(scroll->viewport()), list})
        w->setAutoFillBackground(false);
    now_ = new QLabel;
    now_->setObjectName(QStringLiteral("benchNow"));
    now_->setWordWrap(true);
    verdict_ = new QLabel;
    verdict_->setObjectName(QStringLiteral("benchVerdict"));
    verdict_->setWordWrap(true);
    begin_ = new QPushButton(tr("Begin"));
    begin_->setObjectName(QStringLiteral("beginProcedure"));
    begin_->setProperty("look", QStringLiteral("act"));
    leave_ = new QPushButton(tr("Leave it"));
    leave_->setObjectName(QStringLiteral("leaveProcedure"));
    leave_->setToolTip(tr("Every switch goes back to AUTO, no bypass stays closed"));
    reason_ = new QLineEdit;
    reason_->setObjectName(QStringLiteral("notPossibleReason"));
    reason_->setPlaceholderText(tr("why it is not possible here"));
    reason_->setAccessibleName(tr("Why this step is not possible"));
    skip_ = new QPushButton(tr("Not possible"));
    skip_->setObjectName(QStringLiteral("notPossible"));
    auto* acts = new QHBoxLayout;
    acts->addWidget(begin_);
    acts->addWidget(leave_);
    acts->addStretch(1);
    auto* skips = new QHBoxLayout;
    skips->addWidget(reason_, 1);
    skips->addWidget(skip_);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(12, 8, 8, 10);
    box->setSpacing(6);
    box->addLayout(head);
    box->addWidget(about_);
    box->addWidget(scroll, 1);
    box->addWidget(caution_);
    box->addWidget(now_);
    box->addWidget(verdict_);
    box->addLayout(acts);
    box->addLayout(skips);
    connect(which_, &QComboBox::activated, this, [this] {
        if (model_.run())
            model_.leave();
        refresh();
    });
    connect(begin_, &QPushButton::clicked, this, [this] {
        if (const Procedure* p = chosen())
            model_.begin(*p);
    });
    connect(leave_, &QPushButton::clicked, &model, &BenchModel::leave);
    const auto skip = [this] {
        if (reason_->text().trimmed().isEmpty())
            return reason_->setFocus();
        model_.not_possible(reason_->text().trimmed());
        reason_->clear();
    };
    connect(skip_, &QPushButton::clicked, this, skip);
    connect(reason_, &QLineEdit::returnPressed, this, skip);
    connect(&model, &BenchModel::remade, this, &ProcedurePanel::offer);
    connect(&model, &BenchModel::ticked, this, &ProcedurePanel::refresh);
    connect(&session, &Session::units_changed, this, &ProcedurePanel::refresh);
}

const Procedure* ProcedurePanel::chosen() const
{
    const int i = which_->currentIndex();
    return i >= 0 && static_cast<std::size_t>(i) < model_.procedures().size() ? model_.procedures()[static_cast<std::size_t>(i)] : nullptr;
}

void ProcedurePanel::offer()
{
    const QSignalBlocker quiet(which_);
    const QString was = which_->currentText();
    which_->clear();
    for (const Procedure* p : model_.procedures())
        which_->addItem(qs(p->title));
    which_->setCurrentIndex(std::max(0, which_->findText(was)));
    shown_ = nullptr;
    refresh();
}

void ProcedurePanel::make_steps()
{
    clear_layout(steps_);
    lines_.clear();
    shown_ = chosen();
    const std::size_t steps = model_.run() ? model_.run()->result().steps.size() : shown_ ? shown_->steps.size()
                                                                                          : 0;
    for (std::size_t i = 0; i < steps; ++i) {
        lines_.push_back(new QLabel);
        lines_.back()->setWordWrap(true);
        lines_.back()->setObjectName(QStringLiteral("benchStep"));
        steps_->addWidget(lines_.back());
    }
    steps_->addStretch(1);
}

void ProcedurePanel::refresh()
{
    const Theme& t = theme();
    const ProcedureRun* run = model_.run();
    const std::size_t steps = run ? run->result().steps.size() : chosen() ? chosen()->steps.size()
                                                                          : 0;
    if (shown_ != chosen() || lines_.size() != steps)
        make_steps();
    about_->setText(shown_ ? qs(shown_->text) : tr("No procedure fits this unit."));
    about_->setVisible(!run);
    const auto put = [](QLabel* l, const QString& words) {
        if (l->text() != words)
            l->setText(words);
    };
    for (std::size_t i = 0; i < lines_.size(); ++i) {
        if (!run) {
            const ProcedureStep& s = shown_->steps[i];
            put(lines_[i], QStringLiteral("%1&nbsp;&nbsp;%2").arg(i + 1).arg(qs(s.title).toHtmlEscaped()));
            continue;
        }
        const StepResult& r = run->result().steps[i];
        const bool now = i == run->step();
        const QString sign = r.verdict == StepVerdict::passed ? QStringLiteral("✓") : r.verdict == StepVerdict::failed     ? QStringLiteral("■")
                                                                                  : r.verdict == StepVerdict::not_possible ? QStringLiteral("–")
                                                                                  : now                                    ? QStringLiteral("▸")
                                                                                                                           : QString::number(i + 1);
        const QColor colour = r.verdict == StepVerdict::failed ? t.protect : r.verdict == StepVerdict::passed ? t.accent
                                                                                                              : t.second_ink;
        QString words = QStringLiteral("<span style='color:%1'>%2</span>&nbsp;&nbsp;%3%4%5").arg(colour.name(), sign, now ? QStringLiteral("<b>") : QString(), qs(r.title).toHtmlEscaped() + (r.of.empty() ? QString() : QStringLiteral(", ") + qs(r.of)), now ? QStringLiteral("</b>") : QString());
        if (!r.said.empty())
            words += QStringLiteral("<br><span style='color:%1'>%2</span>").arg(t.second_ink.name(), qs(r.said).toHtmlEscaped());
        put(lines_[i], words);
    }
    const bool going = run && run->step() < run->result().steps.size();
    const ProcedureStep* step = run ? run->step_under_way() : nullptr;
    put(count_, run ? tr("%1 of %2").arg(std::min(run->step() + 1, steps)).arg(steps) : tr("%n steps", nullptr, static_cast<int>(steps)));
    caution_->setVisible(step && !step->caution.empty());
    if (step)
        put(caution_, QStringLiteral("<span style='color:%1'>%2</span>").arg(t.caution.name(), qs(step->caution).toHtmlEscaped()));
    now_->setVisible(going);
    if (going) {
        const QString waits = qs(run->waits_for());
        put(now_, qs(step ? step->text : std::string()).toHtmlEscaped() + (waits.isEmpty() ? QString() : tr("<br>Waiting %1.").arg(waits.toHtmlEscaped())));
    }
    verdict_->setVisible(run && !going);
    if (run && !going) {
        const StepVerdict v = run->result().verdict();
        put(verdict_, QStringLiteral("<b><span style='color:%1'>%2</span></b>").arg((v == StepVerdict::failed ? t.protect : t.accent).name(), v == StepVerdict::failed ? tr("Failed") : v == StepVerdict::passed ? tr("Passed")
                                                                                                                                                                                                                 : tr("Not possible here")));
    }
    begin_->setText(run ? tr("Begin anew") : tr("Begin"));
    begin_->setEnabled(shown_ != nullptr);
    leave_->setVisible(run != nullptr);
    skip_->setVisible(going);
    reason_->setVisible(going);
}

} // namespace vernal
