#include "loop_sheet.h"

namespace vernal {
namespace {

QPolygonF slanted(double x, double y, double w) { return {{QPointF(x, y + 0.16 * w), QPointF(x + w, y), QPointF(x + w + 14, y + 94), QPointF(x + 14, y + 94 + 0.16 * w)}}; }

// Walks rightwards and downwards over the sheet: arrays at the top, stores at the
// bottom, what lies between them on the pipe that it belongs to.
class Layout {
public:
    explicit Layout(const Arrangement& a) : a_(a) {}

    Sheet lay()
    {
        place_arrays();
        place_stores();
        place_between();
        lay_pipes();
        place_probes();
        return std::move(s_);
    }

private:
    bool has(Part p) const { return a_.has(p); }
    bool rings(Segment s) const
    {
        for (const Route& r : a_.routes)
            for (Segment x : r.ring)
                if (x == s)
                    return true;
        return false;
    }

    void place_arrays()
    {
        s_.array[Part::collector] = has(Part::collector_2) ? slanted(176, 64, 170) : slanted(196, 44, 290);
        if (has(Part::collector_2))
            s_.array[Part::collector_2] = slanted(420, 64, 170);
        for (const auto& [part, corners] : s_.array)
            s_.place[part] = corners.boundingRect();
    }

    void place_stores()
    {
        if (has(Part::pool))
            store_ = s_.place[Part::pool] = QRectF(240, 336, 310, 104);
        else if (has(Part::slab))
            store_ = s_.place[Part::slab] = QRectF(236, 372, 320, 62);
        else if (has(Part::room))
            store_ = s_.place[Part::room] = QRectF(250, 262, 250, 180);
        else
            store_ = s_.place[Part::tank] = has(Part::tank_2) ? QRectF(236, 236, 124, 206) : has(Part::exchanger) ? QRectF(250, 232, 140, 214)
                                                                                         : has(Part::collector_2) ? QRectF(280, 256, 150, 190)
                                                                                                                  : QRectF(300, 224, 150, 226);
        if (has(Part::tank_2))
            s_.place[Part::tank_2] = QRectF(416, 236, 124, 206);
    }

    void place_between()
    {
        s_.place[Part::pump] = QRectF(150 - 30, 402 - 30, 60, 60);
        s_.place[Part::supply] = QRectF(115, 176, 60, 190);
        s_.place[Part::back] = has(Part::collector_2) ? QRectF(356, 84, 50, 130) : QRectF(560, 40, 70, has(Part::valve) || has(Part::reservoir) ? 150 : 230);
        if (has(Part::exchanger)) {
            s_.place[Part::exchanger] = QRectF(520, 266, 50, 150);
            s_.place[Part::pump_2] = QRectF(455 - 28, 408 - 28, 56, 56);
        }
        if (has(Part::valve))
            s_.place[Part::valve] = QRectF(590 - 20, 196 - 20, 40, 40);
        if (has(Part::cooler))
            s_.place[Part::cooler] = QRectF(560, 300, 104, 84);
        if (has(Part::reservoir))
            s_.place[Part::reservoir] = QRectF(524, 208, 96, 60);
        if (has(Part::panel))
            s_.place[Part::panel] = QRectF(14, 300, 84, 44);
        s_.place[Part::wiring] = has(Part::battery) ? QRectF(100, 440, 72, 30) : QRectF(20, 438, 72, 30);
        if (has(Part::check_valve))
            s_.place[Part::check_valve] = QRectF(137, 320, 26, 30);
        if (has(Part::vessel))
            s_.place[Part::vessel] = has(Part::collector_2) ? QRectF(230, 432, 32, 40) : QRectF(622, 186, 32, 44);
        if (has(Part::element))
            s_.place[Part::element] = QRectF(store_.right() - 46, store_.bottom() - 0.62 * store_.height() - 12, 54, 24);
        if (has(Part::rock_bed))
            s_.place[Part::rock_bed] = QRectF(548, 206, 84, 74);
        if (has(Part::battery))
            s_.place[Part::battery] = QRectF(24, 424, 66, 40);
        if (has(Part::motor))
            s_.place[Part::motor] = QRectF(24, 364, 66, 34);
        if (has(Part::drain_back)) // a measure from the resting water up to the top of the array
            s_.place[Part::drain_back] = QRectF(664, 52, 32, (has(Part::reservoir) ? s_.place[Part::reservoir].center().y() : store_.top() + 20) - 52);
        if (has(Part::collector_2)) {
            s_.place[Part::pump_2] = QRectF(600, 402 - 30, 60, 60);
            s_.place[Part::supply_2] = QRectF(640, 176, 55, 190);
            s_.place[Part::back_2] = QRectF(604, 40, 40, 100);
        }
    }

