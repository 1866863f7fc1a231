#include "probe_pen.h"

#include "app/shell/theme.h"

namespace vernal {

QPen probe_pen(ProbePlace place)
{
    const Theme& t = theme();
    switch (place) {
    case ProbePlace::collector: return {QBrush(t.collector), t.line_px + 0.2, Qt::SolidLine};
    case ProbePlace::tank_bottom: return {QBrush(t.store_bottom), t.line_px + 0.2, Qt::SolidLine};
    case ProbePlace::tank_top: return {QBrush(t.store_top), t.line_px, Qt::DashLine};
    case ProbePlace::tank_middle: return {QBrush(t.store_top), t.line_px, Qt::DotLine};
    case ProbePlace::return_pipe: return {QBrush(t.protect), t.line_px, Qt::DashDotLine};
    case ProbePlace::supply_pipe: return {QBrush(t.start), t.line_px, Qt::DashDotDotLine};
    case ProbePlace::collector_2: return {QBrush(t.collector), t.line_px, Qt::DashDotLine};
    case ProbePlace::tank_2_bottom: return {QBrush(t.store_bottom), t.line_px, Qt::DashDotLine};
    case ProbePlace::tank_2_top: return {QBrush(t.store_top), t.line_px, Qt::DashDotDotLine};
    case ProbePlace::circulation_return: return {QBrush(t.protect), t.line_px, Qt::DotLine};
    case ProbePlace::pool_water:
    case ProbePlace::slab_return:
    case ProbePlace::room_air: return {QBrush(t.store_bottom), t.line_px + 0.2, Qt::SolidLine};
    case ProbePlace::flow_meter:
    case ProbePlace::pressure_sensor: return {QBrush(t.air), t.line_px, Qt::SolidLine};
    case ProbePlace::sun_sensor: return {QBrush(t.sun), t.line_px, Qt::SolidLine};
    }
    return {QBrush(t.ink), 1, Qt::SolidLine};
}

} // namespace vernal
