// What a part of the drawing is painted with. One file a part, or a family of
// parts, in this folder; parts.cpp lists them in the order in which they are painted.
#pragma once

#include "app/loop/loop_live.h"
#include "app/shell/theme.h"

#include <QPainter>
#include <QPainterPath>

namespace vernal {

struct PartScene {
    QPainter& p;
    const Sheet& sheet;
    const LoopLive& now;
    const Loop& loop;
    const Arrangement& arrangement;
    const Units& units;
    bool small = false; // beside a probe's lead: no words that could not be read
    QString words(double v, Quantity q) const { return text(v, q, units); }
    QRectF at(Part part) const { return sheet.place.at(part); }
    // A figure on the drawing.
    void plate(const QPointF& centre, double temp_c) const;
    // Layers from the bottom up inside a path.
    void layers(const QRectF& r, const QPainterPath& inside, const std::vector<double>& temps) const;
    // The name over a part.
    void above(Part part, const QString& s) const;
};

struct PartPainter {
    Part part;
    void (*paint)(const PartScene& s);
    void (*label)(const PartScene& s) = nullptr; // painted after all parts
    bool when_small = true;
};
const std::vector<PartPainter>& part_painters();

void paint_tank(const PartScene& s);
void label_tank(const PartScene& s);
void paint_second_tank(const PartScene& s);
void label_second_tank(const PartScene& s);
void paint_pool(const PartScene& s);
void label_pool(const PartScene& s);
void paint_slab(const PartScene& s);
void label_slab(const PartScene& s);
void paint_room(const PartScene& s);
void label_room(const PartScene& s);
void paint_exchanger(const PartScene& s);
void paint_reservoir(const PartScene& s);
void label_reservoir(const PartScene& s);
void paint_cooler(const PartScene& s);
void label_cooler(const PartScene& s);
void paint_panel(const PartScene& s); // with the motor
void paint_battery(const PartScene& s);
void paint_drain_back(const PartScene& s);
void paint_valve(const PartScene& s);
void paint_check_valve(const PartScene& s);
void paint_vessel(const PartScene& s);
void paint_element(const PartScene& s);
void paint_wiring(const PartScene& s);
void paint_rock_bed(const PartScene& s);

} // namespace vernal
