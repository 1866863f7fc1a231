// The marked stretch and the faults painted on a day: seen above the curves, taken by the mouse.
#include "day_chart.h"

#include "app/shell/theme.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr int tape_px = 14, grip_px = 6; // of a fault's tape; of its ends
constexpr std::size_t most_tapes = 3;    // one below the other; more lie on the last

QColor thin(QColor c, int alpha)
{
    c.setAlpha(alpha);
    return c;
}

} // namespace

double DayChart::pixel_of(double time_s) const
{
    const double start = session_.outcome() ? session_.outcome()->start_s() : 0;
    return axisRect()->axis(QCPAxis::atBottom)->coordToPixel(time_s + start);
}

double DayChart::time_at(double x) const
{
    const auto& o = session_.outcome();
    const double t = axisRect()->axis(QCPAxis::atBottom)->pixelToCoord(x) - (o ? o->start_s() : 0);
    return std::clamp(t, 0.0, o && o->size() > 0 ? o->time_s(o->size() - 1) : 86400.0);
}

// Which of those that overlap stands in which row.
std::vector<DayChart::Tape> DayChart::tapes() const
{
    std::vector<Tape> out;
    const std::vector<Fault>& faults = session_.document().day().faults;
    const double begin_s = session_.faults_begin_s();
    const double top = lanes_only_ ? lanes_->top() : axisRect()->top();
    for (std::size_t i = 0; i < faults.size(); ++i) {
        Tape t{i, begin_s + faults[i].from_h * 3600, begin_s + std::max(faults[i].from_h, faults[i].to_h) * 3600, {}};
        if (held_ && held_->fault == i) {
            t.from_s = held_->from_s;
            t.to_s = held_->to_s;
        }
        std::size_t row = 0;
        const auto taken = [&] { return std::any_of(out.begin(), out.end(), [&](const Tape& o) { return o.row == row && o.from_s < t.to_s && t.from_s < o.to_s; }); };
        while (row + 1 < most_tapes && taken())
            ++row;
        t.row = row;
        const double left = std::clamp<double>(pixel_of(t.from_s), axisRect()->left(), axisRect()->right()), right = std::clamp<double>(pixel_of(t.to_s), axisRect()->left(), axisRect()->right());
        t.box = QRectF(left, top + 1 + static_cast<double>(row) * (tape_px + 1), std::max(3.0, right - left), tape_px);
        out.push_back(t);
    }
    return out;
}

void DayChart::paint_marks(QPainter& p) const
{
    const double top = lanes_only_ ? lanes_->top() : axisRect()->top(), bottom = lanes_->bottom();
    const auto band = [&](double from_s, double to_s, const QColor& colour) {
        const double left = std::clamp<double>(pixel_of(from_s), axisRect()->left(), axisRect()->right()), right = std::clamp<double>(pixel_of(to_s), axisRect()->left(), axisRect()->right());
        p.fillRect(QRectF(left, top, right - left, bottom - top), colour);
        return QRectF(left, top, right - left, bottom - top);
    };
    if (const auto& marked = session_.marked()) {
        const QRectF box = band(marked->from_s, marked->to_s, thin(theme().start, 36));
        p.setPen(QPen(theme().start, 1, Qt::DashLine));
        p.drawLine(box.topLeft(), box.bottomLeft());
        p.drawLine(box.topRight(), box.bottomRight());
    }
    p.setFont(text_font(12));
    for (const Tape& t : tapes()) {
        if (t.box.right() <= axisRect()->left() || t.box.left() >= axisRect()->right())
            continue;
        band(t.from_s, t.to_s, thin(theme().protect, 16));
        p.fillRect(t.box, theme().protect_ground);
        p.fillRect(t.box, QBrush(thin(theme().protect, 70), Qt::BDiagPattern));
        p.setPen(QPen(theme().protect, 1));
        p.drawRect(t.box.adjusted(0, 0, -1, -1));
        const QString words = qs(fault_text(session_.document().day().faults[t.fault], session_.document().variant()));
        const QRectF text = t.box.adjusted(4, -1, -3, 0);
        if (text.width() < 24)
            continue;
        const QString shown = p.fontMetrics().elidedText(words, Qt::ElideRight, static_cast<int>(text.width()));
        p.fillRect(QRectF(text.left() - 2, t.box.top() + 1, p.fontMetrics().horizontalAdvance(shown) + 4, t.box.height() - 2), theme().protect_ground);
        p.setPen(theme().ink);
        p.drawText(text, Qt::AlignLeft | Qt::AlignVCenter, shown);
    }
}

// A tape is moved, or one of its ends; false: there is none.
bool DayChart::take_tape(const QPoint& at)
{
    const auto all = tapes();
    for (auto it = all.rbegin(); it != all.rend(); ++it) {
        if (!it->box.adjusted(-grip_px, 0, grip_px, 0).contains(at))
            continue;
        const bool left = std::fabs(at.x() - it->box.left()) <= grip_px, right = std::fabs(at.x() - it->box.right()) <= grip_px;
        held_ = Held{it->fault, it->from_s, it->to_s, time_at(at.x()), right ? Held::Part::end : left ? Held::Part::begin
                                                                                                      : Held::Part::whole};
        return true;
    }
    return false;
}

void DayChart::drag_tape(const QPoint& at)
{
    const Fault& f = session_.document().day().faults[held_->fault];
    const double begin_s = session_.faults_begin_s(), by = time_at(at.x()) - held_->taken_s, from = begin_s + f.from_h * 3600, to = begin_s + f.to_h * 3600;
    constexpr double least_s = 60;
    held_->from_s = held_->part == Held::Part::end ? from : std::max(begin_s, from + by);
    held_->to_s = held_->part == Held::Part::begin ? to : std::max(begin_s, to + by);
    if (held_->to_s - held_->from_s < least_s)
        held_->part == Held::Part::begin ? held_->from_s = held_->to_s - least_s : held_->to_s = held_->from_s + least_s;
    update();
}

void DayChart::drop_tape()
{
    const Held h = *std::exchange(held_, std::nullopt);
    constexpr double minute_s = 60;
    const double begin_s = session_.faults_begin_s();
    const auto whole = [&](double s) { return std::round((s - begin_s) / minute_s) * minute_s / 3600; };
    const Fault& f = session_.document().day().faults[h.fault];
    if (h.from_s == begin_s + f.from_h * 3600 && h.to_s == begin_s + f.to_h * 3600)
        return;
    session_.document().edit_day(tr("Move a fault"), [&](Day& d) {
        d.faults[h.fault].from_h = whole(h.from_s);
        d.faults[h.fault].to_h = whole(h.to_s);
    });
}

void DayChart::tell_of_tape(const QPoint& at)
{
    for (const Tape& t : tapes())
        if (t.box.adjusted(-grip_px, 0, grip_px, 0).contains(at)) {
            const bool end = std::fabs(at.x() - t.box.left()) <= grip_px || std::fabs(at.x() - t.box.right()) <= grip_px;
            setCursor(end ? Qt::SizeHorCursor : Qt::OpenHandCursor);
            const Fault& f = session_.document().day().faults[t.fault];
            setToolTip(tr("%1, %2 to %3").arg(qs(fault_text(f, session_.document().variant())), session_.time_text(t.from_s), session_.time_text(t.to_s)));
            return;
        }
    unsetCursor();
    setToolTip(zoom_ ? QString() : tr("Drag with Shift held to mark a stretch"));
}

} // namespace vernal