    void pipe(Segment shows, QPolygonF line, std::size_t route = 0, SheetPipe::Show how = SheetPipe::Show::along) { s_.pipes.push_back({shows, how, std::move(line), route}); }

    double inlet_y() const { return has(Part::room) ? store_.top() + 66 : rings(Segment::coil) ? store_.top() + 0.5 * store_.height()
                                                                                               : store_.top() + 0.14 * store_.height(); }
    double outlet_y() const { return has(Part::slab) ? store_.center().y() + 12 : store_.bottom() - 26; }

    void lay_pipes()
    {
        using Show = SheetPipe::Show;
        const QPolygonF& top = s_.array[Part::collector];
        const QPointF outlet = top[1] + QPointF(7, 14), inlet = top[3] + QPointF(-4, -14), pump = s_.place[Part::pump].center();
        if (has(Part::collector_2))
            return lay_two_arrays(outlet, inlet, pump);
        pipe(Segment::supply_pipe, {{pump + QPointF(0, -20), QPointF(pump.x(), inlet.y()), inlet}});
        const double left = pump.x();
        if (has(Part::exchanger)) {
            const QRectF x = s_.place[Part::exchanger];
            const QPointF p2 = s_.place[Part::pump_2].center();
            pipe(Segment::return_pipe, {{outlet, QPointF(590, outlet.y()), QPointF(590, x.top() + 18), QPointF(x.right(), x.top() + 18)}});
            pipe(Segment::supply_pipe, {{QPointF(x.right(), x.bottom() - 16), QPointF(590, x.bottom() - 16), QPointF(590, 464), QPointF(left, 464), pump}}, 0, Show::first);
            pipe(Segment::exchanger_cold, {{QPointF(store_.right(), p2.y()), p2, QPointF(x.left() - 20, p2.y()), QPointF(x.left() - 20, x.bottom() - 16), QPointF(x.left(), x.bottom() - 16)}}, 1, Show::first);
            pipe(Segment::exchanger_cold, {{QPointF(x.left(), x.top() + 18), QPointF(x.left() - 34, x.top() + 18), QPointF(x.left() - 34, store_.top() + 28), QPointF(store_.right(), store_.top() + 28)}}, 1, Show::last);
            return;
        }
        const QPolygonF down{{outlet, QPointF(590, outlet.y())}};
        if (has(Part::valve)) {
            const QPointF valve = s_.place[Part::valve].center();
            QPolygonF line = down;
            pipe(Segment::return_pipe, line << valve);
            lay_behind_valve(valve, left, pump);
            return;
        }
        QPolygonF line = down;
        if (has(Part::reservoir)) {
            const QRectF r = s_.place[Part::reservoir];
            pipe(Segment::return_pipe, line << QPointF(590, r.top()));
            pipe(Segment::reservoir, {{QPointF(590, r.bottom()), QPointF(590, inlet_y()), QPointF(store_.right(), inlet_y())}}, 0, Show::first);
        } else {
            pipe(Segment::return_pipe, line << QPointF(590, inlet_y()) << QPointF(store_.right(), inlet_y()));
        }
        pipe(Segment::supply_pipe, {{QPointF(store_.left(), outlet_y()), QPointF(left, outlet_y()), pump}}, 0, Show::first);
    }

