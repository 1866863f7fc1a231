#include "findings_spine.h"

#include "app/shell/theme.h"
#include "finding_mark.h"

#include <QPainter>

namespace vernal {

FindingsSpine::FindingsSpine(Session& session, QWidget* parent) : QAbstractButton(parent)
{
    setObjectName(QStringLiteral("findingsSpine"));
    setFixedWidth(width_px);
    setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Expanding);
    setFocusPolicy(Qt::StrongFocus);
    setAttribute(Qt::WA_Hover);
    setToolTip(tr("Findings (F4)"));
    connect(&session, &Session::verdict_changed, this, [this, &session] {
        counts_ = {};
        for (const Finding& f : session.findings())
            ++counts_[static_cast<std::size_t>(f.severity)];
        count();
    });
    count();
}

void FindingsSpine::count()
{
    setAccessibleName(tr("Findings: %1 serious, %2 cautions, %3 notes").arg(counts_[0]).arg(counts_[1]).arg(counts_[2]));
    update();
}

void FindingsSpine::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.fillRect(rect(), underMouse() ? t.accent_ground : t.surface);
    p.setPen(t.hairline);
    p.drawLine(0, 0, 0, height());
    p.setRenderHint(QPainter::Antialiasing);
    int y = 14;
    for (std::size_t s = 0; s < counts_.size(); ++s) {
        if (counts_[s] == 0)
            continue;
        const SeverityMark m = mark_of(static_cast<Severity>(s));
        p.setPen(m.colour);
        p.setFont(text_font(13));
        p.drawText(QRect(0, y, width(), 16), Qt::AlignCenter, QString::fromUtf8(m.sign));
        p.setPen(t.ink);
        p.setFont(text_font(13, true));
        p.drawText(QRect(0, y + 15, width(), 18), Qt::AlignCenter, QString::number(counts_[s]));
        y += 42;
    }
    p.save();
    p.translate(width() / 2.0, y + 8);
    p.rotate(90);
    p.setPen(t.second_ink);
    p.setFont(text_font(13));
    p.drawText(QRect(0, -10, 160, 20), Qt::AlignVCenter | Qt::AlignLeft, y == 14 ? tr("No findings  F4") : tr("Findings  F4"));
    p.restore();
    if (hasFocus()) {
        p.setPen(QPen(t.accent, 2));
        p.drawRect(QRectF(rect()).adjusted(2, 1, -1, -1));
    }
}

} // namespace vernal
