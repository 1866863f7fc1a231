// How every widget is drawn: shapes of our own over a plain style, in the colours of
// theme(). They are looked up as it paints, so another theme needs a repaint and
// nothing else: no widget is styled anew.
//
// A widget says by its object name what it is; the names are those of `Kind` below.
#pragma once

#include <QProxyStyle>

namespace vernal {

class WindowStyle : public QProxyStyle {
    Q_OBJECT
public:
    WindowStyle();
    using QProxyStyle::polish;
    void polish(QWidget* w) override;
    void drawPrimitive(PrimitiveElement e, const QStyleOption* o, QPainter* p, const QWidget* w) const override;
    void drawControl(ControlElement e, const QStyleOption* o, QPainter* p, const QWidget* w) const override;
    void drawComplexControl(ComplexControl c, const QStyleOptionComplex* o, QPainter* p, const QWidget* w) const override;
    int pixelMetric(PixelMetric m, const QStyleOption* o, const QWidget* w) const override;
    int styleHint(StyleHint h, const QStyleOption* o, const QWidget* w, QStyleHintReturn* r) const override;
    QSize sizeFromContents(ContentsType t, const QStyleOption* o, const QSize& contents, const QWidget* w) const override;
    QRect subElementRect(SubElement e, const QStyleOption* o, const QWidget* w) const override;
    QRect subControlRect(ComplexControl c, const QStyleOptionComplex* o, SubControl s, const QWidget* w) const override;
};

// Colours of theme() as roles: second ink is PlaceholderText, moss Link, rust BrightText,
// hairline Mid, surface AlternateBase.
QPalette palette_of_theme();

} // namespace vernal