    void lay_behind_valve(const QPointF& valve, double left, const QPointF& pump)
    {
        using Show = SheetPipe::Show;
        if (has(Part::tank_2)) {
            const QRectF second = s_.place[Part::tank_2];
            pipe(Segment::coil, {{valve, QPointF(valve.x() - 30, valve.y()), QPointF(388, valve.y()), QPointF(388, inlet_y()), QPointF(store_.right(), inlet_y())}}, 0, Show::first);
            pipe(Segment::coil_2, {{valve, QPointF(valve.x(), inlet_y()), QPointF(second.right(), inlet_y())}}, 1, Show::first);
            pipe(Segment::coil_2, {{QPointF(second.left(), second.bottom() - 22), QPointF(400, second.bottom() - 22), QPointF(400, 464), QPointF(left + 44, 464), QPointF(left + 44, outlet_y())}}, 1, Show::last);
        } else {
            const QRectF c = s_.place[Part::cooler];
            pipe(Segment::coil, {{valve, QPointF(500, valve.y()), QPointF(500, inlet_y()), QPointF(store_.right(), inlet_y())}}, 0, Show::first);
            pipe(Segment::cooler, {{valve, QPointF(valve.x(), c.top())}}, 1, Show::first);
            pipe(Segment::cooler, {{QPointF(valve.x(), c.bottom()), QPointF(valve.x(), 464), QPointF(left + 44, 464), QPointF(left + 44, outlet_y())}}, 1, Show::last);
        }
        pipe(Segment::supply_pipe, {{QPointF(store_.left(), outlet_y()), QPointF(left, outlet_y()), pump}}, 0, Show::first);
    }

    void lay_two_arrays(const QPointF& outlet, const QPointF& inlet, const QPointF& pump)
    {
        using Show = SheetPipe::Show;
        const QPolygonF& second = s_.array[Part::collector_2];
        const QPointF out_2 = second[1] + QPointF(7, 14), in_2 = second[2] + QPointF(-4, -14), pump_2 = s_.place[Part::pump_2].center();
        pipe(Segment::supply_pipe, {{pump + QPointF(0, -20), QPointF(pump.x(), inlet.y()), inlet}});
        pipe(Segment::return_pipe, {{outlet, QPointF(384, outlet.y()), QPointF(384, 214), QPointF(492, 214), QPointF(492, inlet_y()), QPointF(store_.right(), inlet_y())}});
        pipe(Segment::supply_pipe, {{QPointF(store_.left(), outlet_y()), QPointF(pump.x(), outlet_y()), pump}}, 0, Show::first);
        pipe(Segment::return_2, {{out_2, QPointF(624, out_2.y()), QPointF(624, 194), QPointF(516, 194), QPointF(516, inlet_y() + 22), QPointF(store_.right(), inlet_y() + 22)}}, 1);
        pipe(Segment::supply_2, {{QPointF(store_.right(), outlet_y()), QPointF(pump_2.x(), outlet_y()), pump_2}}, 1, Show::first);
        pipe(Segment::supply_2, {{pump_2 + QPointF(20, -10), QPointF(668, pump_2.y() - 10), QPointF(668, 212), QPointF(in_2.x() - 30, 212), QPointF(in_2.x() - 30, in_2.y())}}, 1);
    }

    void place_probes()
    {
        using W = ProbePlace;
        s_.probes[W::collector] = s_.array[Part::collector][1] + QPointF(7, 14);
        if (has(Part::collector_2))
            s_.probes[W::collector_2] = s_.array[Part::collector_2][1] + QPointF(7, 14);
        const auto in = [&](const QRectF& r, double height) { return QPointF(r.left(), r.bottom() - height * r.height()); };
        if (has(Part::tank)) {
            s_.probes[W::tank_bottom] = in(store_, 0.22);
            s_.probes[W::tank_middle] = in(store_, 0.5);
            s_.probes[W::tank_top] = in(store_, 0.85);
        }
        if (has(Part::tank_2)) {
            s_.probes[W::tank_2_bottom] = in(s_.place[Part::tank_2], 0.22);
            s_.probes[W::tank_2_top] = in(s_.place[Part::tank_2], 0.85);
        }
        s_.probes[W::pool_water] = in(store_, 0.62);
        s_.probes[W::slab_return] = QPointF(store_.left() - 26, outlet_y());
        s_.probes[W::room_air] = in(store_, 0.6);
        s_.probes[W::return_pipe] = s_.place[Part::back].center();
        s_.probes[W::supply_pipe] = QPointF(s_.place[Part::pump].center().x() + 62, outlet_y());
    }

    const Arrangement& a_;
    Sheet s_;
    QRectF store_;
};

} // namespace

Sheet sheet_of(const Arrangement& arrangement) { return Layout(arrangement).lay(); }

} // namespace vernal
