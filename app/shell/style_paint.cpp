#include "style_paint.h"

#include "theme.h"
#include "window_style.h"

#include <QAbstractSpinBox>
#include <QComboBox>
#include <QFrame>
#include <QPainter>
#include <QStyleOption>

namespace vernal {
namespace {

constexpr double corner_px = 4;
using Kind = ButtonLook::Kind;

bool is_on(const QStyleOption& o, QStyle::StateFlag f) { return o.state.testFlag(f); }

// A rectangle whose line lies within it.
void box(QPainter& p, const QRect& r, const QColor& fill, const QColor& line, double px = 1, double corner = corner_px)
{
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    p.setBrush(fill.isValid() ? QBrush(fill) : Qt::NoBrush);
    p.setPen(line.isValid() ? QPen(line, px) : QPen(Qt::NoPen));
    const double in = line.isValid() ? px / 2 : 0;
    p.drawRoundedRect(QRectF(r).adjusted(in, in, -in, -in), corner, corner);
    p.restore();
}

// A small triangle that points up or down.
void arrow(QPainter& p, const QPointF& at, bool up, const QColor& colour)
{
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(colour, 1.6));
    const double d = up ? -2 : 2;
    p.drawPolyline(QPolygonF{at + QPointF(-4, -d), at + QPointF(0, d), at + QPointF(4, -d)});
    p.restore();
}

// Ground and line of something that is typed into.
void field(QPainter& p, const QRect& r, const QStyleOption& o, const QWidget* w)
{
    const Theme& t = theme();
    const bool wrong = w && w->property("wrong").toBool();
    const bool focus = is_on(o, QStyle::State_HasFocus);
    const QColor line = wrong ? t.protect : focus                           ? t.accent
                                        : is_on(o, QStyle::State_MouseOver) ? t.second_ink
                                                                            : t.hairline;
    box(p, r, wrong ? t.protect_ground : t.surface, line, wrong || focus ? 2 : 1);
}

// A number within a sentence: no box until the pointer or the caret is in it.
void number_in_text(QPainter& p, const QRect& r, const QStyleOption& o, const QWidget* w)
{
    if (w->property("wrong").toBool() || is_on(o, QStyle::State_HasFocus) || is_on(o, QStyle::State_MouseOver))
        return field(p, r, o, w);
    p.setPen(QPen(theme().ink, 1, Qt::DotLine));
    const int y = std::min(r.bottom() - 1, r.center().y() + 10);
    p.drawLine(r.left() + 2, y, r.right() - 1, y);
}

void button(QPainter& p, const QStyleOption& o, const QWidget* w)
{
    const Theme& t = theme();
    const Kind kind = button_look(w).kind;
    const bool hover = is_on(o, QStyle::State_MouseOver) && is_on(o, QStyle::State_Enabled), focus = is_on(o, QStyle::State_HasFocus);
    const bool chosen = is_on(o, QStyle::State_On), down = is_on(o, QStyle::State_Sunken);
    const QRect r = o.rect;
    const QColor focused = focus ? t.accent : QColor();
    const double px = focus ? 2 : 1;
    switch (kind) {
    case Kind::word:
        if (hover || focus || down)
            box(p, r, t.accent_ground, focused, 2);
        p.setPen(QPen(t.second_ink, 1));
        p.drawLine(r.left() + 1, r.bottom() - 1, r.right() - 1, r.bottom() - 1);
        return;
    case Kind::rail:
        if (chosen || hover)
            p.fillRect(r, chosen ? t.desk : t.accent_ground);
        if (chosen)
            p.fillRect(QRect(r.topLeft(), QSize(4, r.height())), t.accent);
        if (focus)
            box(p, r.adjusted(2, 2, -2, -2), {}, t.accent, 2);
        return;
    case Kind::part:
        box(p, r, chosen ? t.accent : hover ? t.accent_ground
                                            : t.card,
            focus ? t.ink : chosen ? t.accent
                                   : t.hairline,
            px, 3);
        return;
    case Kind::rank:
    case Kind::thread:
        if (hover || focus)
            box(p, r.adjusted(1, 1, -1, -1), t.accent_ground, focused, 2);
        if (kind == Kind::thread && chosen)
            p.fillRect(QRect(r.left() + 4, r.bottom() - 2, r.width() - 8, 3), t.accent);
        return;
    case Kind::quiet:
        if (chosen || hover || focus || down)
            box(p, r, chosen ? t.accent_ground : QColor(), focus ? t.accent : chosen ? t.accent
                                                                                     : t.hairline,
                px);
        return;
    case Kind::act:
        box(p, r, t.accent_ground, t.accent, px);
        return;
    case Kind::usual:
    case Kind::tile:
        break;
    }
    box(p, r, chosen || down ? t.accent_ground : t.card, focus || hover || chosen ? t.accent : t.hairline, px);
}

void rail_label(QPainter& p, const QStyleOptionButton& b)
{
    const Theme& t = theme();
    const QString digit = b.text.section('\n', 0, 0), name = b.text.section('\n', 1);
    const bool chosen = is_on(b, QStyle::State_On);
    p.setPen(chosen ? t.accent : t.second_ink);
    p.setFont(text_font(15, true));
    p.drawText(b.rect.adjusted(4, 7, 0, 0), Qt::AlignHCenter | Qt::AlignTop, digit);
    p.setPen(chosen ? t.ink : t.second_ink);
    p.setFont(text_font(13, chosen));
    p.drawText(b.rect.adjusted(4, 0, 0, -7), Qt::AlignHCenter | Qt::AlignBottom, name);
}

void button_label(QPainter& p, const QStyleOptionButton& b, const QWidget* w, const QStyle& plain)
{
    const Theme& t = theme();
    const Kind kind = button_look(w).kind;
    if (kind == Kind::rail)
        return rail_label(p, b);
    const bool chosen = is_on(b, QStyle::State_On);
    const bool strong = chosen || kind == Kind::act;
    QFont font = p.font();
    font.setBold(font.bold() || strong);
    p.setFont(font);
    if (kind == Kind::tile || kind == Kind::word || kind == Kind::rank || kind == Kind::thread) {
        const bool left = kind == Kind::tile || kind == Kind::rank;
        const bool output = kind == Kind::word && w->property("output").toBool();
        font.setBold(kind == Kind::thread || output);
        p.setFont(font);
        p.setPen(!is_on(b, QStyle::State_Enabled) ? t.air : kind == Kind::rank ? t.second_ink
                                                        : output               ? t.accent
                                                                               : t.ink);
        p.drawText(b.rect.adjusted(kind == Kind::tile ? 12 : left ? 8
                                                                  : 0,
                       0, 0, 0),
            static_cast<int>(left ? Qt::AlignLeft : Qt::AlignHCenter) | static_cast<int>(Qt::AlignVCenter), kind == Kind::rank && chosen ? QStringLiteral("▸ ") + b.text : b.text);
        return;
    }
    QStyleOptionButton own = b;
    own.features &= ~QStyleOptionButton::HasMenu; // no room kept for an arrow
    if (strong && is_on(b, QStyle::State_Enabled))
        own.palette.setColor(QPalette::ButtonText, kind == Kind::part ? t.card : t.accent);
    plain.drawControl(QStyle::CE_PushButtonLabel, &own, &p, w);
}

void panel(QPainter& p, const QRect& r, const QString& name)
{
    const Theme& t = theme();
    if (name == QLatin1String("card"))
        return box(p, r, t.card, t.hairline);
    p.fillRect(r, t.surface);
    p.setPen(t.hairline);
    if (name == QLatin1String("top"))
        p.drawLine(r.bottomLeft(), r.bottomRight());
    else if (name == QLatin1String("rail"))
        p.drawLine(r.topRight(), r.bottomRight());
    else if (name == QLatin1String("side"))
        p.drawLine(r.topLeft(), r.bottomLeft());
    else
        p.drawLine(r.topLeft(), r.topRight());
}

void tick_box(QPainter& p, const QStyleOption& o)
{
    const Theme& t = theme();
    const bool on = is_on(o, QStyle::State_On), enabled = is_on(o, QStyle::State_Enabled);
    box(p, o.rect, on && enabled ? t.accent : t.card, enabled ? t.accent : t.hairline, 1.4, 3);
    if (!on)
        return;
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(QPen(enabled ? t.card : t.air, 2.2));
    const QRectF r = o.rect;
    p.drawPolyline(QPolygonF{r.topLeft() + QPointF(r.width() * 0.22, r.height() * 0.52), r.topLeft() + QPointF(r.width() * 0.42, r.height() * 0.72), r.topLeft() + QPointF(r.width() * 0.8, r.height() * 0.28)});
    p.restore();
}

void tab(QPainter& p, const QStyleOption& o)
{
    if (is_on(o, QStyle::State_Selected))
        p.fillRect(QRect(o.rect.left(), o.rect.bottom() - 2, o.rect.width(), 3), theme().accent);
    else if (is_on(o, QStyle::State_MouseOver))
        p.fillRect(QRect(o.rect.left(), o.rect.bottom() - 2, o.rect.width(), 3), theme().hairline);
}

// Chosen rows stand on the pale ground with their ink.
template <class Option>
Option on_pale_ground(const Option& o)
{
    Option own = o;
    own.palette.setColor(QPalette::Highlight, theme().accent_ground);
    own.palette.setColor(QPalette::HighlightedText, theme().ink);
    return own;
}

} // namespace

