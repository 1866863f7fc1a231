#include "wire_recorder.h"

#include <QVBoxLayout>

#include <cmath>

namespace vernal {

WireRecorder::WireRecorder(Session& session, WireLink& link, QWidget* parent) : QFrame(parent), session_(session), link_(link)
{
    constexpr int high_px = 160;
    setObjectName(QStringLiteral("card"));
    setFixedHeight(high_px);
    picture_ = new BenchRecorder(session, rows_, tr("minutes, now at the right"));
    picture_->setObjectName(QStringLiteral("wireRecorder"));
    auto* in = new QVBoxLayout(this);
    in->setContentsMargins(8, 4, 8, 4);
    in->addWidget(picture_);
    connect(&link, &WireLink::changed, this, &WireRecorder::record);
    record();
}

// A row each second, of what the variant in hand has at the unit.
void WireRecorder::record()
{
    constexpr double each_s = 1, keep_s = 700;
    const WireLink::State state = link_.state();
    setVisible(state == WireLink::State::joined || state == WireLink::State::lost);
    if (state == WireLink::State::joining) {
        rows_.clear();
        of_.reset();
    }
    if (state != WireLink::State::joined)
        return;
    const Variant& v = session_.document().variant();
    if (!of_ || of_->id != v.id || of_->probes.size() != v.probes.size() || of_->unit.outputs.size() != v.unit.outputs.size()) {
        of_ = v;
        rows_.clear();
        clock_.start();
        picture_->set_unit(v);
    }
    const double now = static_cast<double>(clock_.elapsed()) / 1000;
    if (rows_.empty() || now - rows_.back().time_s >= each_s) {
        const UnitSeen seen = seen_of(link_.map(), link_.image(), v);
        BenchSample s;
        s.time_s = now;
        for (std::size_t p = 0; p < v.probes.size(); ++p)
            s.reads.push_back(reads_temperature(v.probes[p]) ? static_cast<float>(seen.reads[p]) : NAN);
        for (std::size_t o = 0; o < seen.on.size(); ++o)
            s.turns |= seen.on[o].value_or(false) ? 1U << o : 0U;
        rows_.push_back(std::move(s));
        while (now - rows_.front().time_s > keep_s)
            rows_.pop_front();
    }
    picture_->set_now(now);
}

} // namespace vernal
