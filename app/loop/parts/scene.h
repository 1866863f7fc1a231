// What a part of the drawing is laid out and painted with. One file a part, or a
// family of parts, in this folder; parts.cpp lists them in the order in which they
// are painted.
#pragma once

#include "app/loop/loop_live.h"
#include "app/shell/theme.h"

#include <QPainter>
#include <QPainterPath>

namespace vernal {

// A sheet while the parts lay themselves out: all take their places, then those
// that need more room move others, then all connect.
struct Layout {
    const Arrangement& arrangement;
    Sheet& sheet;
    // What stands where, from left to right: supply, stores, exchanger, the lane in which
    // the return comes down, the cooler under it, the second array's pump.
    struct Frame {
        double store_right = 450; // of the last store
        double lane = 590;
        double lane_top = 0;     // from where on down all that is collected runs in it; 0: from the array
        double valve_y = 196;    // of the first valve in it
        bool plain_pair = false; // two arrays and one tank, nothing else: their pipes come down beside it
    } frame{};
    Part store = Part::tank;   // the first
    QPointF inlet{}, outlet{}; // of the store, on the sides of the return and of the supply
    // The first array's return behind its outlet and the supply up to its pump, where
    // something stands between array and store; otherwise empty.
    QPolygonF to_store{}, from_store{};
    QRectF& at(Part part) { return sheet.place[part]; }
    void move(Part part, const QRectF& to) // where the arrangement has it
    {
        if (const auto it = sheet.place.find(part); it != sheet.place.end())
            it->second = to;
    }
    // Of the loop pump; where there is none, of where it would stand.
    static QPointF pump_at() { return {150, 402}; }
    QPointF array_outlet(Part part) { return sheet.array[part][1] + QPointF(7, 14); }
    void probe(ProbePlace place, const QRectF& part, double height) { sheet.probes[place] = {part.left(), part.bottom() - height * part.height()}; }
    void pipe(Segment shows, QPolygonF line, SheetPipe::Show how = SheetPipe::Show::along) { sheet.pipes.push_back({shows, how, std::move(line), shows}); }
    // From a valve to a store: as warm as the return, dark while fluid runs through that store.
    void branch(Segment into, QPolygonF line) { sheet.pipes.push_back({Segment::return_pipe, SheetPipe::Show::last, std::move(line), into}); }
};

struct PartScene {
    QPainter& p;
    const Sheet& sheet;
    const LoopLive& now;
    const Variant& variant;
    const Arrangement& arrangement;
    const Units& units;
    bool small = false; // beside a probe's lead: no words that could not be read
    double scale = 1.0; // pixels of a point of the sheet: words keep their size on the screen
    const Loop& loop() const { return variant.loop; }
    QString words(double v, Quantity q) const { return text(v, q, units); }
    QRectF at(Part part) const { return sheet.place.at(part); }
    double in_loop(double x) const { return x - sheet.left; } // as the loop lies without what stands to its left
    // Words on the drawing, never smaller than can be read; a detail fades where the
    // drawing is too small for it. px: at the sheet's own size.
    struct Words {
        double px = 13;
        bool bold = false, detail = false, ground = true;
    };
    void say(const QRectF& box, int align, const QString& text, const QColor& ink, Words how) const;
    // A figure on the drawing.
    void plate(const QPointF& centre, double temp_c) const;
    // Layers from the bottom up inside a path.
    // From the bottom, in shares of the height; without shares all alike.
    void layers(const QRectF& r, const QPainterPath& inside, const std::vector<double>& temps, const std::vector<double>& shares = {}) const;
    // The name over a part.
    void above(Part part, const QString& s) const;
};

struct PartDrawing {
    Part part;
    void (*place)(Layout&) = nullptr;
    void (*make_room)(Layout&) = nullptr;
    void (*connect)(Layout&) = nullptr; // its pipes and probes
    void (*paint)(const PartScene& s) = nullptr;
    void (*label)(const PartScene& s) = nullptr; // painted after all parts
    bool when_small = true;
};
const std::vector<PartDrawing>& part_drawings();

bool in_a_ring(Segment segment, const Arrangement& arrangement);
void paint_pipe(const PartScene& s, const SheetPipe& pipe);

// Each file's parts, in the order in which they are painted.
std::vector<PartDrawing> array_drawings();
std::vector<PartDrawing> store_drawings();
std::vector<PartDrawing> drawings_between();
std::vector<PartDrawing> power_drawings();
std::vector<PartDrawing> protection_drawings();
std::vector<PartDrawing> pipe_drawings();
std::vector<PartDrawing> pump_drawings();
std::vector<PartDrawing> tap_drawings();

} // namespace vernal
