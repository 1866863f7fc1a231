#include "scene.h"

#include <algorithm>

namespace vernal {

const std::vector<PartDrawing>& part_drawings()
{
    static const std::vector<PartDrawing> table = [] {
        std::vector<PartDrawing> all;
        for (const auto& family : {store_drawings(), array_drawings(), drawings_between(), power_drawings(), protection_drawings(), pump_drawings(), pipe_drawings(), tap_drawings()})
            all.insert(all.end(), family.begin(), family.end());
        return all;
    }();
    return table;
}

namespace {

constexpr double least_px = 13, fades_from = 0.7, gone_at = 0.55; // of the scale

} // namespace

void PartScene::say(const QRectF& box, int align, const QString& text, const QColor& ink, Words how) const
{
    const double shown = how.detail ? std::clamp((scale - gone_at) / (fades_from - gone_at), 0.0, 1.0) : 1.0;
    if (small || shown <= 0)
        return;
    p.setFont(text_font(std::max(how.px, least_px / scale), how.bold));
    QRectF bound = p.boundingRect(box, align | Qt::TextDontClip, text);
    // What would leave the sheet is moved in.
    const QPointF in(std::clamp(0.0, 2 - bound.left(), std::max(2 - bound.left(), sheet.width - 2 - bound.right())), 0);
    bound.translate(in);
    if (how.ground) {
        QColor ground = theme().card;
        ground.setAlphaF(0.85F * static_cast<float>(shown));
        p.setPen(Qt::NoPen);
        p.setBrush(ground);
        p.drawRoundedRect(bound.adjusted(-3, 0, 3, 0), 3, 3);
    }
    QColor colour = ink;
    colour.setAlphaF(static_cast<float>(shown));
    p.setPen(colour);
    p.drawText(box.translated(in), align | Qt::TextDontClip, text);
}

void PartScene::plate(const QPointF& centre, double c) const
{
    if (small)
        return;
    const QString figure = words(c, Quantity::temperature);
    p.setFont(text_font(std::max(15.0, (least_px + 1) / scale), true));
    const QSizeF size = p.boundingRect(QRectF(0, 0, 200, 40), Qt::AlignLeft, figure).size() + QSizeF(14, 4);
    const QRectF box(centre - QPointF(size.width() / 2, size.height() / 2), size);
    p.setPen(Qt::NoPen);
    p.setBrush(theme().card);
    p.drawRoundedRect(box, 4, 4);
    p.setPen(theme().ink);
    p.drawText(box, Qt::AlignCenter | Qt::TextDontClip, figure);
}

void PartScene::layers(const QRectF& r, const QPainterPath& inside, const std::vector<double>& temps, const std::vector<double>& shares) const
{
    p.save();
    p.setClipPath(inside, Qt::IntersectClip);
    double top = r.bottom();
    for (std::size_t i = 0; i < temps.size(); ++i) {
        const double h = r.height() * (shares.empty() ? 1.0 / static_cast<double>(temps.size()) : shares[i]);
        top -= h;
        p.fillRect(QRectF(r.left(), top - 0.5, r.width(), h + 1), temperature_colour(temps[i]));
    }
    p.restore();
}

void PartScene::above(Part part, const QString& s) const
{
    const QRectF r = at(part);
    say(QRectF(r.center().x() - 130, r.top() - 24, 260, 20), Qt::AlignHCenter | Qt::AlignBottom, s, theme().ink, {14, true});
}

} // namespace vernal
