#include "answers_sheet.h"

#include "app/widgets/form.h"
#include "core/setup/rejoin.h"

#include <QComboBox>
#include <QGridLayout>
#include <QLabel>

namespace vernal {

AnswersSheet::AnswersSheet(QWidget* parent) : QWidget(parent)
{
    auto* grid = new QGridLayout(this);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setVerticalSpacing(4);
    grid->setColumnStretch(0, 1);
    for (const LoopQuestion& q : loop_questions()) {
        auto* text = new QLabel(tr(q.text));
        text->setWordWrap(true);
        auto* choice = new QComboBox;
        choice->setObjectName(QStringLiteral("answer.") + QString::fromUtf8(q.key));
        choice->setAccessibleName(text->text());
        choice->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        choice->setMinimumContentsLength(16);
        for (const LoopQuestion::Answer& a : q.answers)
            choice->addItem(tr(a.text));
        for (int i = 0; i < choice->count(); ++i)
            choice->setItemData(i, choice->itemText(i), Qt::ToolTipRole);
        const std::size_t question = rows_.size();
        connect(choice, &QComboBox::activated, this, [this, question](int i) { choose(question, i); });
        const int row = static_cast<int>(question);
        grid->addWidget(text, row, 0);
        grid->addWidget(choice, row, 1);
        rows_.push_back({text, choice});
    }
    also_ = remark();
    also_->setObjectName(QStringLiteral("alsoChanged"));
    grid->addWidget(also_, static_cast<int>(rows_.size()), 0, 1, 2);
    set(answers_);
}

void AnswersSheet::set(const LoopAnswers& answers)
{
    if (!(answers == answers_))
        also_->clear();
    answers_ = answers;
    for (std::size_t q = 0; q < rows_.size(); ++q) {
        rows_[q].choice->setCurrentIndex(static_cast<int>(loop_questions()[q].get(answers)));
        const bool asked = answers.transfer == Transfer::exchanger || std::string(loop_questions()[q].key) != "exchanger_pumps";
        rows_[q].text->setVisible(asked);
        rows_[q].choice->setVisible(asked);
    }
}

void AnswersSheet::choose(std::size_t question, int answer)
{
    const auto& questions = loop_questions();
    LoopAnswers alone = answers_;
    questions[question].set(alone, static_cast<std::size_t>(answer));
    if (alone == answers_)
        return;
    const LoopAnswers all = answered_otherwise(answers_, question, static_cast<std::size_t>(answer));
    QStringList also;
    for (std::size_t q = 0; q < questions.size(); ++q)
        if (q != question && questions[q].get(all) != questions[q].get(answers_))
            also << tr(questions[q].text) + QLatin1Char(' ') + tr(questions[q].answers[questions[q].get(all)].text);
    set(all);
    also_->setText(also.isEmpty() ? QString() : tr("Answered otherwise with it: %1. %2.").arg(also.join(QStringLiteral("; ")), tr(cannot_combine(alone).c_str())));
    emit answered(all);
}

} // namespace vernal
