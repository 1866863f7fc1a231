#include "cursor_clock.h"

#include <QHBoxLayout>
#include <QLineEdit>
#include <QPushButton>
#include <QToolTip>

namespace vernal {
namespace {

constexpr int one_px = 62, several_px = 104;

} // namespace

CursorClock::CursorClock(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    setObjectName(QStringLiteral("cursorClock"));
    const auto step = [this](const QString& sign, bool forward, const QString& name) {
        auto* b = new QPushButton(sign);
        b->setObjectName(QStringLiteral("quiet"));
        b->setProperty("step", forward ? "next" : "last");
        b->setFixedSize(26, 32);
        b->setAccessibleName(name);
        b->setToolTip(name + (forward ? tr("  (Alt →)") : tr("  (Alt ←)")));
        connect(b, &QPushButton::clicked, this, [this, forward] { session_.step_cursor(forward); });
        return b;
    };
    time_ = new QLineEdit;
    time_->setObjectName(QStringLiteral("cursorTime"));
    time_->setAccessibleName(tr("Time of the cursor"));
    time_->setToolTip(tr("Time of the cursor: type one, such as 15:04"));
    time_->setAlignment(Qt::AlignHCenter);
    time_->setFixedSize(one_px, 32);
    auto* box = new QHBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(0);
    box->addWidget(step(QStringLiteral("‹"), false, tr("To the switching point before")));
    box->addWidget(time_);
    box->addWidget(step(QStringLiteral("›"), true, tr("To the next switching point")));
    connect(time_, &QLineEdit::editingFinished, this, &CursorClock::take_typed_time);
    connect(&session_, &Session::cursor_changed, this, &CursorClock::show_time);
    connect(&session_, &Session::outcome_changed, this, &CursorClock::show_time);
    show_time();
}

void CursorClock::take_focus()
{
    time_->setFocus(Qt::ShortcutFocusReason);
    time_->selectAll();
}

void CursorClock::show_time()
{
    if (time_->hasFocus() && time_->isModified())
        return;
    time_->setFixedWidth(session_.several_days() ? several_px : one_px);
    time_->setText(session_.cursor_text());
    time_->setModified(false);
}

void CursorClock::take_typed_time()
{
    if (!time_->isModified())
        return;
    const auto at = session_.typed_time(time_->text(), session_.cursor_s());
    time_->setModified(false);
    if (!at) {
        show_time();
        QToolTip::showText(time_->mapToGlobal(QPoint(0, time_->height())), tr("Type a time of day, such as 15:04"), time_);
        return;
    }
    session_.set_cursor(*at);
    show_time();
}

} // namespace vernal
