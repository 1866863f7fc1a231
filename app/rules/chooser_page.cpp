#include "chooser_page.h"

#include "app/findings/effect.h"
#include "app/shell/theme.h"
#include "app/widgets/form.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

namespace vernal {

ChooserPage::ChooserPage(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    auto* asked = new QWidget;
    auto* grid = new QGridLayout(asked);
    grid->setContentsMargins(0, 0, 6, 6);
    for (std::size_t q = 0; q < questions().size(); ++q)
        add_question(*grid, q);
    grid->setColumnStretch(0, 1);
    grid->setColumnStretch(1, 1);
    auto* inside = new QWidget;
    auto* column = new QVBoxLayout(inside);
    column->setContentsMargins(0, 0, 0, 0);
    column->addWidget(asked);
    rows_ = new QVBoxLayout;
    rows_->setContentsMargins(0, 0, 6, 0);
    column->addLayout(rows_, 1);
    auto* scroll = new QScrollArea;
    scroll->setWidget(inside);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->addWidget(scroll, 1);
    box->addLayout(buttons());
    connect(&session.document(), &Document::changed, this, &ChooserPage::refresh);
    connect(&session.document(), &Document::view_changed, this, &ChooserPage::refresh);
    connect(&session, &Session::units_changed, this, &ChooserPage::refresh);
}

void ChooserPage::add_question(QGridLayout& grid, std::size_t q)
{
    const Question& question = questions()[q];
    auto* box = new QComboBox;
    box->setObjectName(QStringLiteral("question.%1").arg(QString::fromUtf8(question.key)));
    box->setMinimumHeight(32);
    box->setMinimumContentsLength(12);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    for (const char* answer : question.answers)
        box->addItem(QString::fromUtf8(answer));
    auto* label = new QLabel(QString::fromUtf8(question.text));
    label->setToolTip(QString::fromUtf8(question.why));
    label->setWordWrap(true);
    label->setBuddy(box);
    grid.addWidget(label, static_cast<int>(q), 0);
    grid.addWidget(box, static_cast<int>(q), 1);
    connect(box, &QComboBox::activated, this, [this, q](int i) {
        answer(answers_, q, static_cast<std::size_t>(i));
        refresh();
    });
    boxes_.push_back(box);
}

QLayout* ChooserPage::buttons()
{
    auto* attempt = new QPushButton(tr("Try on the strip"));
    attempt->setObjectName("trySettings");
    auto* take = new QPushButton(tr("Take all of these"));
    take->setObjectName("takeSettings");
    effect_ = remark();
    connect(attempt, &QPushButton::clicked, this, [this] {
        trying_ = true;
        effect_->setText(tr("Trying …"));
        session_.preview(Remedy{"", [choices = choices_](Variant& v) { take_all(choices, v); }});
    });
    connect(take, &QPushButton::clicked, this, [this] {
        session_.document().edit_variant(tr("Take chosen settings"), [choices = choices_](Variant& v) { take_all(choices, v); });
        emit taken();
    });
    connect(&session_, &Session::previewed, this, [this](const std::shared_ptr<const Outcome>& then) {
        if (trying_ && session_.outcome())
            effect_->setText(effect_text(*session_.outcome(), *then, session_.units()));
        trying_ = false;
    });
    auto* row = new QHBoxLayout;
    row->addWidget(take);
    row->addWidget(attempt);
    row->addWidget(effect_, 1);
    return row;
}

void ChooserPage::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    answers_ = likely_answers(session_.document().job(), session_.document().variant());
    refresh();
}

void ChooserPage::refresh()
{
    if (!isVisible())
        return;
    effect_->clear();
    for (std::size_t q = 0; q < boxes_.size(); ++q)
        boxes_[q]->setCurrentIndex(static_cast<int>(answered(answers_, q)));
    choices_ = choose_settings(session_.document().job(), session_.document().variant(), answers_, session_.units());
    clear_layout(rows_);
    for (const Choice& c : choices_)
        rows_->addWidget(choice_row(c));
    rows_->addStretch(1);
}

QWidget* ChooserPage::choice_row(const Choice& c) const
{
    auto* frame = new QFrame;
    frame->setObjectName("card");
    auto* box = new QVBoxLayout(frame);
    box->setContentsMargins(10, 6, 10, 6);
    box->setSpacing(2);
    auto* head = new QLabel(QStringLiteral("%1: <b>%2</b>").arg(qs(c.what).toHtmlEscaped(), qs(c.value).toHtmlEscaped()));
    head->setWordWrap(true);
    box->addWidget(head);
    auto* why = new QLabel(qs(c.why));
    why->setWordWrap(true);
    box->addWidget(why);
    if (!c.not_chosen.empty())
        box->addWidget(remark(tr("Not chosen: %1").arg(qs(c.not_chosen))));
    return frame;
}

} // namespace vernal
