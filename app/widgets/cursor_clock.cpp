#include "cursor_clock.h"

#include <QHBoxLayout>
#include <QLineEdit>
#include <QPushButton>
#include <QRegularExpression>
#include <QToolTip>

#include <cmath>

namespace vernal {
namespace {

constexpr int one_px = 62, several_px = 104;

// "day 3, 15:04", "3 15:04": the day that is named and the rest; none named: 0.
std::pair<int, QString> day_and_rest(const QString& typed)
{
    static const QRegularExpression named(QStringLiteral("^\\s*(?:day\\s*)?(\\d+)[\\s,]+(\\d.*)$"), QRegularExpression::CaseInsensitiveOption);
    const auto m = named.match(typed);
    return m.hasMatch() ? std::pair(m.captured(1).toInt(), m.captured(2)) : std::pair(0, typed);
}

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
    const auto [day, clock] = day_and_rest(time_->text());
    const auto hours = parse(clock.toStdString(), Quantity::time_of_day, {});
    time_->setModified(false);
    if (!hours || *hours < 0 || *hours > 24) {
        show_time();
        QToolTip::showText(time_->mapToGlobal(QPoint(0, time_->height())), tr("Type a time of day, such as 15:04"), time_);
        return;
    }
    // Of a log that begins in the afternoon, the small hours are those of the next day.
    const double start = session_.outcome() ? session_.outcome()->start_s() : 0;
    constexpr double day_s = 86400;
    double at = *hours * 3600 - start;
    if (day > 0)
        at += (day - 1) * day_s;
    else if (session_.several_days()) // of the day that is looked at
        at += std::floor((session_.cursor_s() + start) / day_s) * day_s;
    while (at < 0)
        at += day_s;
    session_.set_cursor(at);
    show_time();
}

} // namespace vernal
