// What a procedure found on the bench or at a unit on the wire, as the job keeps it.
#pragma once

#include <array>
#include <cstdint>
#include <string>
#include <vector>

namespace vernal {

enum class StepVerdict : std::uint8_t { open, // not yet
    passed,
    failed,
    not_possible };
inline constexpr std::array verdict_keys{"open", "passed", "failed", "not_possible"};

enum class ReadAt : std::uint8_t { rig, // the unit in the program
    wire };
inline constexpr std::array read_at_keys{"rig", "wire"};

struct BenchReading {
    std::string name, unit; // unit: as the procedure states it; empty: a number
    double value = 0;
    int pass = 1;
    bool operator==(const BenchReading&) const = default;
};

struct BenchStep {
    std::string title, of; // of: key of the probe or output it was done for
    StepVerdict verdict = StepVerdict::open;
    std::string said;
    std::vector<BenchReading> readings;
    bool operator==(const BenchStep&) const = default;
};

struct BenchRecord {
    std::string when;      // local, "2026-05-07T14:30"
    std::string procedure; // its name
    std::string title;     // as it was called then
    std::string variant;   // id of the one that was tested
    ReadAt read_at = ReadAt::rig;
    StepVerdict verdict = StepVerdict::open;
    std::vector<BenchStep> steps;
    BenchRecord();
    BenchRecord(const BenchRecord&);
    BenchRecord(BenchRecord&&) noexcept;
    BenchRecord& operator=(const BenchRecord&);
    BenchRecord& operator=(BenchRecord&&) noexcept;
    ~BenchRecord();
    bool operator==(const BenchRecord&) const;
};

} // namespace vernal