ButtonLook button_look(const QWidget* w)
{
    static const std::pair<const char*, ButtonLook> kinds[] = {
        {"act", {Kind::act}},
        {"quiet", {Kind::quiet, 9}},
        {"word", {Kind::word, 1, 24}},
        {"rail", {Kind::rail, 0, 52}},
        {"part", {Kind::part, 12, 32}},
        {"newLoop", {Kind::tile, 12, 44}},
        {"rank", {Kind::rank, 4, 24}},
        {"thread", {Kind::thread, 2, 24}},
    };
    const QString name = w ? w->objectName() : QString();
    const QString look = w ? w->property("look").toString() : QString();
    for (const auto& [key, kind] : kinds)
        if (look == QLatin1String(key) || (look.isEmpty() && name == QLatin1String(key)))
            return kind;
    return {};
}

QString panel_name(const QWidget* w)
{
    const QString look = w->property("look").toString(), name = look.isEmpty() ? w->objectName() : look;
    for (const char* panel : {"card", "top", "rail", "side", "strip"})
        if (qobject_cast<const QFrame*>(w) && name == QLatin1String(panel))
            return name;
    return {};
}

QRect scroll_part(const QStyleOptionSlider& bar, QStyle::SubControl part)
{
    const bool across = bar.orientation == Qt::Horizontal;
    const int whole = across ? bar.rect.width() : bar.rect.height(), thick = across ? bar.rect.height() : bar.rect.width();
    const int range = bar.maximum - bar.minimum;
    const int length = range <= 0 ? whole : std::clamp(static_cast<int>(static_cast<qint64>(whole) * bar.pageStep / (range + bar.pageStep)), std::min(30, whole), whole);
    const int at = QStyle::sliderPositionFromValue(bar.minimum, bar.maximum, bar.sliderPosition, whole - length, bar.upsideDown);
    const auto piece = [&](int from, int to) { return across ? QRect(from, 0, to - from, thick) : QRect(0, from, thick, to - from); };
    switch (part) {
    case QStyle::SC_ScrollBarSlider: return piece(at, at + length);
    case QStyle::SC_ScrollBarSubPage: return piece(0, at);
    case QStyle::SC_ScrollBarAddPage: return piece(at + length, whole);
    case QStyle::SC_ScrollBarGroove: return piece(0, whole);
    default: return {};
    }
}

