#include "scene.h"

namespace vernal {

const std::vector<PartPainter>& part_painters()
{
    static const std::vector<PartPainter> table{
        {Part::tank, paint_tank, label_tank},
        {Part::tank_2, paint_second_tank, label_second_tank},
        {Part::pool, paint_pool, label_pool},
        {Part::slab, paint_slab, label_slab},
        {Part::room, paint_room, label_room},
        {Part::exchanger, paint_exchanger},
        {Part::reservoir, paint_reservoir, label_reservoir},
        {Part::cooler, paint_cooler, label_cooler},
        {Part::panel, paint_panel},
        {Part::battery, paint_battery},
        {Part::drain_back, paint_drain_back},
        {Part::valve, paint_valve},
        {Part::check_valve, paint_check_valve, nullptr, false},
        {Part::vessel, paint_vessel, nullptr, false},
        {Part::element, paint_element, nullptr, false},
        {Part::wiring, paint_wiring, nullptr, false},
        {Part::rock_bed, paint_rock_bed, nullptr, false},
    };
    return table;
}

void PartScene::plate(const QPointF& centre, double c) const
{
    if (small)
        return;
    const QRectF box(centre.x() - 44, centre.y() - 12, 88, 24);
    p.setFont(number_font(15, true));
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
