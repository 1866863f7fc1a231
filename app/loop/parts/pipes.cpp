// Pipes: those of the first array end at what stands in their way.
#include "scene.h"

#include <algorithm>

namespace vernal {
namespace {

void place_supply(Layout& l) { l.at(Part::supply) = QRectF(115, 176, 60, 190); }
void place_return(Layout& l) { l.at(Part::back) = QRectF(l.frame.lane - 30, 40, 70, 230); }
void place_second_supply(Layout& l) { l.at(Part::supply_2) = l.frame.plain_pair ? QRectF(640, 176, 55, 190) : QRectF(l.frame.lane + 130, 180, 55, 180); }
void place_second_return(Layout& l) { l.at(Part::back_2) = l.frame.plain_pair ? QRectF(604, 40, 40, 100) : QRectF(l.frame.lane - 16, 70, 40, 110); }

void connect_return(Layout& l)
{
    const QPointF out = l.array_outlet(Part::collector);
    const double lane = l.frame.lane;
    const QPolygonF plain{{QPointF(lane, out.y()), QPointF(lane, l.inlet.y()), l.inlet}};
    QPolygonF way = l.to_store.empty() ? plain : l.to_store;
    if (l.frame.lane_top > 0) { // under the second array into the lane
        way.prepend(QPointF(384, l.frame.lane_top));
        way.prepend(QPointF(384, out.y()));
        if (l.to_store.empty())
            way[2].setY(l.frame.lane_top);
    }
    l.pipe(Segment::return_pipe, QPolygonF{{out}} + way);
    l.sheet.probes[ProbePlace::return_pipe] = l.at(Part::back).center();
    l.sheet.probes[ProbePlace::flow_meter] = way.size() > 1 ? 0.5 * (way[way.size() - 2] + way.last()) : way.last();
}

void connect_supply(Layout& l)
{
    const QPointF pump = l.pump_at(), in = l.sheet.array[Part::collector][3] + QPointF(-4, -14);
    const QPolygonF plain{{l.outlet, QPointF(pump.x(), l.outlet.y())}};
    const QPolygonF to_array{{QPointF(pump.x(), in.y()), in}}, from_store = l.from_store.empty() ? plain : l.from_store;
    if (l.arrangement.pumped()) {
        l.pipe(Segment::supply_pipe, QPolygonF{{pump + QPointF(0, -20)}} + to_array);
        l.pipe(Segment::supply_pipe, from_store + QPolygonF{{pump}}, SheetPipe::Show::first);
    } else {
        l.pipe(Segment::supply_pipe, from_store + to_array);
    }
    l.sheet.probes[ProbePlace::supply_pipe] = {pump.x() + 62, l.outlet.y()};
}

void words(const PartScene& s, const QRectF& box, int align, const QString& name, double temp_c)
{
    s.say(box, align, name + QLatin1Char('\n') + s.words(temp_c, Quantity::temperature), theme().second_ink, {13, false, true});
}

// Where the return comes down between two arrays there is no room for words.
void label_return(const PartScene& s)
{
    const double lane = s.at(Part::back).left() + 30;
    if (s.now.known && s.in_loop(lane) > 500)
        words(s, {lane + 14, s.sheet.place.contains(Part::reservoir) && s.at(Part::reservoir).top() < 160 ? 84.0 : 108.0, 96, 44}, Qt::AlignLeft, QObject::tr("return"), s.now.of(Segment::return_pipe).back());
}

void label_supply(const PartScene& s)
{
    if (s.now.known)
        words(s, {s.sheet.left + 22, s.sheet.left > 0 ? 184.0 : 250.0, 114, 44}, Qt::AlignRight, QObject::tr("supply"), s.now.of(Segment::supply_pipe).front());
}

} // namespace

bool in_a_ring(Segment segment, const Arrangement& a)
{
    return std::any_of(a.routes.begin(), a.routes.end(), [&](const Route& r) { return std::count(r.ring.begin(), r.ring.end(), segment) > 0; });
}

void paint_pipe(const PartScene& s, const SheetPipe& pipe)
{
    const std::vector<double>& temps = s.now.of(pipe.shows);
    const QPolygonF& line = pipe.line;
    s.p.setBrush(Qt::NoBrush);
    s.p.setPen(QPen(s.now.flow_in(pipe.with) ? theme().ink : theme().second_ink, 12, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    s.p.drawPolyline(line);
    double whole = 0, walked = 0;
    for (int i = 1; i < line.size(); ++i)
        whole += QLineF(line[i - 1], line[i]).length();
    const auto share = [&](double at) {
        switch (pipe.how) {
        case SheetPipe::Show::first: return 0.0;
        case SheetPipe::Show::last: return 1.0;
        case SheetPipe::Show::along: break;
        }
        return at / whole;
    };
    for (int i = 1; i < line.size(); ++i) {
        const double length = QLineF(line[i - 1], line[i]).length();
        const int pieces = std::max(1, static_cast<int>(length / 8));
        for (int k = 0; k < pieces; ++k) {
            const double f0 = static_cast<double>(k) / pieces, f1 = static_cast<double>(k + 1) / pieces;
            const double at = share(walked + (f0 + f1) / 2 * length);
            const double c = temps.empty() ? NAN : temps[std::min(temps.size() - 1, static_cast<std::size_t>(at * static_cast<double>(temps.size())))];
            s.p.setPen(QPen(temperature_colour(c), 8, Qt::SolidLine, Qt::RoundCap));
            s.p.drawLine(line[i - 1] + f0 * (line[i] - line[i - 1]), line[i - 1] + f1 * (line[i] - line[i - 1]));
        }
        walked += length;
    }
}

std::vector<PartDrawing> pipe_drawings()
{
    return {{Part::back, place_return, nullptr, connect_return, nullptr, label_return}, {Part::supply, place_supply, nullptr, connect_supply, nullptr, label_supply}, {Part::back_2, place_second_return}, {Part::supply_2, place_second_supply}};
}

} // namespace vernal
