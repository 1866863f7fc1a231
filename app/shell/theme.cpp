#include "theme.h"

#include "window_style.h"

#include <QApplication>
#include <QDir>
#include <QFontDatabase>
#include <QPalette>
#include <QToolTip>

namespace vernal {
namespace {

Theme paper()
{
    Theme t;
    t.desk = QColor(QRgb(0xEFECE3));
    t.surface = QColor(QRgb(0xFAF8F2));
    t.card = QColor(QRgb(0xFFFFFF));
    t.hairline = QColor(QRgb(0xD8D2C4));
    t.ink = QColor(QRgb(0x20272B));
    t.second_ink = QColor(QRgb(0x565F64));
    t.accent = QColor(QRgb(0x2C6650));
    t.accent_ground = QColor(QRgb(0xE2ECE5));
    t.protect = QColor(QRgb(0x9E3B2A));
    t.protect_ground = QColor(QRgb(0xF4E0DA));
    t.start = QColor(QRgb(0x2A5D86));
    t.start_ground = QColor(QRgb(0xE0EAF2));
    t.caution = QColor(QRgb(0x8F5F00));
    t.collector = QColor(QRgb(0xC05A14));
    t.store_bottom = QColor(QRgb(0x1C6C87));
    t.store_top = QColor(QRgb(0x5D4A86));
    t.air = QColor(QRgb(0x8B9196));
    t.sun = QColor(QRgb(0xE7C363));
    return t;
}

Theme glare()
{
    Theme t = paper();
    t.glare = true;
    t.desk = t.surface = t.card = QColor(QRgb(0xFFFFFF));
    t.hairline = QColor(QRgb(0x000000));
    t.ink = t.second_ink = QColor(QRgb(0x000000));
    t.accent = QColor(QRgb(0x00402A));
    t.accent_ground = QColor(QRgb(0xCFEBDD));
    t.protect = QColor(QRgb(0x7A1405));
    t.protect_ground = QColor(QRgb(0xFFD9D0));
    t.start = QColor(QRgb(0x00335C));
    t.start_ground = QColor(QRgb(0xD2E6F7));
    t.caution = QColor(QRgb(0x5C3B00));
    t.collector = QColor(QRgb(0xA03A00));
    t.store_bottom = QColor(QRgb(0x00506B));
    t.store_top = QColor(QRgb(0x3B2570));
    t.air = QColor(QRgb(0x444444));
    t.sun = QColor(QRgb(0xFFC400));
    t.line_px = 2.8;
    return t;
}

Theme current = paper();

QFont font(const char* family, double px, bool bold)
{
    QFont f(QString::fromLatin1(family));
    f.setPixelSize(static_cast<int>(px));
    f.setBold(bold);
    return f;
}

} // namespace

const Theme& theme() { return current; }

void load_fonts()
{
    for (const QString& name : QDir(QStringLiteral(":/fonts")).entryList())
        QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/") + name);
}

void apply_theme(QApplication& app, bool is_glare)
{
    current = is_glare ? glare() : paper();
    if (!qobject_cast<WindowStyle*>(app.style())) {
        app.setStyle(new WindowStyle); // Qt owns it
        app.setFont(text_font(13));
    }
    app.setPalette(palette_of_theme());
    QToolTip::setPalette(palette_of_theme());
    QToolTip::setFont(text_font(13));
    for (QWidget* w : app.topLevelWidgets())
        w->update();
}

QFont text_font(double px, bool bold) { return font("Vernal Text", px, bold); }
QFont raw_font(double px) { return font("Vernal Figures", px, false); }

} // namespace vernal
