#include "finding_mark.h"

#include "app/shell/theme.h"

#include <QKeyEvent>
#include <QPainter>
#include <QToolTip>

namespace vernal {

SeverityMark mark_of(Severity s)
{
    switch (s) {
    case Severity::serious: return {"■", theme().protect};
    case Severity::caution: return {"▲", theme().caution};
    case Severity::note: break;
    }
    return {"●", theme().start};
}

QString finding_key(const Finding& f) { return QString::fromUtf8(f.kind) + QLatin1Char('\n') + qs(f.at); }

FindingMark::FindingMark(Session& session, QWidget* parent) : QAbstractButton(parent), session_(session)
{
    setFocusPolicy(Qt::StrongFocus);
    setCursor(Qt::PointingHandCursor);
    hide();
    connect(this, &QAbstractButton::clicked, this, [this] { emit session_.finding_wanted(kind_); });
}

void FindingMark::show_findings(const std::vector<Finding>& found)
{
    setVisible(!found.empty());
    if (found.empty())
        return;
    worst_ = found.front().severity;
    kind_ = finding_key(found.front());
    QStringList said;
    for (const Finding& f : found)
        said << QStringLiteral("<b>%1: %2</b><br>%3").arg(QString::fromLatin1(severity_text(f.severity)), qs(f.title).toHtmlEscaped(), qs(f.reason).toHtmlEscaped());
    if (found.front().remedy)
        said << tr("Enter: %1").arg(qs(found.front().remedy->label)).toHtmlEscaped();
    setToolTip(said.join(QStringLiteral("<br>")));
    setAccessibleName(QString::fromLatin1(severity_text(worst_)) + ": " + qs(found.front().title));
    setAccessibleDescription(qs(found.front().reason));
    update();
}

void FindingMark::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const SeverityMark m = mark_of(worst_);
    if (hasFocus()) {
        p.setPen(QPen(theme().accent, 2));
        p.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 3, 3);
    }
    p.setPen(Qt::NoPen);
    p.setBrush(m.colour);
    const QPointF c = QRectF(rect()).center();
    if (worst_ == Severity::serious)
        p.drawRect(QRectF(c.x() - 4.5, c.y() - 4.5, 9, 9));
    else if (worst_ == Severity::caution)
        p.drawPolygon(QPolygonF{c + QPointF(-5, 4), c + QPointF(5, 4), c + QPointF(0, -5)});
    else
        p.drawEllipse(c, 4.5, 4.5);
}

void FindingMark::focusInEvent(QFocusEvent* e)
{
    QAbstractButton::focusInEvent(e);
    QToolTip::showText(mapToGlobal(QPoint(0, height())), toolTip(), this);
    update();
}

void FindingMark::keyPressEvent(QKeyEvent* e)
{
    if (e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter)
        return click();
    QAbstractButton::keyPressEvent(e);
}

} // namespace vernal
