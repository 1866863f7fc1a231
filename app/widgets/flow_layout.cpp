#include "flow_layout.h"

#include <QWidget>

#include <algorithm>

namespace vernal {

FlowLayout::FlowLayout(QWidget* parent, int gap_x, int gap_y) : QLayout(parent), gap_x_(gap_x), gap_y_(gap_y) { setContentsMargins(0, 0, 0, 0); }

FlowLayout::~FlowLayout() { qDeleteAll(items_); }

QSize FlowLayout::minimumSize() const
{
    QSize s;
    for (const QLayoutItem* i : items_)
        s = s.expandedTo(i->minimumSize());
    return s;
}

void FlowLayout::setGeometry(const QRect& r)
{
    QLayout::setGeometry(r);
    arrange(r, true);
}

int FlowLayout::arrange(const QRect& r, bool place) const
{
    int x = r.x(), y = r.y(), line = 0;
    QList<std::pair<QLayoutItem*, QRect>> row;
    const auto end_row = [&] {
        for (auto& [item, rect] : row)
            if (place)
                item->setGeometry(rect.translated(0, (line - rect.height()) / 2));
        row.clear();
    };
    const auto is_attached = [](const QLayoutItem* i) { return i->widget() && i->widget()->property("attached").toBool(); };
    for (qsizetype k = 0; k < items_.size(); ++k) {
        QLayoutItem* i = items_[k];
        const QSize s = i->sizeHint();
        const bool attached = is_attached(i);
        const int tail = k + 1 < items_.size() && is_attached(items_[k + 1]) ? items_[k + 1]->sizeHint().width() : 0;
        if (attached)
            x -= gap_x_;
        if (x > r.x() && !attached && x + s.width() + tail > r.right() + 1) {
            end_row();
            x = r.x();
            y += line + gap_y_;
            line = 0;
        }
        row.append({i, QRect(QPoint(x, y), s)});
        x += s.width() + gap_x_;
        line = std::max(line, s.height());
    }
    end_row();
    return y + line - r.y();
}

} // namespace vernal
