#include "rig_view.h"

#include "app/charts/probe_pen.h"
#include "app/shell/theme.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr std::array media{Medium::air, Medium::hand, Medium::ice_water, Medium::cup, Medium::block, Medium::resistor, Medium::loop};
constexpr double top_px = 8, words_px = 40, picture_px = 46, medium_px = words_px + picture_px + 8, take_px = 16; // words above, so that the wires leave freely

QString name_of(Medium m)
{
    switch (m) {
    case Medium::loop: return QObject::tr("loop");
    case Medium::air: return QObject::tr("air");
    case Medium::hand: return QObject::tr("hand");
    case Medium::ice_water: return QObject::tr("ice");
    case Medium::cup: return QObject::tr("cup");
    case Medium::block: return QObject::tr("block");
    case Medium::resistor: return QObject::tr("resistor");
    }
    return {};
}

std::size_t index_of(Medium m) { return static_cast<std::size_t>(std::find(media.begin(), media.end(), m) - media.begin()); }

} // namespace

RigView::RigView(Session& session, BenchModel& model, QWidget* parent) : QWidget(parent), session_(session), model_(model)
{
    setObjectName(QStringLiteral("rig"));
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setAccessibleName(tr("Rig: probes in what they should feel"));
    connect(&model, &BenchModel::ticked, this, [this] { update(); });
    connect(&model, &BenchModel::remade, this, [this] {
        chosen_ = 0;
        dragged_.reset();
        update();
    });
    connect(&session, &Session::units_changed, this, [this] { update(); });
}

QRectF RigView::place_of(Medium m) const
{
    const double each = width() / static_cast<double>(media.size());
    return {each * static_cast<double>(index_of(m)), top_px, each, medium_px};
}

QPointF RigView::middle_of(Medium m) const
{
    const QRectF r = place_of(m);
    return {r.center().x(), r.top() + words_px + picture_px * 0.6};
}

QRectF RigView::unit_box() const
{
    const double high = low() ? 84 : 112, gap = low() ? 34 : 60, wide = std::min(width() - 40.0, std::max(300.0, 150.0 * static_cast<double>(model_.rig() ? model_.rig()->probes() : 1)));
    return {(width() - wide) / 2, std::max(top_px + medium_px + gap, height() - high - 96.0), wide, high};
}

QPointF RigView::terminal(std::size_t probe) const
{
    const QRectF box = unit_box();
    const double each = box.width() / static_cast<double>(std::max<std::size_t>(1, model_.rig()->probes()));
    return {box.left() + each * (static_cast<double>(probe) + 0.5), box.top()};
}

// Ends in one medium lie side by side.
QPointF RigView::end_of(std::size_t probe) const
{
    Rig& rig = *model_.rig();
    const Medium m = rig.medium(probe);
    double before = 0, all = 0;
    for (std::size_t p = 0; p < rig.probes(); ++p)
        if (rig.medium(p) == m) {
            before += p < probe;
            all += 1;
        }
    return middle_of(m) + QPointF((before - (all - 1) / 2) * 12, 4);
}

QRectF RigView::output_at(std::size_t output) const
{
    const QRectF box = unit_box();
    const double each = box.width() / static_cast<double>(std::max<std::size_t>(1, model_.rig()->outputs()));
    return {box.left() + each * static_cast<double>(output), box.bottom() + 10, each, 76};
}

QColor RigView::colour_of(std::size_t probe) const
{
    return probe_pen(model_.rig()->variant().probes[probe].place).color();
}

void RigView::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    paint_picture(p);
}

void RigView::paint_picture(QPainter& p)
{
    const Theme& t = theme();
    p.setRenderHint(QPainter::Antialiasing);
    if (!model_.rig()) {
        p.setPen(t.second_ink);
        p.setFont(text_font(14));
        p.drawText(rect().adjusted(20, 20, -20, -20), Qt::AlignCenter | Qt::TextWordWrap, model_.trouble().isEmpty() ? tr("The unit is being laid out …") : model_.trouble());
        return;
    }
    for (const Medium m : media)
        paint_medium(p, m);
    paint_unit(p);
    for (std::size_t i = 0; i < model_.rig()->probes(); ++i)
        paint_wire(p, i);
    for (std::size_t o = 0; o < model_.rig()->outputs(); ++o)
        paint_output(p, o);
}

