#include "number_edit.h"

#include <QKeyEvent>
#include <QStyle>
#include <QToolTip>

#include <QFontMetrics>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr int in_text_px = 20;

} // namespace

NumberEdit::NumberEdit(Session& session, const NumberField& field, QWidget* parent) : QLineEdit(parent), session_(session), field_(field)
{
    setAlignment(Qt::AlignRight);
    setAccessibleName(QString::fromUtf8(field.label));
    setToolTip(qs(hint_text(field, session.units())));
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
    const QString now = qs(field_text(field_, value_, session_.units()));
    if (now != text()) {
        setText(now);
        fit();
    }
    setModified(false);
    if (!reason_.isEmpty())
        set_reason({});
}

void NumberEdit::stand_in_text()
{
    in_text_ = true;
    setProperty("inText", true);
    setMinimumHeight(0);
    setFixedHeight(in_text_px);
    setTextMargins(0, 0, 0, 0);
    connect(this, &QLineEdit::textEdited, this, &NumberEdit::type_on);
    fit();
}

void NumberEdit::stand_in_row()
{
    in_row_ = true;
    setProperty("inText", true);
    setTextMargins(0, 0, 0, 0);
    setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Fixed);
    fit();
}

// While what is typed is no number, or none that can be, what stood there holds.
void NumberEdit::type_on()
{
    fit();
    if (sitting_ == 0) {
        static int sittings = 0;
        sitting_ = ++sittings;
        stood_ = value_;
    }
    const auto typed = parse_field(field_, text().toStdString(), session_.units());
    const double now = typed ? *typed : stood_;
    if (now == value_)
        return;
    value_ = now;
    emit edited(value_);
}

void NumberEdit::leave_typing() { sitting_ = 0; }

void NumberEdit::fit()
{
    ensurePolished(); // the style brings another font
    const QFontMetrics m = fontMetrics();
    const int wide = in_text_ ? m.horizontalAdvance(text()) + 8 : in_row_ ? std::max(44, m.horizontalAdvance(text()) + 14)
                                                                          : std::max(78, m.horizontalAdvance(text() + QStringLiteral("00")) + 18);
    if (wide == width())
        return;
    setFixedWidth(wide);
    if (in_text_)
        emit grew();
}

void NumberEdit::set_reason(const QString& reason)
{
    reason_ = reason;
    setProperty("wrong", !reason.isEmpty());
    style()->unpolish(this);
    style()->polish(this);
    setToolTip(reason.isEmpty() ? qs(hint_text(field_, session_.units())) : reason);
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
    const auto parsed = parse_field(field_, text().toStdString(), session_.units());
    if (!parsed)
        return refuse(qs(parsed.error().text()));
    const bool told = sitting_ != 0 && value_ == *parsed;
    value_ = *parsed;
    show_value();
    if (!told)
        emit edited(value_);
    leave_typing();
    return true;
}

void NumberEdit::keyPressEvent(QKeyEvent* e)
{
    if (e->key() == Qt::Key_Escape) {
        if (sitting_ != 0 && value_ != stood_) {
            value_ = stood_;
            emit edited(value_);
        }
        leave_typing();
        return show_value();
    }
    const bool up_or_down = e->key() == Qt::Key_Up || e->key() == Qt::Key_Down;
    if (up_or_down && (e->modifiers() & Qt::ControlModifier) != 0)
        return e->ignore(); // moves what the number stands in
    if (up_or_down) {
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
