#include "number_edit.h"

#include <QKeyEvent>
#include <QStyle>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace vernal {

NumberEdit::NumberEdit(Session& session, const NumberField& field, QWidget* parent) : QLineEdit(parent), session_(session), field_(field)
{
    setAlignment(Qt::AlignRight);
    setAccessibleName(QString::fromUtf8(field.label));
    setToolTip(QString::fromUtf8(field.typical));
    setMinimumHeight(32);
    connect(this, &QLineEdit::editingFinished, this, &NumberEdit::take);
    connect(&session, &Session::units_changed, this, [this] { show_value(); });
}

void NumberEdit::set_value(double inside)
{
    value_ = inside;
    if (hasFocus() && isModified())
        return;
    show_value();
}

void NumberEdit::show_value()
{
    const QString now = vernal::text(value_, field_.quantity, session_.units());
    if (now != text()) {
        setText(now);
        fit();
    }
    setModified(false);
    if (!reason_.isEmpty())
        set_reason({});
}

void NumberEdit::fit()
{
    ensurePolished(); // the style brings another font
    const int wide = fontMetrics().horizontalAdvance(text() + QStringLiteral("00")) + 18;
    setFixedWidth(std::max(78, wide));
}

void NumberEdit::set_reason(const QString& reason)
{
    reason_ = reason;
    setProperty("wrong", !reason.isEmpty());
    style()->unpolish(this);
    style()->polish(this);
    setToolTip(reason.isEmpty() ? QString::fromUtf8(field_.typical) : reason);
    if (!reason.isEmpty() && isVisible())
        QToolTip::showText(mapToGlobal(QPoint(0, height())), reason, this);
}

bool NumberEdit::refuse(const QString& reason)
{
    set_reason(reason);
    return false;
}

bool NumberEdit::take()
{
    if (!isModified())
        return true;
    const auto parsed = parse(text().toStdString(), field_.quantity, session_.units());
    if (!parsed)
        return refuse(qs(parsed.error().text()));
    const double slack = 1e-9 * std::max(1.0, std::fabs(field_.max));
    if (*parsed < field_.min - slack || *parsed > field_.max + slack)
        return refuse(tr("%1 must lie between %2 and %3").arg(QString::fromUtf8(field_.label), vernal::text(field_.min, field_.quantity, session_.units()), vernal::text(field_.max, field_.quantity, session_.units())));
    value_ = std::clamp(*parsed, field_.min, field_.max);
    show_value();
    emit edited(value_);
    return true;
}

void NumberEdit::keyPressEvent(QKeyEvent* e)
{
    if (e->key() == Qt::Key_Escape) {
        show_value();
        return;
    }
    if (e->key() == Qt::Key_Up || e->key() == Qt::Key_Down) {
        const double step = std::pow(10.0, -decimals(field_.quantity, session_.units())) * (e->modifiers() & Qt::ShiftModifier ? 10 : 1);
        const double shown = to_display(value_, field_.quantity, session_.units()) + (e->key() == Qt::Key_Up ? step : -step);
        value_ = std::clamp(from_display(shown, field_.quantity, session_.units()), field_.min, field_.max);
        show_value();
        emit edited(value_);
        return;
    }
    QLineEdit::keyPressEvent(e);
}

void NumberEdit::focusInEvent(QFocusEvent* e)
{
    QLineEdit::focusInEvent(e);
    if (e->reason() != Qt::MouseFocusReason)
        selectAll();
}

} // namespace vernal