void RigView::paint_medium(QPainter& p, Medium m) const
{
    const Theme& t = theme();
    const QRectF place = place_of(m);
    const QPointF c(place.center().x(), place.top() + words_px + picture_px / 2);
    if (dragged_ && place.contains(*dragged_)) {
        p.setPen(Qt::NoPen);
        p.setBrush(t.accent_ground);
        p.drawRoundedRect(place.adjusted(3, 0, -3, 0), 6, 6);
    }
    p.setPen(QPen(t.second_ink, 1.4));
    p.setBrush(Qt::NoBrush);
    switch (m) {
    case Medium::air:
        for (int i = -1; i < 2; ++i) {
            QPainterPath wave(c + QPointF(-18, i * 9));
            wave.cubicTo(c + QPointF(-8, i * 9 - 8), c + QPointF(6, i * 9 + 8), c + QPointF(18, i * 9));
            p.drawPath(wave);
        }
        break;
    case Medium::hand: {
        QPainterPath palm;
        palm.addRoundedRect(QRectF(c.x() - 15, c.y() - 2, 30, 22), 8, 8);
        p.drawPath(palm);
        for (int i = 0; i < 4; ++i)
            p.drawRoundedRect(QRectF(c.x() - 15 + i * 8, c.y() - 19 + (i == 0 || i == 3 ? 4 : 0), 6, 20), 3, 3);
        break;
    }
    case Medium::ice_water:
    case Medium::cup: {
        const QPolygonF glass{{c + QPointF(-18, -18), c + QPointF(18, -18), c + QPointF(14, 20), c + QPointF(-14, 20)}};
        p.setBrush(m == Medium::cup ? t.protect_ground : t.start_ground);
        p.drawPolygon(glass);
        if (m == Medium::ice_water) {
            p.setBrush(t.card);
            p.drawRect(QRectF(c.x() - 11, c.y() - 8, 9, 9));
            p.drawRect(QRectF(c.x() + 2, c.y() - 2, 9, 9));
        }
        break;
    }
    case Medium::block:
        p.setBrush(t.desk);
        p.drawRect(QRectF(c.x() - 20, c.y() - 14, 40, 34));
        p.setBrush(t.second_ink);
        for (int i = -1; i < 2; ++i)
            p.drawEllipse(c + QPointF(i * 11, -4), 2.6, 2.6);
        break;
    case Medium::resistor:
        p.drawLine(c + QPointF(-22, 2), c + QPointF(-13, 2));
        p.drawRect(QRectF(c.x() - 13, c.y() - 4, 26, 12));
        p.drawLine(c + QPointF(13, 2), c + QPointF(22, 2));
        break;
    case Medium::loop: {
        p.setBrush(t.desk);
        p.drawRoundedRect(QRectF(c.x() + 2, c.y() - 8, 16, 28), 4, 4);
        p.setBrush(Qt::NoBrush);
        p.drawLine(c + QPointF(-20, 6), c + QPointF(-6, -16));
        p.drawPolyline(QPolygonF{{c + QPointF(-6, -16), c + QPointF(8, -16), c + QPointF(8, -8)}});
        p.drawPolyline(QPolygonF{{c + QPointF(-20, 6), c + QPointF(-20, 16), c + QPointF(2, 16)}});
        break;
    }
    }
    constexpr double roomy_px = 76;
    p.setFont(text_font(place.width() < roomy_px ? 11 : 12.5, true));
    p.setPen(t.ink);
    p.drawText(QRectF(place.left(), place.top(), place.width(), 18), Qt::AlignCenter, tr("%1 %2").arg(index_of(m) + 1).arg(name_of(m)));
    const double c_now = model_.rig()->medium_c(m);
    p.setFont(text_font(12));
    p.setPen(t.second_ink);
    p.drawText(QRectF(place.left(), place.top() + 18, place.width(), 18), Qt::AlignCenter, std::isfinite(c_now) ? text(c_now, Quantity::temperature, session_.units()) : m == Medium::loop ? tr("as built")
                                                                                                                                                                                           : QString());
}

void RigView::paint_wire(QPainter& p, std::size_t probe) const
{
    const Theme& t = theme();
    const bool held = dragged_ && probe == chosen_;
    const QPointF from = held ? *dragged_ : end_of(probe), to = terminal(probe);
    const double bend = std::max(40.0, (to.y() - from.y()) * 0.55);
    QPainterPath wire(from);
    wire.cubicTo(from + QPointF(0, bend), to - QPointF(0, bend), to);
    const LeadState lead = model_.rig()->lead(probe);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(colour_of(probe), hasFocus() && probe == chosen_ ? 3.4 : 2.2, lead == LeadState::broken ? Qt::DotLine : Qt::SolidLine));
    p.drawPath(wire);
    p.setPen(QPen(t.card, 1.2));
    p.setBrush(colour_of(probe));
    p.drawEllipse(from, 5, 5);
    p.drawEllipse(to, 5, 5);
}

// Between a probe's terminals while the unit measures, where its input is a divider.
QString RigView::volts_at(const Variant& v, std::size_t probe, double ohm) const
{
    if (v.input.kind != StageKind::pull_up || std::isnan(ohm) || std::string(signal_unit(v.probes[probe].curve)) != "Ω")
        return {};
    InputStage before_gain = v.input;
    before_gain.gain = 1;
    return text(divider_volt(before_gain, ohm), Quantity::signal_voltage, session_.units());
}

