#include "window_style.h"

#include "style_paint.h"
#include "theme.h"

#include <QAbstractItemView>
#include <QAbstractSpinBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QStyleFactory>
#include <QStyleOption>
#include <QToolButton>

namespace vernal {
namespace {

constexpr int target_px = 32; // of a gloved hand

// Labels by name: size, weight, and the role of their colour.
struct Lettering {
    const char* name;
    double px;
    bool bold;
    QPalette::ColorRole role;
};
constexpr Lettering letterings[] = {
    {"h1", 17, true, QPalette::WindowText},
    {"h2", 14, true, QPalette::WindowText},
    {"second", 13, false, QPalette::PlaceholderText},
    {"usual", 13, false, QPalette::PlaceholderText},
    {"good", 13, true, QPalette::Link},
    {"bad", 13, true, QPalette::BrightText},
    {"refusal", 13, true, QPalette::BrightText},
    {"stripIdle", 13, true, QPalette::BrightText},
    {"probeCurveError", 13, true, QPalette::BrightText},
};

} // namespace

WindowStyle::WindowStyle() : QProxyStyle(QStyleFactory::create(QStringLiteral("Fusion"))) {}

QPalette palette_of_theme()
{
    const Theme& t = theme();
    QPalette p;
    const std::pair<QPalette::ColorRole, QColor> roles[] = {{QPalette::Window, t.desk}, {QPalette::WindowText, t.ink}, {QPalette::Base, t.card}, {QPalette::AlternateBase, t.surface}, {QPalette::Text, t.ink}, {QPalette::Button, t.card}, {QPalette::ButtonText, t.ink}, {QPalette::PlaceholderText, t.second_ink}, {QPalette::Link, t.accent}, {QPalette::BrightText, t.protect}, {QPalette::Highlight, t.accent}, {QPalette::HighlightedText, t.card}, {QPalette::Mid, t.hairline}, {QPalette::ToolTipBase, t.ink}, {QPalette::ToolTipText, t.card}};
    for (const auto& [role, colour] : roles)
        p.setColor(role, colour);
    for (QPalette::ColorRole role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        p.setColor(QPalette::Disabled, role, t.air);
    return p;
}

void WindowStyle::polish(QWidget* w)
{
    QProxyStyle::polish(w);
    const QString name = w->objectName();
    if (auto* label = qobject_cast<QLabel*>(w)) {
        for (const Lettering& l : letterings)
            if (name == QLatin1String(l.name)) {
                label->setFont(text_font(l.px, l.bold));
                label->setForegroundRole(l.role);
            }
    }
    if (!panel_name(w).isEmpty())
        static_cast<QFrame*>(w)->setFrameShape(QFrame::StyledPanel);
    if (auto* area = qobject_cast<QScrollArea*>(w)) {
        area->setFrameShape(QFrame::NoFrame);
        area->viewport()->setAutoFillBackground(false);
    }
    // What is scrolled shows the ground that the area lies on.
    if (w->parentWidget() && qobject_cast<QScrollArea*>(w->parentWidget()->parentWidget()))
        w->setAutoFillBackground(false);
    if (auto* edit = qobject_cast<QLineEdit*>(w)) {
        const bool inside = qobject_cast<QComboBox*>(w->parentWidget()) || qobject_cast<QAbstractSpinBox*>(w->parentWidget());
        edit->setFont(text_font(13, !inside && name != QLatin1String("words")));
    }
    if (auto* raw = qobject_cast<QPlainTextEdit*>(w))
        raw->setFont(raw_font(13));
    if (qobject_cast<QAbstractButton*>(w) || qobject_cast<QComboBox*>(w) || qobject_cast<QLineEdit*>(w))
        w->setAttribute(Qt::WA_Hover);
}

int WindowStyle::pixelMetric(PixelMetric m, const QStyleOption* o, const QWidget* w) const
{
    switch (m) {
    case PM_DefaultFrameWidth: return 1;
    case PM_IndicatorWidth:
    case PM_IndicatorHeight: return 20;
    case PM_ScrollBarExtent: return 10;
    case PM_ScrollBarSliderMin: return 30;
    case PM_SplitterWidth: return 5;
    case PM_ButtonShiftHorizontal:
    case PM_ButtonShiftVertical:
    case PM_MenuButtonIndicator: return 0;
    case PM_SmallIconSize: return 14;
    default: return QProxyStyle::pixelMetric(m, o, w);
    }
}

int WindowStyle::styleHint(StyleHint h, const QStyleOption* o, const QWidget* w, QStyleHintReturn* r) const
{
    switch (h) {
    case SH_EtchDisabledText:
    case SH_DitherDisabledText:
    case SH_ScrollBar_Transient: return 0;
    case SH_ToolTip_WakeUpDelay: return 400;
    default: return QProxyStyle::styleHint(h, o, w, r);
    }
}

QSize WindowStyle::sizeFromContents(ContentsType t, const QStyleOption* o, const QSize& contents, const QWidget* w) const
{
    QSize s = QProxyStyle::sizeFromContents(t, o, contents, w);
    switch (t) {
    case CT_PushButton: {
        const ButtonLook look = button_look(w);
        return {contents.width() + 2 * look.pad, std::max(contents.height() + 6, look.high)};
    }
    case CT_ToolButton: return {contents.width() + 20, std::max(contents.height() + 10, target_px)};
    case CT_LineEdit: return {contents.width() + 14, std::max(contents.height() + 8, target_px)};
    case CT_ComboBox: return {contents.width() + 34, std::max(contents.height() + 8, target_px)};
    case CT_SpinBox: return {contents.width() + 34, std::max(s.height(), target_px)};
    case CT_TabBarTab: return {contents.width() + (w && w->objectName() == QLatin1String("probePages") ? 18 : 28), std::max(contents.height() + 16, target_px)};
    case CT_MenuItem: {
        const auto* item = qstyleoption_cast<const QStyleOptionMenuItem*>(o);
        return item && item->menuItemType == QStyleOptionMenuItem::Separator ? s : QSize(s.width() + 14, std::max(s.height(), target_px));
    }
    case CT_ItemViewItem: return {s.width() + 10, std::max(s.height() + 8, target_px)};
    case CT_HeaderSection: return {s.width() + 6, std::max(s.height(), 28)};
    case CT_CheckBox: return {s.width(), std::max(s.height(), target_px)};
    default: return s;
    }
}

QRect WindowStyle::subElementRect(SubElement e, const QStyleOption* o, const QWidget* w) const
{
    const QRect r = QProxyStyle::subElementRect(e, o, w);
    if (e == SE_LineEditContents && w && !w->property("inText").toBool() && !qobject_cast<QComboBox*>(w->parentWidget()) && !qobject_cast<QAbstractSpinBox*>(w->parentWidget()))
        return r.adjusted(5, 0, -5, 0);
    const auto* item = qstyleoption_cast<const QStyleOptionViewItem*>(o);
    if (item && item->decorationPosition == QStyleOptionViewItem::Top) // a picture with its words below
        return r;
    if (e == SE_ItemViewItemText)
        return r.adjusted(5, 0, -5, 0);
    if (e == SE_ItemViewItemDecoration)
        return r.translated(5, 0);
    return r;
}

QRect WindowStyle::subControlRect(ComplexControl c, const QStyleOptionComplex* o, SubControl s, const QWidget* w) const
{
    if (c == CC_ScrollBar) {
        const auto* bar = qstyleoption_cast<const QStyleOptionSlider*>(o);
        return bar ? scroll_part(*bar, s) : QRect();
    }
    if (c == CC_ComboBox && s == SC_ComboBoxEditField)
        return o->rect.adjusted(7, 2, -24, -2);
    return QProxyStyle::subControlRect(c, o, s, w);
}

} // namespace vernal
