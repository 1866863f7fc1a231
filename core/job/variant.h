// Everything one variant says about the loop, as plain values: parts, probes, rules.
#pragma once

#include "core/plant/loop.h"
#include "core/probe/budget.h"
#include "core/probe/instrument.h"
#include "core/rules/knob.h"
#include "core/rules/rule_set.h"
#include "core/weather/horizon.h"

namespace vernal {

// Set to `other`, the unit reads the probe by another curve than its own.
struct ReadBy {
    bool other = false;
    ProbeCurve curve{PlatinumCurve{1000}, -200, 850};
    bool operator==(const ReadBy&) const = default;
};

struct Probe {
    std::string key = "S1";
    std::string name = "Collector"; // as the sentences say it
    ProbePlace place = ProbePlace::collector;
    ProbeCurve curve{PlatinumCurve{1000}, -200, 850};
    double lag_s = 12.0;
    double placement = 0.0; // share of the surroundings it reads, 0…1
    TempDiff correction;    // the unit adds it, as found side by side with another probe
    Sensor sensor;
    Lead lead;
    Condition condition;
    ReadBy read_by;
    std::vector<CurvePoint> points; // measured
    Instrument instrument;          // in place of curve, lag and all above but the condition, where it reads no temperature
    std::string id{};               // this and the ids below: see ids.h
    Probe();
    Probe(const Probe&);
    Probe(Probe&&) noexcept;
    Probe& operator=(const Probe&);
    Probe& operator=(Probe&&) noexcept;
    ~Probe();
    bool operator==(const Probe&) const;
};

// Everything one variant says about the loop: parts, probes, rules.
struct Variant {
    std::string name = "as found";
    Loop loop;
    std::vector<Probe> probes;
    RuleSet unit;
    InputStage input;                  // of the unit
    std::vector<HorizonPoint> horizon; // as the arrays see it
    std::string id{};
    Variant();
    Variant(const Variant&);
    Variant(Variant&&) noexcept;
    Variant& operator=(const Variant&);
    Variant& operator=(Variant&&) noexcept;
    ~Variant();
    bool operator==(const Variant&) const;
};

} // namespace vernal