void RigView::paint_unit(QPainter& p) const
{
    const Theme& t = theme();
    Rig& rig = *model_.rig();
    const QRectF box = unit_box();
    p.setPen(QPen(t.second_ink, 1.4));
    p.setBrush(t.surface);
    p.drawRect(box);
    const double each = box.width() / static_cast<double>(std::max<std::size_t>(1, rig.probes()));
    for (std::size_t i = 0; i < rig.probes(); ++i) {
        const Probe& probe = rig.variant().probes[i];
        const QRectF cell(box.left() + each * static_cast<double>(i), box.top() + 10, each, box.height() - 12);
        p.setFont(text_font(12.5, true));
        p.setPen(reads_temperature(probe) ? colour_of(i) : t.second_ink); // an instrument's line is too pale for words
        const QFontMetricsF fm(p.font());
        p.drawText(QRectF(cell.left() + 4, cell.top(), cell.width() - 8, 18), Qt::AlignCenter, fm.elidedText(qs(probe.key + " " + probe.name), Qt::ElideRight, cell.width() - 8));
        const Reading r = rig.reading(i);
        const QString reads = r.valid ? reading_text(probe, r.mk / 1000.0, session_.units()) : tr("no reading");
        for (double px = 19; px >= 11; px -= 2) { // as large as the cell has room for
            p.setFont(text_font(px, true));
            if (QFontMetricsF(p.font()).horizontalAdvance(reads) < cell.width() - 6)
                break;
        }
        p.setPen(r.valid ? t.ink : t.protect);
        p.drawText(QRectF(cell.left(), cell.top() + 20, cell.width(), 30), Qt::AlignCenter, reads);
        p.setFont(text_font(12.5));
        const double signal = reads_temperature(probe) ? rig.signal(i) : NAN;
        const QString measured = std::isinf(signal) ? tr("open") : std::isnan(signal) ? QString()
                                                                                      : QStringLiteral("%1 %2").arg(signal, 0, 'f', signal < 1000 ? 1 : 0).arg(QString::fromUtf8(signal_unit(probe.curve)));
        const QString volts = volts_at(rig.variant(), i, signal);
        const LeadState lead = rig.contact_open(i) ? LeadState::broken : rig.lead(i);
        p.setPen(lead == LeadState::sound ? t.second_ink : t.protect);
        p.drawText(QRectF(cell.left(), cell.top() + 50, cell.width(), 18), Qt::AlignCenter, lead == LeadState::sound ? measured : tr("%1, %2").arg(measured, QString::fromLatin1(lead_keys[static_cast<std::size_t>(lead)])));
        p.drawText(QRectF(cell.left(), cell.top() + 68, cell.width(), 18), Qt::AlignCenter, volts);
    }
    if (const double bridge = rig.bridge_v(); std::isfinite(bridge)) {
        p.setFont(text_font(12.5));
        p.setPen(t.second_ink);
        p.drawText(box.adjusted(8, 0, -8, -4), Qt::AlignBottom | Qt::AlignRight, tr("bridge %1").arg(text(bridge, Quantity::signal_voltage, session_.units())));
    }
}

void RigView::paint_output(QPainter& p, std::size_t output) const
{
    const Theme& t = theme();
    Rig& rig = *model_.rig();
    const QRectF at = output_at(output);
    const bool turns = rig.turns(output), live = rig.live(output);
    const QPointF c(at.center().x(), at.top() + 22);
    p.setPen(QPen(live ? t.accent : t.second_ink, live ? 3 : 1.6));
    p.drawLine(QPointF(c.x(), unit_box().bottom()), QPointF(c.x(), c.y() - 18));
    p.setBrush(turns ? t.accent_ground : t.card);
    p.setPen(QPen(turns ? t.accent : t.second_ink, 2));
    p.drawEllipse(c, 18, 18);
    p.save(); // its wheel turns with the rig's time
    p.translate(c);
    p.rotate(turns ? std::fmod(rig.now_s() * 90, 360.0) : 0);
    p.setBrush(turns ? t.accent : t.second_ink);
    p.setPen(Qt::NoPen);
    p.drawPolygon(QPolygonF{{{0, -11}, {8, 8}, {-8, 8}}});
    p.restore();
    const Mode mode = rig.mode(output);
    const QString which = mode == Mode::automatic ? tr("auto") : mode == Mode::on ? tr("ON")
                                                                                  : tr("OFF");
    p.setFont(text_font(12.5, true));
    p.setPen(t.ink);
    p.drawText(QRectF(at.left(), at.top() + 42, at.width(), 18), Qt::AlignCenter, tr("%1 %2").arg(qs(rig.variant().unit.outputs[output].key), turns ? tr("runs") : live ? tr("hums, stands")
                                                                                                                                                                        : tr("rests")));
    p.setFont(text_font(12));
    p.setPen(mode == Mode::automatic && !rig.bypassed(output) ? t.second_ink : t.protect);
    const double w = rig.watt(output);
    p.drawText(QRectF(at.left(), at.top() + 58, at.width(), 18), Qt::AlignCenter, (w > 0 ? text(w, Quantity::power, session_.units()) + (rig.simulation().hydraulics().follows_sun() && rig.supply_v() > 1 ? QStringLiteral(" · ") + text(w / rig.supply_v(), Quantity::current, session_.units()) : QString()) + QStringLiteral(" · ") : QString()) + which + (rig.bypassed(output) ? tr(", bypassed") : QString()));
}

