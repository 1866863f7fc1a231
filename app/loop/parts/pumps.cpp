#include "scene.h"

namespace vernal {
namespace {

using Side = Sheet::Side;

void place_first(Layout& l)
{
    l.at(Part::pump) = QRectF(150 - 30, 402 - 30, 60, 60);
    l.sheet.pump_words[Part::pump] = Side::left;
}

void place_second(Layout& l)
{
    const double x = l.frame.plain_pair ? 630 : l.frame.lane + 120;
    l.at(Part::pump_2) = QRectF(x - 30, 402 - 30, 60, 60);
    l.sheet.pump_words[Part::pump_2] = Side::above;
}

// Between the store and the exchanger.
void place_exchangers(Layout& l)
{
    l.at(Part::exchanger_pump) = QRectF(l.frame.store_right + 65 - 28, 408 - 28, 56, 56);
    l.sheet.pump_words[Part::exchanger_pump] = Side::above;
}

QString doing(const PartScene& s, Driver pump, std::size_t output)
{
    if (!s.now.known)
        return {};
    if (!s.now.runs(output))
        return QObject::tr("rests");
    if (s.now.flow_of(pump) > 0)
        return s.words(s.now.flow_of(pump), Quantity::flow);
    return s.now.trouble != Trouble::none && pump == Driver::pump ? QObject::tr(trouble_text(s.now.trouble)) : QObject::tr("on, no flow");
}

struct Boxes {
    QRectF name, how;
    int align;
};
Boxes boxes(Side side)
{
    switch (side) {
    case Side::above: return {{-50, -44, 100, 20}, {-60, 24, 120, 20}, Qt::AlignHCenter | Qt::AlignVCenter};
    case Side::right: return {{28, -56, 100, 20}, {28, -34, 110, 20}, Qt::AlignLeft | Qt::AlignVCenter};
    case Side::left: break;
    }
    return {{-130, -24, 100, 20}, {-144, -2, 114, 20}, Qt::AlignRight | Qt::AlignVCenter};
}

void paint_pump(const PartScene& s, Part part, Driver pump)
{
    const std::size_t output = s.arrangement.driven_by(pump);
    const Theme& t = theme();
    const QPointF c = s.at(part).center();
    const bool runs = s.now.runs(output);
    s.p.setPen(QPen(runs ? t.accent : t.second_ink, 3));
    s.p.setBrush(t.card);
    s.p.drawEllipse(c, 22, 22);
    s.p.setBrush(runs ? t.accent : t.card);
    s.p.drawPolygon(QPolygonF{{c + QPointF(0, -13), c + QPointF(11, 8), c + QPointF(-11, 8)}});
    if (s.small)
        return;
    const auto& outputs = s.variant.unit.outputs;
    const Boxes box = boxes(s.sheet.pump_words.at(part));
    s.say(box.name.translated(c), box.align, output < outputs.size() ? qs(outputs[output].key) : QObject::tr("no output"), runs ? t.accent : t.second_ink, {14, true});
    s.say(box.how.translated(c), box.align, doing(s, pump, output), t.second_ink, {});
}

void paint_first(const PartScene& s) { paint_pump(s, Part::pump, Driver::pump); }
void paint_second(const PartScene& s) { paint_pump(s, Part::pump_2, Driver::pump_2); }
void paint_exchangers(const PartScene& s) { paint_pump(s, Part::exchanger_pump, Driver::exchanger_pump); }

} // namespace

std::vector<PartDrawing> pump_drawings() { return {{Part::pump, place_first, nullptr, nullptr, paint_first}, {Part::pump_2, place_second, nullptr, nullptr, paint_second}, {Part::exchanger_pump, place_exchangers, nullptr, nullptr, paint_exchangers}}; }

} // namespace vernal
