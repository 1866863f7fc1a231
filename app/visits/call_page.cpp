#include "call_page.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "core/visit/take_along.h"
#include "visit_edits.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace vernal {

CallPage::CallPage(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    words_ = new QPlainTextEdit;
    words_->setObjectName(QStringLiteral("callWords"));
    words_->setAccessibleName(tr("What the customer says"));
    words_->setPlaceholderText(tr("What the customer says, in the customer's words"));
    words_->setTabChangesFocus(true);
    words_->setFont(text_font(13));
    constexpr int three_lines_px = 66;
    words_->setMaximumHeight(three_lines_px);
    auto* back = new QPushButton(tr("Back to the page"));
    back->setProperty("look", QStringLiteral("quiet"));
    auto* head = new QHBoxLayout;
    head->addWidget(heading(tr("A customer calls")), 1);
    head->addWidget(back);
    auto* boxes = new QWidget;
    auto* flow = new QHBoxLayout(boxes);
    flow->setContentsMargins(0, 0, 0, 0);
    auto* left_column = new QVBoxLayout;
    auto* right_column = new QVBoxLayout;
    flow->addLayout(left_column);
    flow->addLayout(right_column);
    for (std::size_t i = 0; i < complaint_keys.size(); ++i) {
        auto* c = new QCheckBox(tr(complaint_text(static_cast<Complaint>(i))));
        c->setObjectName(QStringLiteral("complaint.") + QString::fromUtf8(complaint_keys[i]));
        c->setMinimumHeight(32);
        complaints_.push_back(c);
        (i % 2 == 0 ? left_column : right_column)->addWidget(c);
        connect(c, &QCheckBox::clicked, this, &CallPage::rank);
    }
    left_column->addStretch(1); // rows stand beside each other
    right_column->addStretch(1);
    causes_ = new QListWidget;
    causes_->setObjectName(QStringLiteral("causeList"));
    causes_->setAccessibleName(tr("Likely causes"));
    causes_->setWordWrap(true);
    causes_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    question_ = heading({});
    question_->setWordWrap(true);
    question_->setObjectName(QStringLiteral("callQuestion"));
    yes_ = new QPushButton(tr("Yes"));
    yes_->setObjectName(QStringLiteral("callYes"));
    no_ = new QPushButton(tr("No"));
    no_->setObjectName(QStringLiteral("callNo"));
    skip_ = new QPushButton(tr("Cannot be told"));
    skip_->setObjectName(QStringLiteral("callSkip"));
    undo_ = new QPushButton(tr("Undo answer"));
    undo_->setObjectName(QStringLiteral("callUndo"));
    undo_->setProperty("look", QStringLiteral("quiet"));
    answered_ = remark();
    about_ = remark();
    about_->setObjectName(QStringLiteral("causeAbout"));
    take_ = new QPushButton(tr("It becomes a visit"));
    take_->setObjectName(QStringLiteral("callBecomes"));
    auto* ask = new QHBoxLayout;
    ask->addWidget(yes_);
    ask->addWidget(no_);
    ask->addWidget(skip_);
    ask->addWidget(undo_);
    ask->addStretch(1);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(14, 10, 14, 10);
    box->setSpacing(6);
    box->addLayout(head);
    box->addWidget(words_);
    box->addWidget(boxes);
    box->addWidget(question_);
    box->addLayout(ask);
    box->addWidget(answered_);
    box->addWidget(causes_, 1);
    box->addWidget(about_);
    box->addWidget(take_, 0, Qt::AlignLeft);
    connect(words_, &QPlainTextEdit::textChanged, this, &CallPage::read_words);
    connect(causes_, &QListWidget::currentRowChanged, this, &CallPage::show_cause);
    connect(yes_, &QPushButton::clicked, this, [this] { answer(true); });
    connect(no_, &QPushButton::clicked, this, [this] { answer(false); });
    connect(skip_, &QPushButton::clicked, this, [this] {
        if (!now_.ask.empty()) {
            asked_.push_back(now_.ask.front());
            skipped_.push_back(now_.ask.front());
        }
        rank();
    });
    connect(undo_, &QPushButton::clicked, this, &CallPage::take_back);
    connect(take_, &QPushButton::clicked, this, &CallPage::take_as_visit);
    connect(back, &QPushButton::clicked, this, &CallPage::left);
}

void CallPage::begin()
{
    words_->clear();
    for (QCheckBox* c : complaints_)
        c->setChecked(false);
    answers_.clear();
    skipped_.clear();
    asked_.clear();
    by_words_.clear();
    rank();
    words_->setFocus();
}

std::vector<Complaint> CallPage::complaints() const
{
    std::vector<Complaint> out;
    for (std::size_t i = 0; i < complaints_.size(); ++i)
        if (complaints_[i]->isChecked())
            out.push_back(static_cast<Complaint>(i));
    return out;
}