void WindowStyle::drawPrimitive(PrimitiveElement e, const QStyleOption* o, QPainter* p, const QWidget* w) const
{
    const Theme& t = theme();
    switch (e) {
    case PE_PanelButtonCommand:
    case PE_PanelButtonTool: return button(*p, *o, w);
    case PE_PanelLineEdit:
        if (w && (qobject_cast<const QComboBox*>(w->parentWidget()) || qobject_cast<const QAbstractSpinBox*>(w->parentWidget())))
            return;
        return w && w->property("inText").toBool() ? number_in_text(*p, o->rect, *o, w) : field(*p, o->rect, *o, w);
    case PE_FrameLineEdit: return;
    case PE_Frame: return box(*p, o->rect, {}, is_on(*o, State_HasFocus) ? t.accent : t.hairline, is_on(*o, State_HasFocus) ? 2 : 1);
    case PE_FrameFocusRect: return box(*p, o->rect, {}, t.accent, 2);
    case PE_IndicatorCheckBox: return tick_box(*p, *o);
    case PE_IndicatorItemViewItemCheck: return tick_box(*p, *o);
    case PE_PanelTipLabel: return p->fillRect(o->rect, t.ink);
    case PE_PanelMenu: return box(*p, o->rect, t.card, t.hairline, 1, 0);
    case PE_FrameMenu:
    case PE_FrameTabBarBase: return;
    case PE_PanelItemViewItem:
        if (is_on(*o, State_Selected)) {
            p->fillRect(o->rect, t.accent_ground);
            p->fillRect(QRect(o->rect.topLeft(), QSize(3, o->rect.height())), t.accent);
        } else if (is_on(*o, State_MouseOver)) {
            p->fillRect(o->rect, t.surface);
        }
        return;
    default: QProxyStyle::drawPrimitive(e, o, p, w);
    }
}

