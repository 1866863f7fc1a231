#include "terminal_strip.h"

#include "app/shell/theme.h"

#include <QPainter>

#include <algorithm>

namespace vernal {
namespace {

QColor colour_of(TerminalIs is)
{
    const Theme& t = theme();
    switch (is) {
    case TerminalIs::probe: return t.start;
    case TerminalIs::output: return t.accent;
    case TerminalIs::supply:
    case TerminalIs::panel:
    case TerminalIs::battery: return t.protect;
    case TerminalIs::contact: return t.caution;
    case TerminalIs::earth:
    case TerminalIs::shield: break;
    }
    return t.second_ink;
}

QString words_of(TerminalIs is)
{
    switch (is) {
    case TerminalIs::probe: return QObject::tr("probe");
    case TerminalIs::output: return QObject::tr("output");
    case TerminalIs::supply: return QObject::tr("supply");
    case TerminalIs::panel: return QObject::tr("panel");
    case TerminalIs::battery: return QObject::tr("battery");
    case TerminalIs::earth: return QObject::tr("earth");
    case TerminalIs::shield: return QObject::tr("shield");
    case TerminalIs::contact: return QObject::tr("contact");
    }
    return {};
}

} // namespace

TerminalStrip::TerminalStrip(QWidget* parent) : QWidget(parent)
{
    setObjectName(QStringLiteral("terminalStrip"));
    setMinimumHeight(168);
    setAccessibleName(tr("The unit's terminals with what goes on each"));
}

void TerminalStrip::show_lines(std::vector<WiringLine> lines)
{
    std::erase_if(lines, [](const WiringLine& l) { return l.terminal.empty(); });
    lines_ = std::move(lines);
    update();
}

void TerminalStrip::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    paint_picture(p);
}

void TerminalStrip::paint_picture(QPainter& p)
{
    const Theme& t = theme();
    p.setRenderHint(QPainter::Antialiasing);
    if (lines_.empty()) {
        p.setPen(t.second_ink);
        p.setFont(text_font(13));
        p.drawText(rect(), Qt::AlignCenter, tr("The sheet names no terminals yet."));
        return;
    }
    constexpr double margin = 10, widest = 110, block_top = 96, block_high = 44;
    const double each = std::min(widest, (width() - 2 * margin) / static_cast<double>(lines_.size()));
    for (std::size_t i = 0; i < lines_.size(); ++i) {
        const WiringLine& l = lines_[i];
        const QRectF cell(margin + each * static_cast<double>(i), block_top, each, block_high);
        p.setPen(QPen(t.second_ink, 1.2));
        p.setBrush(t.surface);
        p.drawRect(cell);
        const QColor colour = colour_of(l.is);
        // A screw for each wire of the label: "13 14" has two.
        const int screws = std::clamp(static_cast<int>(std::count(l.terminal.begin(), l.terminal.end(), ' ')) + 1, 1, 3);
        for (int s = 0; s < screws; ++s) {
            const QPointF c(cell.center().x() + (s - (screws - 1) / 2.0) * std::min(18.0, each / (screws + 1.0)), cell.top() + 14);
            if (!l.goes.empty()) {
                p.setPen(QPen(colour, 2));
                p.drawLine(c, QPointF(c.x(), cell.top() - 16));
            }
            p.setPen(QPen(t.second_ink, 1.2));
            p.setBrush(l.goes.empty() ? t.card : colour);
            p.drawEllipse(c, 5, 5);
        }
        p.setFont(text_font(12.5, true));
        p.setPen(t.ink);
        p.drawText(QRectF(cell.left(), cell.top() + 22, each, 20), Qt::AlignCenter, qs(l.terminal));
        p.setFont(text_font(11.5));
        p.setPen(t.second_ink);
        p.drawText(QRectF(cell.left() - 2, cell.bottom() + 4, each + 4, 18), Qt::AlignCenter, words_of(l.is));
        if (l.goes.empty())
            continue;
        p.save(); // slanted, so that long names find room
        p.translate(cell.center().x() - 6, cell.top() - 20);
        p.rotate(-32);
        p.setFont(text_font(12, true));
        p.setPen(colour);
        p.drawText(QPointF(0, 0), qs(l.goes));
        p.restore();
    }
}

} // namespace vernal
