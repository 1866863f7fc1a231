#include "scene.h"

namespace vernal {

const std::vector<PartDrawing>& part_drawings()
{
    static const std::vector<PartDrawing> table = [] {
        std::vector<PartDrawing> all;
        for (const auto& family : {store_drawings(), array_drawings(), drawings_between(), power_drawings(), protection_drawings(), pump_drawings(), pipe_drawings()})
            all.insert(all.end(), family.begin(), family.end());
        return all;
    }();
    return table;
}

void PartScene::plate(const QPointF& centre, double c) const
{
    if (small)
        return;
    const QRectF box(centre.x() - 44, centre.y() - 12, 88, 24);
    p.setFont(text_font(15, true));
    p.setPen(Qt::NoPen);
    p.setBrush(theme().card);
    p.drawRoundedRect(box, 4, 4);
    p.setPen(theme().ink);
    p.drawText(box, Qt::AlignCenter, words(c, Quantity::temperature));
}

void PartScene::layers(const QRectF& r, const QPainterPath& inside, const std::vector<double>& temps) const
{
    p.save();
    p.setClipPath(inside, Qt::IntersectClip);
    const double h = r.height() / static_cast<double>(std::max<std::size_t>(1, temps.size()));
    for (std::size_t i = 0; i < temps.size(); ++i)
        p.fillRect(QRectF(r.left(), r.bottom() - h * static_cast<double>(i + 1) - 0.5, r.width(), h + 1), temperature_colour(temps[i]));
    p.restore();
}

void PartScene::above(Part part, const QString& s) const
{
    const QRectF r = at(part);
    p.setPen(theme().ink);
    p.setFont(text_font(14, true));
    p.drawText(QRectF(r.center().x() - 130, r.top() - 22, 260, 18), Qt::AlignCenter, s);
}

} // namespace vernal
