// A solar loop as the technician describes it: parts with their few numbers.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

namespace vernal {

// Efficiency in the form of ISO 9806 on the area given.
struct Collector {
    double area_m2 = 6.0;
    double eta0 = 0.76;
    double a1_w_m2k = 3.6;
    double a2_w_m2k2 = 0.014;
    double sky_exchange = 0.08;         // a4 of ISO 9806:2017, share of σ(Ta⁴ − Tsky⁴) lost; 0 by covered collectors' reports
    double capacity_j_m2k = 7000.0;     // effective, with its fluid
    double iam_b0 = 0.12;
    double iam_diffuse = 0.9;
    double tilt_deg = 45.0;
    double azimuth_deg = 0.0;           // from south, west positive
    bool operator==(const Collector&) const = default;
};

struct Pipe {
    double length_m = 12.0;
    double outdoor_m = 4.0; // the part next to the collector that lies in the open
    double bore_m = 0.016;
    double loss_w_mk = 0.22;
    bool operator==(const Pipe&) const = default;
};

struct Tank {
    double volume_m3 = 0.3;
    double loss_w_k = 2.5;   // whole tank
    double room_c = 16.0;    // air around it and around the indoor pipe
    double coil_w_k = 380.0; // coil at the usual flow; not used where the tank feeds the collector
    double coil_top = 0.45;  // share of the height that the coil reaches up to
    bool operator==(const Tank&) const = default;
};

struct Pump {
    double flow_m3_s = 1e-4;
    double power_w = 38.0;
    bool operator==(const Pump&) const = default;
};

struct Loop {
    std::string arrangement = "glycol-coil";
    Collector collector;
    Pipe supply; // to the collector
    Pipe back;   // from the collector; "return" in the job file
    Tank tank;
    Pump pump;
    double glycol_fraction = 0.4; // by mass; not used by `direct`
    bool operator==(const Loop&) const = default;
};

enum class ProbePlace : std::uint8_t { collector, tank_bottom, tank_middle, tank_top, return_pipe, supply_pipe };

// One arrangement: an entry of the table in loop.cpp.
enum class Segment : std::uint8_t { collector, return_pipe, coil, tank_down, supply_pipe };
struct Arrangement {
    const char* key;
    const char* title;
    const char* about;
    std::vector<Segment> ring; // in the order of the flow
    bool glycol;               // holds glycol in the ring
};

const std::vector<Arrangement>& arrangements();
const Arrangement* find_arrangement(const std::string& key); // nullptr: unknown

} // namespace vernal
