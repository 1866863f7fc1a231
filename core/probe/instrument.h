// An input that reads no temperature: a flow meter, a pressure sensor, a sun sensor.
#pragma once

#include "chain.h"
#include "core/units/reads.h"

#include <cmath>

namespace vernal {

struct Instrument {
    double full_m3_s = 0, full_pa = 0, full_w_m2 = 0; // end of its scale; 0: not stated, it has none
    double least_m3_s = 0;                            // a flow below does not turn it: it reads 0
    double error_share = 0;                           // of what is there, it reads so much more
    double stuck_share = 0;                           // stuck: it reads this share of its scale for ever
    bool operator==(const Instrument&) const = default;
};

// From what is there to what the unit reads, both in L/min, bar or W/m². Rises with what
// is there; shows it without lag. Negative flows and sun read 0, a pressure may lie below the air's.
class InstrumentChain {
public:
    InstrumentChain() = default; // reads a temperature: no instrument
    InstrumentChain(Reads reads, const Instrument& instrument, const Condition& condition);
    bool present() const { return reads_ != Reads::temperature; }
    Reads reads() const { return reads_; }
    Seen at(double there) const;

private:
    Reads reads_ = Reads::temperature;
    double full_ = INFINITY, least_ = 0, gain_ = 1, stuck_ = 0;
    bool is_stuck_ = false, lost_ = false;
};

} // namespace vernal
