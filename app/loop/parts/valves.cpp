#include "valves.h"

#include <algorithm>
#include <functional>

namespace vernal {
namespace {

using V = HandValve;

constexpr double step = 6, stub_px = 26, beside_px = 18;

struct Spot {
    QPointF at;
    bool upright;
    QLineF stub;
};

// Where valves can sit, nearest first.
class Spots {
public:
    Spots(const Sheet& sheet, const Loop& loop) : sheet_(sheet)
    {
        const Arrangement& a = arrangement_of(loop);
        for (const auto& [part, place] : sheet.place)
            if (a.has(part) && part != Part::supply && part != Part::back && part != Part::supply_2 && part != Part::back_2 && part != Part::drain_back)
                taken_.push_back(place);
        for (const Part part : {Part::tank, Part::tank_2}) // their names stand over them
            if (const auto it = sheet.place.find(part); it != sheet.place.end())
                taken_.push_back(QRectF(it->second.left(), it->second.top() - 26, it->second.width(), 26));
        for (const auto& [place, at] : sheet.probes)
            taken_.push_back(QRectF(at.x() - 12, at.y() - 12, 24, 24));
        for (const SheetPipe& pipe : sheet.pipes)
            for (int i = 1; i < pipe.line.size(); ++i)
                pipes_.push_back(QRectF(pipe.line[i - 1], pipe.line[i]).normalized().adjusted(-7, -7, 7, 7));
    }

    // On a drawn pipe of this stretch, from its beginning or its end on.
    void on_pipe(Segment shows, bool from_end, std::optional<SheetPipe::Show> how = {})
    {
        along(shows, from_end, how, [this](const QPointF& p, const QPointF& way) { spots_.push_back({p, std::fabs(way.y()) > std::fabs(way.x()), {}}); });
    }
    // On a stub off it.
    void off_pipe(Segment shows, bool from_end, std::optional<SheetPipe::Show> how = {})
    {
        along(shows, from_end, how, [this](const QPointF& p, const QPointF& way) {
            for (const double side : {1.0, -1.0}) {
                const QPointF out(-way.y() * side, way.x() * side);
                spots_.push_back({p + out * stub_px, std::fabs(out.y()) > 0.5, QLineF(p, p + out * (stub_px + 16))});
            }
        });
    }
    // On a stub out of a part's side: from this share of its height on, down or up.
    void beside(Part part, double from, bool down)
    {
        const auto it = sheet_.place.find(part);
        if (it == sheet_.place.end())
            return;
        const QRectF r = it->second;
        for (double y = r.top() + from * r.height(); y > r.top() && y < r.bottom(); y += down ? step : -step)
            for (const double out : {-1.0, 1.0}) {
                const double edge = out < 0 ? r.left() : r.right();
                spots_.push_back({QPointF(edge + out * (beside_px + 4), y), false, QLineF(edge, y, edge + out * (beside_px + 20), y)});
            }
        for (double x = r.left() + 16; x < r.right() - 10; x += step) {
            spots_.push_back({QPointF(x, r.bottom() + beside_px), true, QLineF(x, r.bottom(), x, r.bottom() + beside_px + 14)});
            spots_.push_back({QPointF(x, r.top() - beside_px), true, QLineF(x, r.top(), x, r.top() - beside_px - 14)});
        }
    }

