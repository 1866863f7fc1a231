#include "parts/scene.h"

namespace vernal {
namespace {

// Room for what stands in the way of the return: reservoir, valves, exchanger, cooler.
Layout::Frame frame_of(const Arrangement& a, double& width)
{
    const bool exchanger = a.has(Part::exchanger), cooler = a.has(Part::cooler), pair = a.has(Part::collector_2), two_tanks = a.has(Part::tank_2);
    Layout::Frame f;
    f.plain_pair = pair && a.has(Part::tank) && !exchanger && !cooler && !two_tanks && !a.has(Part::reservoir);
    f.store_right = two_tanks ? 540 : a.has(Part::pool) ? 550
                                  : a.has(Part::slab)   ? 556
                                  : a.has(Part::room)   ? 500
                                  : exchanger           ? 390
                                                        : 450;
    const double beside = exchanger ? f.store_right + 180 : f.store_right; // of what the return must pass
    f.lane = std::max(590.0, beside + (cooler ? 110 : exchanger ? 20
                                                                : 40));
    if (two_tanks && cooler && !exchanger)
        f.lane += 40; // the valve between the tanks stands beside the cooler's
    if (pair && !f.plain_pair) {
        f.lane = std::max(f.lane, 630.0);
        f.lane_top = a.has(Part::reservoir) && a.has(Part::tank) && !exchanger && !two_tanks ? 198 : 206; // over the tank's name
    }
    if (a.has(Part::reservoir) || f.lane_top > 0)
        f.valve_y = 236;
    width = pair && !f.plain_pair ? f.lane + 200 : std::max(least_sheet_w, f.lane + 110);
    return f;
}

// The whole loop gives way to the right for what leads from its tank to the taps.
void make_room_for_taps(Sheet& sheet)
{
    constexpr double taps_w = 196;
    sheet.left = taps_w;
    sheet.width += taps_w;
    for (auto& [part, place] : sheet.place)
        place.translate(taps_w, 0);
    for (auto& [part, corners] : sheet.array)
        corners.translate(taps_w, 0);
    for (SheetPipe& pipe : sheet.pipes)
        pipe.line.translate(taps_w, 0);
    for (auto& [place, at] : sheet.probes)
        at.rx() += taps_w;
    if (!sheet.cable.isNull())
        sheet.cable.translate(taps_w, 0);
}

} // namespace

bool Sheet::lies_level(const QPointF& at) const
{
    constexpr double beside = 2;
    for (const SheetPipe& pipe : pipes)
        for (qsizetype i = 1; i < pipe.line.size(); ++i) {
            const QPointF a = pipe.line[i - 1], b = pipe.line[i];
            if (std::abs(a.y() - b.y()) < 1 && std::abs(a.y() - at.y()) < beside && at.x() > std::min(a.x(), b.x()) - beside && at.x() < std::max(a.x(), b.x()) + beside)
                return true;
        }
    return false;
}

Sheet sheet_of(const Arrangement& arrangement)
{
    Sheet sheet;
    Layout layout{arrangement, sheet};
    layout.frame = frame_of(arrangement, sheet.width);
    const auto each = [&](void (*PartDrawing::*what)(Layout&)) {
        for (const PartDrawing& part : part_drawings())
            if (part.*what && arrangement.has(part.part))
                (part.*what)(layout);
    };
    each(&PartDrawing::place);
    each(&PartDrawing::make_room);
    each(&PartDrawing::connect);
    if (arrangement.has(Part::heater) || arrangement.has(Part::circulation))
        make_room_for_taps(sheet);
    return sheet;
}

} // namespace vernal