void RigView::send(std::size_t probe, Medium medium)
{
    Rig* rig = model_.rig();
    if (!rig || probe >= rig->probes() || !reads_temperature(rig->variant().probes[probe]))
        return;
    if (medium == Medium::resistor) {
        if (const double ohm = rig->signal(probe); std::isfinite(ohm) && ohm > 0)
            rig->put_resistor(probe, ohm);
    } else {
        rig->put(probe, medium);
    }
    model_.touched();
}

void RigView::next_mode(std::size_t output)
{
    Rig& rig = *model_.rig();
    rig.set_mode(output, rig.mode(output) == Mode::automatic ? Mode::on : rig.mode(output) == Mode::on ? Mode::off
                                                                                                       : Mode::automatic);
    model_.touched();
}

void RigView::mousePressEvent(QMouseEvent* e)
{
    if (!model_.rig() || e->button() != Qt::LeftButton)
        return;
    for (std::size_t i = 0; i < model_.rig()->probes(); ++i)
        for (const QPointF& at : {end_of(i), terminal(i)})
            if (QLineF(at, e->position()).length() < take_px) {
                chosen_ = i;
                dragged_ = e->position();
                return model_.touched();
            }
    for (std::size_t o = 0; o < model_.rig()->outputs(); ++o)
        if (output_at(o).contains(e->position()))
            return next_mode(o);
}

void RigView::mouseMoveEvent(QMouseEvent* e)
{
    if (!dragged_)
        return;
    dragged_ = e->position();
    update();
}

void RigView::mouseReleaseEvent(QMouseEvent* e)
{
    if (!dragged_)
        return;
    dragged_.reset();
    for (const Medium m : media)
        if (place_of(m).contains(e->position()))
            send(chosen_, m);
    update();
}

void RigView::keyPressEvent(QKeyEvent* e)
{
    Rig* rig = model_.rig();
    const int digit = e->key() - Qt::Key_1;
    if (rig && (e->key() == Qt::Key_Right || e->key() == Qt::Key_Left) && rig->probes() > 0) {
        chosen_ = (chosen_ + (e->key() == Qt::Key_Right ? 1 : rig->probes() - 1)) % rig->probes();
        setAccessibleDescription(qs(rig->variant().probes[chosen_].name));
        return model_.touched();
    }
    if (rig && digit >= 0 && digit < static_cast<int>(media.size()) && e->modifiers() == Qt::NoModifier)
        return send(chosen_, media[static_cast<std::size_t>(digit)]);
    if (rig && e->key() == Qt::Key_B && chosen_ < rig->probes()) {
        rig->set_lead(chosen_, rig->lead(chosen_) == LeadState::sound ? LeadState::broken : rig->lead(chosen_) == LeadState::broken ? LeadState::shorted
                                                                                                                                    : LeadState::sound);
        return model_.touched();
    }
    if (rig && e->key() == Qt::Key_C && e->modifiers() == Qt::NoModifier && chosen_ < rig->probes()) {
        rig->open_contact(chosen_, !rig->contact_open(chosen_));
        return model_.touched();
    }
    QWidget::keyPressEvent(e);
}

bool RigView::event(QEvent* e)
{
    if (e->type() == QEvent::ToolTip && model_.rig()) {
        const auto* help = static_cast<QHelpEvent*>(e);
        QString said = tr("Drag a wire's end into what the probe should feel. Left and Right choose a probe, 1 to 7 send it, B breaks or shorts its lead, C opens the contact in it.");
        for (std::size_t o = 0; o < model_.rig()->outputs(); ++o)
            if (output_at(o).contains(help->pos()))
                said = tr("Click: AUTO, ON, OFF. The switch is the unit's own.");
        QToolTip::showText(help->globalPos(), said, this);
        return true;
    }
    return QWidget::event(e);
}

} // namespace vernal