    SheetValve take(V v)
    {
        const auto free = [&](const Spot& s, bool strictly) {
            const QRectF area = SheetValve{v, s.at, s.upright, s.stub}.area();
            if (area.left() < 2 || area.right() > sheet_.width - 2 || area.top() < 2 || area.bottom() > sheet_h - 2)
                return false;
            const auto hits = [&](const QRectF& r) { return r.intersects(area); };
            if (std::any_of(taken_.begin(), taken_.end(), hits))
                return false;
            return s.stub.isNull() || !strictly || std::none_of(pipes_.begin(), pipes_.end(), hits);
        };
        for (const bool strictly : {true, false})
            for (const Spot& s : spots_)
                if (free(s, strictly))
                    return keep(v, s);
        // Anywhere is better than over something else.
        for (double y = 20; y < sheet_h - 20; y += step)
            for (double x = 20; x < sheet_.width - 20; x += step)
                if (const Spot s{{x, y}, false, QLineF(x - 14, y, x + 14, y)}; free(s, true))
                    return keep(v, s);
        return keep(v, spots_.empty() ? Spot{{20, 20}, false, {}} : spots_.front());
    }

private:
    SheetValve keep(V v, const Spot& s)
    {
        SheetValve out{v, s.at, s.upright, s.stub};
        taken_.push_back(out.area().adjusted(-2, -2, 2, 2));
        spots_.clear();
        return out;
    }
    void along(Segment shows, bool from_end, std::optional<SheetPipe::Show> how, const std::function<void(const QPointF&, const QPointF&)>& f)
    {
        for (const SheetPipe& pipe : sheet_.pipes) {
            if (pipe.shows != shows || (how && pipe.how != *how) || pipe.line.size() < 2)
                continue;
            QPolygonF line = pipe.line;
            if (from_end)
                std::reverse(line.begin(), line.end());
            for (int i = 1; i < line.size(); ++i) {
                const QLineF piece(line[i - 1], line[i]);
                const QPointF way = piece.length() > 0 ? (piece.p2() - piece.p1()) / piece.length() : QPointF();
                for (double d = 16; d < piece.length() - 10; d += step)
                    f(piece.p1() + way * d, way);
            }
        }
    }
    const Sheet& sheet_;
    std::vector<QRectF> taken_, pipes_;
    std::vector<Spot> spots_;
};

void offer(Spots& spots, V v, const Arrangement& a)
{
    using S = Segment;
    using Show = SheetPipe::Show;
    const bool closed = a.has(Part::vessel);
    switch (v) {
    case V::supply_isolating: spots.on_pipe(S::supply_pipe, true, Show::first); return spots.on_pipe(S::supply_pipe, false);
    case V::return_isolating: return spots.on_pipe(S::return_pipe, true);
    case V::supply_isolating_2: return spots.on_pipe(S::supply_2, false);
    case V::return_isolating_2: return spots.on_pipe(S::return_2, true);
    case V::loop_valve: spots.on_pipe(S::supply_pipe, false, Show::first); return spots.on_pipe(S::supply_pipe, false);
    case V::fill_port: closed ? spots.off_pipe(S::supply_pipe, true, Show::first) : spots.off_pipe(S::supply_pipe, false, Show::along); return spots.off_pipe(S::supply_pipe, false);
    case V::flush_port:
        if (a.has(Part::reservoir))
            return spots.beside(Part::reservoir, 0.6, true);
        if (closed)
            spots.off_pipe(S::supply_pipe, false, Show::first);
        return closed ? spots.off_pipe(S::supply_pipe, false) : spots.off_pipe(S::return_pipe, true);
    case V::fill_port_2: return spots.off_pipe(S::supply_2, false);
    case V::flush_port_2: return spots.off_pipe(S::return_2, true);
    case V::air_vent: return spots.off_pipe(S::return_pipe, false);
    case V::air_vent_2: return spots.off_pipe(S::return_2, false);
    case V::relief: return spots.off_pipe(S::return_pipe, false);
    case V::vessel_valve: return spots.beside(Part::vessel, 0.2, true);
    case V::level_cock: return spots.beside(Part::reservoir, 0.3, true);
    case V::pool_bypass: return spots.beside(Part::pool, 0.08, true);
    case V::water_supply: return spots.on_pipe(S::exchanger_cold, false, Show::first);
    case V::water_return: return spots.on_pipe(S::exchanger_cold, false, Show::last);
    case V::water_fill: spots.off_pipe(S::exchanger_cold, true, Show::first); return spots.beside(Part::exchanger, 0.8, false);
    case V::water_flush: spots.off_pipe(S::exchanger_cold, false, Show::last); return spots.beside(Part::exchanger, 0.2, true);
    case V::cold_inlet: return spots.beside(Part::tank, 0.8, false);
    case V::tank_drain: return spots.beside(Part::tank, 0.92, false);
    case V::tank_relief: return spots.beside(Part::tank, 0.1, true);
    case V::tank_bypass: return spots.beside(Part::tank, 0.7, false);
    case V::heater_inlet: return spots.beside(Part::heater, 0.3, true);
    case V::heater_bypass: return spots.beside(Part::heater, 0.6, true);
    }
}

// In the direction of the flow, where a piece is long enough to show it.
void paint_way(const PartScene& s, QPolygonF line, bool against)
{
    if (against)
        std::reverse(line.begin(), line.end());
    s.p.setPen(Qt::NoPen);
    s.p.setBrush(theme().card);
    for (int i = 1; i < line.size(); ++i) {
        const QLineF piece(line[i - 1], line[i]);
        if (piece.length() < 44)
            continue;
        const QPointF way = (piece.p2() - piece.p1()) / piece.length(), side(-way.y(), way.x());
        for (double d = 24; d < piece.length() - 12; d += 56) {
            const QPointF tip = piece.p1() + way * d;
            s.p.drawPolygon(QPolygonF{{tip, tip - way * 9 + side * 4, tip - way * 9 - side * 4}});
        }
    }
}

void paint_valve(const PartScene& s, const SheetValve& v, int number, ServiceState state)
{
    const Theme& t = theme();
    const ValveStands now = stands(s.loop(), v.valve, state);
    const bool mine = set_by_hand(s.loop(), v.valve, state);
    if (!v.stub.isNull()) {
        s.p.setPen(QPen(t.second_ink, 4, Qt::SolidLine, Qt::FlatCap));
        s.p.drawLine(v.stub);
    }
    // What is open is hollow, what is shut is filled.
    s.p.setPen(QPen(mine ? t.protect : t.ink, 2));
    s.p.setBrush(lets_through(now) ? t.card : t.ink);
    const QPointF along = v.upright ? QPointF(0, 11) : QPointF(11, 0), across = v.upright ? QPointF(8, 0) : QPointF(0, 8);
    if (is_relief(v.valve)) {
        s.p.drawPolygon(QPolygonF{{v.at, v.at - along - across, v.at - along + across}});
        s.p.drawLine(v.at + across, v.at - across);
        if (now == ValveStands::lifted)
            s.p.drawLine(v.at, v.at + along * 1.3);
    } else {
        s.p.drawPolygon(QPolygonF{{v.at - along - across, v.at + along + across, v.at + along - across, v.at - along + across}});
    }
    const QPointF tag = v.at + (v.upright ? QPointF(12, -9) : QPointF(7, -14));
    s.p.setPen(Qt::NoPen);
    s.p.setBrush(t.card);
    s.p.drawEllipse(tag, 9, 9);
    s.p.setPen(t.ink);
    s.p.setFont(text_font(13, true));
    s.p.drawText(QRectF(tag - QPointF(12, 9), QSizeF(24, 18)), Qt::AlignCenter, QString::number(number));
}

} // namespace

std::vector<SheetValve> valves_on(const Sheet& sheet, const Loop& loop)
{
    const Arrangement& a = arrangement_of(loop);
    const auto here = valves_of(loop);
    Spots spots(sheet, loop);
    std::vector<SheetValve> out;
    // First those that lie in one pipe, in its order.
    constexpr std::array first{V::flush_port, V::loop_valve, V::supply_isolating, V::fill_port, V::return_isolating};
    const auto place = [&](V v) {
        offer(spots, v, a);
        out.push_back(spots.take(v));
    };
    for (const V v : first)
        if (std::find(here.begin(), here.end(), v) != here.end())
            place(v);
    for (const V v : here)
        if (std::find(first.begin(), first.end(), v) == first.end())
            place(v);
    std::sort(out.begin(), out.end(), [](const SheetValve& x, const SheetValve& y) { return x.valve < y.valve; });
    return out;
}

void paint_board(const PartScene& s, ServiceState state)
{
    const Theme& t = theme();
    const StateFlow flow = flow_in(s.loop(), state);
    const auto fitted = valves_of(s.loop());
    // A stub lies on the store's side of the valve in it.
    const auto reaches = [&](const SheetPipe& pipe) {
        const bool supply = pipe.with == Segment::supply_pipe && pipe.how == SheetPipe::Show::first, water = pipe.with == Segment::exchanger_cold;
        const HandValve v = water ? HandValve::water_supply : HandValve::supply_isolating;
        return !(supply || water) || std::find(fitted.begin(), fitted.end(), v) == fitted.end() || flow.through(v);
    };
    for (const SheetPipe& pipe : s.sheet.pipes) {
        const bool lit = flow.runs(pipe.with) && reaches(pipe);
        s.p.setBrush(Qt::NoBrush);
        s.p.setPen(QPen(lit ? t.accent : t.second_ink, 12, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
        s.p.drawPolyline(pipe.line);
        if (!lit) {
            s.p.setPen(QPen(t.card, 8, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
            s.p.drawPolyline(pipe.line);
            continue;
        }
        paint_way(s, pipe.line, flow.against(pipe.with));
    }
    for (const PartDrawing& part : part_drawings())
        if (part.paint && s.arrangement.has(part.part) && (part.when_small || part.part == Part::vessel))
            part.paint(s);
    const auto numbered = valves_of(s.arrangement); // a valve that is not fitted leaves a gap
    for (const SheetValve& v : valves_on(s.sheet, s.loop()))
        paint_valve(s, v, static_cast<int>(std::find(numbered.begin(), numbered.end(), v.valve) - numbered.begin()) + 1, state);
}

} // namespace vernal
