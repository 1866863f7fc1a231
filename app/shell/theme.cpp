#include "theme.h"

#include <QApplication>
#include <QDir>
#include <QFontDatabase>
#include <QPalette>

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

QString sheet(const Theme& t)
{
    QString s = QStringLiteral(R"(
* { font-family: "Vernal Text"; font-size: 13px; color: @ink; }
QMainWindow, QWidget#desk { background: @desk; }
QWidget#surface, QScrollArea#surface, QWidget#surface > QWidget { background: @surface; }
QScrollArea { border: none; background: transparent; }
QScrollArea > QWidget > QWidget { background: transparent; }
QFrame#card { background: @card; border: 1px solid @line; border-radius: 5px; }
QFrame#top { background: @surface; border: none; border-bottom: 1px solid @line; }
QFrame#rail { background: @surface; border: none; border-right: 1px solid @line; }
QFrame#side { background: @surface; border: none; border-left: 1px solid @line; }
QFrame#strip { background: @surface; border: none; border-top: 1px solid @line; }
QLabel { background: transparent; }
QLabel#h1 { font-size: 17px; font-weight: bold; }
QLabel#h2 { font-size: 14px; font-weight: bold; }
QLabel#second { color: @second; }
QLabel#good { color: @accent; font-weight: bold; }
QLabel#bad, QLabel#stripIdle, QLabel#probeCurveError { color: @protect; font-weight: bold; }
QPushButton, QToolButton { background: @card; border: 1px solid @line; border-radius: 5px; padding: 5px 10px; min-height: 22px; }
QPushButton:hover, QToolButton:hover { border-color: @accent; }
QPushButton:focus, QToolButton:focus, QLineEdit:focus, QComboBox:focus { border: 2px solid @accent; }
QPushButton:checked, QToolButton:checked { background: @accentground; border: 1px solid @accent; color: @accent; font-weight: bold; }
QPushButton:disabled, QToolButton:disabled { color: @air; }
QPushButton#act { background: @accentground; border: 1px solid @accent; color: @accent; font-weight: bold; }
QPushButton#pill { border-radius: 17px; padding: 5px 14px; }
QPushButton#quiet, QToolButton#quiet { background: transparent; border: 1px solid transparent; }
QPushButton#quiet:hover, QToolButton#quiet:hover { border-color: @line; }
QPushButton#quiet:checked { background: @accentground; border-color: @accent; color: @accent; font-weight: bold; }
QPushButton#word { background: transparent; border: none; border-bottom: 1px dashed @second; border-radius: 0; padding: 2px 1px; min-height: 26px; }
QPushButton#rail { background: transparent; border: none; border-left: 4px solid transparent; border-radius: 0; text-align: left; padding: 15px 4px 15px 12px; font-size: 14px; }
QPushButton#rail:checked { background: @accentground; border-left: 4px solid @accent; color: @accent; }
QPushButton#rail:focus { border: 2px solid @accent; padding: 13px 2px 13px 14px; }
QPushButton::menu-indicator { image: none; }
QLineEdit { background: @surface; border: 1px solid @line; border-radius: 4px; padding: 3px 7px; min-height: 24px; font-family: "Vernal Figures"; font-weight: bold; selection-background-color: @accent; selection-color: white; }
QPlainTextEdit { background: @surface; border: 1px solid @line; border-radius: 4px; font-family: "Vernal Figures"; selection-background-color: @accent; selection-color: white; }
QPlainTextEdit:focus { border: 2px solid @accent; }
QLineEdit#words { font-family: "Vernal Text"; font-weight: normal; }
QLineEdit[wrong="true"] { border: 2px solid @protect; background: @protectground; }
QComboBox { background: @surface; border: 1px solid @line; border-radius: 4px; padding: 3px 7px; min-height: 26px; }
QComboBox::drop-down { border: none; width: 20px; }
QComboBox::down-arrow { image: url(:/icons/down.xpm); width: 11px; height: 7px; }
QDateEdit, QSpinBox { background: @surface; border: 1px solid @line; border-radius: 4px; padding: 3px 7px; }
QComboBox QAbstractItemView { background: @card; selection-background-color: @accentground; selection-color: @ink; outline: none; }
QListWidget, QTableWidget, QTreeWidget { background: @card; border: 1px solid @line; border-radius: 5px; outline: none; }
QListWidget::item { padding: 7px; border-bottom: 1px solid @line; }
QListWidget::item:selected { background: @accentground; color: @ink; border-left: 3px solid @accent; }
QHeaderView::section { background: @surface; border: none; border-bottom: 1px solid @line; padding: 5px; color: @second; }
QSplitter::handle { background: @line; }
QSplitter::handle:vertical { height: 1px; }
QTabBar::tab { padding: 8px 14px; border: none; border-bottom: 3px solid transparent; }
QTabBar#probePages::tab { padding: 8px 9px; }
QTabBar::tab:selected { border-bottom: 3px solid @accent; font-weight: bold; }
QMenu { background: @card; border: 1px solid @line; } QMenu::item { padding: 7px 22px; } QMenu::item:selected { background: @accentground; }
QToolTip { background: @ink; color: @card; border: none; padding: 5px; }
QCheckBox::indicator { width: 20px; height: 20px; }
QScrollBar:vertical { background: transparent; width: 10px; } QScrollBar::handle:vertical { background: @line; border-radius: 4px; min-height: 30px; }
QScrollBar:horizontal { background: transparent; height: 10px; } QScrollBar::handle:horizontal { background: @line; border-radius: 4px; min-width: 30px; }
QScrollBar::add-line, QScrollBar::sub-line { width: 0; height: 0; }
)");
    const std::pair<const char*, QColor> names[] = {{"@accentground", t.accent_ground}, {"@protectground", t.protect_ground}, {"@accent", t.accent}, {"@protect", t.protect}, {"@desk", t.desk}, {"@surface", t.surface}, {"@card", t.card}, {"@line", t.hairline}, {"@ink", t.ink}, {"@second", t.second_ink}, {"@air", t.air}};
    for (const auto& [name, colour] : names)
        s.replace(QLatin1String(name), colour.name());
    return s;
}

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
    QPalette p;
    p.setColor(QPalette::Window, current.desk);
    p.setColor(QPalette::Base, current.card);
    p.setColor(QPalette::Text, current.ink);
    p.setColor(QPalette::WindowText, current.ink);
    p.setColor(QPalette::Highlight, current.accent);
    app.setPalette(p);
    app.setFont(text_font(13));
    app.setStyleSheet(sheet(current));
}

QFont text_font(double px, bool bold) { return font("Vernal Text", px, bold); }
QFont number_font(double px, bool bold) { return font("Vernal Figures", px, bold); }

} // namespace vernal
