#include "wire_page.h"

#include "wire_now.h"
#include "wire_recorder.h"
#include "wire_set.h"

#include "app/bench/bench_parts.h"
#include "app/shell/theme.h"
#include "app/widgets/form.h"

#include <QApplication>
#include <QHBoxLayout>
#include <QHideEvent>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

namespace vernal {
namespace {

QWidget* in_card(QWidget* w)
{
    auto* card = bench_card();
    auto* in = new QVBoxLayout(card);
    in->setContentsMargins(12, 8, 12, 10);
    in->addWidget(w);
    return card;
}

} // namespace

WirePage::WirePage(Session& session, const Dialogs& dialogs, QWidget* parent) : QWidget(parent), session_(session), card_(new WireCard(session, dialogs, link_))
{
    auto* now = new WireNow(session, link_);
    auto* set = new WireSet(session, link_);
    auto* scroll = new QScrollArea;
    scroll->setWidget(in_card(card_));
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->viewport()->setAutoFillBackground(false);
    scroll->setMinimumWidth(230);
    auto* row = new QHBoxLayout;
    row->setSpacing(10);
    row->addWidget(scroll, 24);
    row->addWidget(in_card(now), 44);
    row->addWidget(in_card(set), 32);
    said_ = wrapped_label("wireSaid");
    said_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    says_ = in_card(said_);
    says_->hide();
    question_ = make_question();
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(8);
    box->addLayout(row, 1);
    box->addWidget(new WireRecorder(session, link_));
    box->addWidget(question_);
    box->addWidget(says_);
    connect(now, &WireNow::asked, this, &WirePage::ask);
    connect(set, &WireSet::asked, this, &WirePage::ask);
    connect(set, &WireSet::said, this, &WirePage::say);
    connect(card_, &WireCard::said, this, &WirePage::say);
    connect(&link_, &WireLink::said, this, [this](const QString& words) { say(words.startsWith(QLatin1String("LINK LOST")) || words.startsWith(QLatin1String("NOT ")) ? QStringLiteral("<b>%1</b>").arg(in_colour(theme().protect, words)) : words.toHtmlEscaped()); });
    connect(&link_, &WireLink::left, this, [this](const QString& words) {
        if (!words.isEmpty())
            say(words.toHtmlEscaped());
    });
    connect(&link_, &WireLink::wrote, this, [this](const WireWrite& w, bool stands, const QString& words) {
        writing_ = false;
        say(in_colour(stands ? theme().accent : theme().protect, qs(w.text) + QStringLiteral(". ") + words));
        if (!stands)
            waiting_.clear(); // a person looks first
        ask_next();
    });
    connect(&link_, &WireLink::changed, this, [this] {
        if (link_.armed() || waiting_.empty())
            return;
        waiting_.clear();
        ask_next();
    });
}

QFrame* WirePage::make_question()
{
    auto* card = bench_card();
    auto* in = new QHBoxLayout(card);
    in->setContentsMargins(12, 8, 12, 8);
    asks_ = wrapped_label("wireAsks");
    write_ = new QPushButton(tr("Write it"));
    write_->setObjectName(QStringLiteral("wireYes"));
    not_ = new QPushButton(tr("Do not write it"));
    not_->setObjectName(QStringLiteral("wireNo"));
    in->addWidget(asks_, 1);
    in->addWidget(not_);
    in->addWidget(write_);
    card->hide();
    connect(write_, &QPushButton::clicked, this, [this] {
        if (waiting_.empty() || writing_)
            return;
        writing_ = true;
        const WireWrite w = waiting_.front();
        waiting_.erase(waiting_.begin());
        card_->setFocus(); // a button that goes out would hand it on to anywhere
        write_->setEnabled(false);
        link_.write(w);
    });
    connect(not_, &QPushButton::clicked, this, [this] {
        if (!waiting_.empty())
            waiting_.erase(waiting_.begin());
        ask_next();
    });
    return card;
}

void WirePage::ask(const std::vector<WireWrite>& writes)
{
    if (writing_)
        return;
    waiting_ = writes;
    of_ = writes.size();
    ask_next();
}

void WirePage::ask_next()
{
    if (waiting_.empty() && question_->isAncestorOf(QApplication::focusWidget()))
        card_->setFocus(); // not to wherever the next Tab would lead
    question_->setVisible(!waiting_.empty());
    says_->setVisible(waiting_.empty() && !said_->text().isEmpty());
    write_->setEnabled(!writing_);
    if (waiting_.empty())
        return;
    const QString count = of_ > 1 ? tr("%1 of %2. ").arg(of_ - waiting_.size() + 1).arg(of_) : QString();
    asks_->setText(tr("%1To be written: <b>%2</b>").arg(count, qs(waiting_.front().text).toHtmlEscaped()));
    write_->setFocus();
}

void WirePage::say(const QString& words)
{
    said_->setText(words);
    says_->setVisible(!words.isEmpty() && waiting_.empty());
}

void WirePage::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    window()->removeEventFilter(this);
    window()->installEventFilter(this);
}

bool WirePage::eventFilter(QObject* of, QEvent* e)
{
    if (e->type() == QEvent::Close && of == window())
        link_.leave_and_wait();
    return QWidget::eventFilter(of, e);
}

// Who goes to another page does not look: what was forced from here goes back to AUTO.
void WirePage::hideEvent(QHideEvent* e)
{
    QWidget::hideEvent(e);
    if (!e->spontaneous() && (link_.armed() || !link_.forced().empty()))
        link_.release();
}

} // namespace vernal
