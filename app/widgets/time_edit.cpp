#include "time_edit.h"

#include <QToolTip>

namespace vernal {

TimeEdit::TimeEdit(Session& session, const QString& called, QWidget* parent) : QLineEdit(parent), session_(session)
{
    setAccessibleName(called);
    setAlignment(Qt::AlignHCenter);
    setMinimumHeight(32);
    connect(this, &QLineEdit::editingFinished, this, &TimeEdit::take);
    connect(&session_, &Session::outcome_changed, this, [this] { set_time(time_s_); });
}

void TimeEdit::set_time(double time_s)
{
    time_s_ = time_s;
    if (hasFocus() && isModified())
        return;
    setFixedWidth(session_.several_days() ? 104 : 62);
    setText(session_.time_text(time_s_));
    setModified(false);
}

void TimeEdit::take()
{
    if (!isModified())
        return;
    const auto at = session_.typed_time(text(), time_s_);
    setModified(false);
    if (!at)
        QToolTip::showText(mapToGlobal(QPoint(0, height())), tr("Type a time of day, such as 15:04"), this);
    else
        emit edited(*at);
    set_time(at.value_or(time_s_));
}

} // namespace vernal