void WindowStyle::drawControl(ControlElement e, const QStyleOption* o, QPainter* p, const QWidget* w) const
{
    const Theme& t = theme();
    switch (e) {
    case CE_PushButton:
        if (const auto* b = qstyleoption_cast<const QStyleOptionButton*>(o)) {
            button(*p, *b, w);
            button_label(*p, *b, w, *baseStyle());
        }
        return;
    case CE_ShapedFrame:
        if (w && !panel_name(w).isEmpty())
            return panel(*p, o->rect, panel_name(w));
        break;
    case CE_Splitter: {
        const bool across = is_on(*o, State_Horizontal); // the handle stands between left and right
        const QPoint c = o->rect.center();
        return p->fillRect(across ? QRect(c.x(), o->rect.top(), 1, o->rect.height()) : QRect(o->rect.left(), c.y(), o->rect.width(), 1), t.hairline);
    }
    case CE_HeaderSection:
        p->fillRect(o->rect, t.surface);
        p->setPen(t.hairline);
        return p->drawLine(o->rect.bottomLeft(), o->rect.bottomRight());
    case CE_HeaderLabel:
        if (const auto* header = qstyleoption_cast<const QStyleOptionHeader*>(o)) {
            QStyleOptionHeaderV2 own;
            static_cast<QStyleOptionHeader&>(own) = *header;
            own.rect.adjust(5, 0, -5, 0); // as the cells below
            return QProxyStyle::drawControl(e, &own, p, w);
        }
        break;
    case CE_TabBarTabShape: return tab(*p, *o);
    case CE_TabBarTabLabel: {
        QFont f = p->font();
        f.setBold(is_on(*o, State_Selected));
        p->setFont(f);
        break;
    }
    case CE_MenuItem:
        if (const auto* item = qstyleoption_cast<const QStyleOptionMenuItem*>(o)) {
            if (is_on(*item, State_Selected) && is_on(*item, State_Enabled))
                p->fillRect(o->rect, t.accent_ground);
            const auto own = on_pale_ground(*item);
            return QProxyStyle::drawControl(e, &own, p, w);
        }
        break;
    case CE_ItemViewItem:
        if (const auto* item = qstyleoption_cast<const QStyleOptionViewItem*>(o)) {
            const auto own = on_pale_ground(*item);
            return QProxyStyle::drawControl(e, &own, p, w);
        }
        break;
    default: break;
    }
    QProxyStyle::drawControl(e, o, p, w);
}

void WindowStyle::drawComplexControl(ComplexControl c, const QStyleOptionComplex* o, QPainter* p, const QWidget* w) const
{
    const Theme& t = theme();
    if (c == CC_ComboBox) {
        field(*p, o->rect, *o, w);
        return arrow(*p, QPointF(o->rect.right() - 12, o->rect.center().y() + 0.5), false, t.second_ink);
    }
    if (c == CC_SpinBox) {
        field(*p, o->rect, *o, w);
        for (SubControl s : {SC_SpinBoxUp, SC_SpinBoxDown})
            if ((o->subControls & s) != 0)
                arrow(*p, QRectF(subControlRect(c, o, s, w)).center(), s == SC_SpinBoxUp, t.second_ink);
        return;
    }
    if (c == CC_ScrollBar) {
        const auto* bar = qstyleoption_cast<const QStyleOptionSlider*>(o);
        if (bar && bar->maximum > bar->minimum)
            box(*p, scroll_part(*bar, SC_ScrollBarSlider).adjusted(2, 2, -2, -2), is_on(*o, State_MouseOver) ? t.second_ink : t.hairline, {}, 0, 3);
        return;
    }
    QProxyStyle::drawComplexControl(c, o, p, w);
}

} // namespace vernal
