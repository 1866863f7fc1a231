#include "far_view.h"

#include "app/shell/theme.h"
#include "core/bench/bench_pair.h"

#include <QApplication>
#include <QKeyEvent>
#include <QPainter>

namespace vernal {

FarView::FarView(Session& session, BenchModel& model, QWidget* parent) : QDialog(parent), session_(session), model_(model)
{
    setObjectName(QStringLiteral("farView"));
    setWindowTitle(tr("Read from afar"));
    setAccessibleName(tr("One number, large; Space starts and stops the watch"));
    resize(900, 560);
    connect(&model, &BenchModel::ticked, this, [this] { update(); });
    connect(&model, &BenchModel::switched, this, [this] {
        if (isVisible())
            QApplication::beep();
    });
}

void FarView::showEvent(QShowEvent* e)
{
    QDialog::showEvent(e);
    setFocus();
}

int FarView::quantities() const { return 1 + (model_.rig() ? static_cast<int>(model_.rig()->probes()) : 0); }

QString FarView::name() const
{
    if (!model_.rig() || shows_ == 0)
        return tr("difference");
    const Probe& p = model_.rig()->variant().probes[static_cast<std::size_t>(shows_ - 1)];
    return qs(p.key + " " + p.name);
}

QString FarView::number() const
{
    Rig* rig = model_.rig();
    if (!rig)
        return QStringLiteral("–");
    if (shows_ > 0) {
        const auto p = static_cast<std::size_t>(shows_ - 1);
        const Reading r = rig->reading(p);
        return r.valid ? reading_text(rig->variant().probes[p], r.mk / 1000.0, session_.units()) : tr("no reading");
    }
    const auto pair = bench_pair(rig->variant());
    if (!pair || !rig->reading(pair->source).valid || !rig->reading(pair->store).valid)
        return tr("no reading");
    return text((rig->reading(pair->source).mk - rig->reading(pair->store).mk) / 1000.0, Quantity::difference, session_.units());
}

QString FarView::watch() const
{
    const qint64 ms = running_.isValid() ? running_.elapsed() : stopped_ms_;
    return ms < 0 ? QString() : QStringLiteral("%1:%2").arg(ms / 60000).arg(static_cast<double>(ms % 60000) / 1000, 4, 'f', 1, QLatin1Char('0'));
}

void FarView::paintEvent(QPaintEvent*)
{
    const Theme& t = theme();
    QPainter p(this);
    p.fillRect(rect(), t.card);
    const QRectF all = QRectF(rect()).adjusted(24, 16, -24, -16);
    p.setPen(t.second_ink);
    p.setFont(text_font(26, true));
    p.drawText(all, Qt::AlignTop | Qt::AlignHCenter, name());
    const QString big = number();
    double px = all.height() * 0.5; // as large as there is room for
    while (px > 20 && QFontMetricsF(text_font(px, true)).horizontalAdvance(big) > all.width())
        px *= 0.94;
    p.setFont(text_font(px, true));
    p.setPen(t.ink);
    p.drawText(all, Qt::AlignCenter, big);
    QStringList outputs;
    bool any = false;
    if (Rig* rig = model_.rig())
        for (std::size_t o = 0; o < rig->outputs(); ++o) {
            any = any || rig->turns(o);
            outputs << tr("%1 %2").arg(qs(rig->variant().unit.outputs[o].key), rig->turns(o) ? tr("RUNS") : tr("rests"));
        }
    p.setFont(text_font(30, true));
    p.setPen(any ? t.accent : t.second_ink);
    p.drawText(all.adjusted(0, 0, 0, -34), Qt::AlignBottom | Qt::AlignLeft, outputs.join(QStringLiteral("   ")));
    p.setPen(t.ink);
    p.drawText(all.adjusted(0, 0, 0, -34), Qt::AlignBottom | Qt::AlignRight, watch());
    p.setFont(text_font(13));
    p.setPen(t.second_ink);
    p.drawText(all, Qt::AlignBottom | Qt::AlignHCenter, tr("Space: stop-watch · Left, Right: another reading · Esc: back"));
}

void FarView::keyPressEvent(QKeyEvent* e)
{
    switch (e->key()) {
    case Qt::Key_Space:
        if (running_.isValid()) {
            stopped_ms_ = running_.elapsed();
            running_.invalidate();
        } else {
            running_.start();
        }
        break;
    case Qt::Key_Left: shows_ = (shows_ + quantities() - 1) % quantities(); break;
    case Qt::Key_Right: shows_ = (shows_ + 1) % quantities(); break;
    default: return QDialog::keyPressEvent(e);
    }
    update();
}

} // namespace vernal