void CallPage::read_words()
{
    const auto said = complaints_in(words_->toPlainText().toStdString());
    for (const Complaint c : by_words_) // what a corrected word no longer says
        if (std::find(said.begin(), said.end(), c) == said.end())
            complaints_[static_cast<std::size_t>(c)]->setChecked(false);
    std::vector<Complaint> ticked;
    for (const Complaint c : said) {
        QCheckBox* box = complaints_[static_cast<std::size_t>(c)];
        if (!box->isChecked() || std::find(by_words_.begin(), by_words_.end(), c) != by_words_.end())
            ticked.push_back(c);
        box->setChecked(true);
    }
    by_words_ = std::move(ticked);
    rank();
}

void CallPage::rank()
{
    const Document& d = session_.document();
    now_ = call_back(d.job(), d.variant(), complaints(), answers_);
    std::erase_if(now_.ask, [&](const std::string& q) { return std::find(skipped_.begin(), skipped_.end(), q) != skipped_.end(); });
    const QSignalBlocker quiet(causes_);
    causes_->clear();
    constexpr std::size_t most = 8;
    for (std::size_t i = 0; i < std::min(most, now_.causes.size()); ++i) {
        const CauseNow& c = now_.causes[i];
        QString words = QStringLiteral("%1 %   %2").arg(std::lround(100 * c.likelihood)).arg(qs(c.title));
        for (const std::string& b : c.because)
            words += QStringLiteral("\n          ") + qs(b);
        causes_->addItem(words);
    }
    causes_->setCurrentRow(0);
    const auto& all = phone_questions();
    const auto it = std::find_if(all.begin(), all.end(), [&](const PhoneQuestion& q) { return !now_.ask.empty() && now_.ask.front() == q.key; });
    question_->setText(it == all.end() ? tr("Nothing more to ask that would tell them apart.") : tr(it->text));
    for (QPushButton* b : {yes_, no_, skip_})
        b->setEnabled(it != all.end());
    undo_->setEnabled(!asked_.empty());
    QStringList said;
    for (const PhoneAnswer& a : answers_)
        for (const PhoneQuestion& q : all)
            if (a.question == q.key)
                said << QStringLiteral("%1 %2").arg(tr(q.text), a.yes ? tr("Yes.") : tr("No."));
    answered_->setText(said.join(QLatin1Char(' ')));
    answered_->setVisible(!said.isEmpty());
    take_->setEnabled(!words_->toPlainText().trimmed().isEmpty() || !complaints().empty());
    show_cause();
}

void CallPage::answer(bool yes)
{
    if (now_.ask.empty())
        return;
    asked_.push_back(now_.ask.front());
    answers_.push_back({now_.ask.front(), yes});
    rank();
}

void CallPage::take_back()
{
    if (asked_.empty())
        return;
    std::erase_if(answers_, [&](const PhoneAnswer& a) { return a.question == asked_.back(); });
    std::erase(skipped_, asked_.back());
    asked_.pop_back();
    rank();
}

void CallPage::show_cause()
{
    const int row = causes_->currentRow();
    if (row < 0 || static_cast<std::size_t>(row) >= now_.causes.size())
        return about_->clear();
    const CauseNow& c = now_.causes[static_cast<std::size_t>(row)];
    about_->setText(tr("On the phone: %1 Take along: %2. Nobody opens the unit, climbs or lets a hot loop off on the phone.").arg(qs(c.on_phone), qs(c.spares)));
}

void CallPage::take_as_visit()
{
    Document& d = session_.document();
    const std::string id = begin_visit(d, Purpose::call_back);
    QString title = words_->toPlainText().simplified();
    if (title.isEmpty())
        for (const Complaint c : complaints())
            title += (title.isEmpty() ? QString() : QStringLiteral(", ")) + tr(complaint_text(c));
    std::string notes = "By phone: ";
    for (const PhoneAnswer& a : answers_)
        for (const PhoneQuestion& q : phone_questions())
            if (a.question == q.key)
                notes += std::string(q.text) + (a.yes ? " Yes. " : " No. ");
    constexpr std::size_t told = 3;
    notes += "\nLikely: ";
    std::string spares;
    for (std::size_t i = 0; i < std::min(told, now_.causes.size()); ++i) {
        notes += now_.causes[i].title + " (" + std::to_string(std::lround(100 * now_.causes[i].likelihood)) + " %)" + (i + 1 < told ? "; " : ".");
        if (now_.causes[i].spares != "nothing" && spares.find(now_.causes[i].spares) == std::string::npos)
            spares += (spares.empty() ? "" : "; ") + now_.causes[i].spares;
    }
    notes += "\nTake along: " + spares;
    for (const TakeAlong& t : take_along(d.job(), d.variant(), Purpose::call_back, session_.units()))
        notes += "; " + t.what + (t.how_much.empty() ? "" : " " + t.how_much);
    change_visit(d, id, tr("Call-back"), [&](Visit& v) {
        v.title = title.toStdString();
        v.notes = notes;
        v.found = {d.variant()};
        v.found_how = "as it stands in the job; read the unit there";
    });
    emit became(id);
}

} // namespace vernal
