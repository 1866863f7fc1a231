// Any setting of a job, reached by its path: "rule/3f2a/on_k", "loop/tank/volume_m3",
// "probe/8c1d/lag_s", "output/77e0/mode", "unit/sample_s", "input/kind", "knob/law",
// "variant/name", "day/51aa/mains_c", "day/51aa/draw/1/start_h", "site/place/latitude_deg", "title".
//
// The names after the slashes are the keys of the job file. What has an id is
// named by it, or by its key or name where those hold no slash; entries without
// one are counted from 1. Paths speak of the chosen variant; "variant/ID/…" before
// a path chooses another.
#pragma once

#include "job.h"

#include "core/units/quantity.h"

namespace vernal {

struct Setting {
    enum class Type : std::uint8_t { number,
        whole, // number without decimals
        text,
        choice,        // one of `choices`
        yes_no,        // "true", "false"
        curve,         // as in the job file, "pt1000"
        key };         // of a probe or an output: one of `choices`
    std::string path;  // in its full form, with ids
    std::string label; // as the window has it; may be empty
    Type type = Type::text;
    Quantity quantity = Quantity::number;
    double min = 0, max = 0; // of numbers, inside unit, inclusive
    std::vector<std::string> choices;
    std::string typical;
    std::string value;  // numbers in the inside unit, the shortest text that reads back equal
    bool fixed = false; // can be read, not written: a rule's kind, a probe's or output's key
    bool numeric() const { return type == Type::number || type == Type::whole; }
};

// All settings in the order of the file. variant: index in the job.
std::vector<Setting> settings_of(const Job& job, std::size_t variant);

// Error: there is no such setting; it names the part of the path that is not
// known and what is there.
Result<Setting> setting_at(const Job& job, std::size_t variant, const std::string& path);

// Writes one setting. A number is in the inside unit, "0.3", or has its unit
// behind it, "300 L". Error: no such setting, or a value it cannot have; then nothing changes.
Result<std::monostate> set_setting(Job& job, std::size_t variant, const std::string& path, const std::string& value);
// The value alone: nothing follows it (set_setting: the content of an array its area, unless it was stated).
Result<std::monostate> put_setting(Job& job, std::size_t variant, const std::string& path, const std::string& value);
Result<std::monostate> set_setting(Job& job, std::size_t variant, const std::string& path, double value);

// "loop/tank" of a part; empty: it has no settings.
std::string part_path(Part part);

// Path → value of every setting as it would be in a file that leaves it out.
std::map<std::string, std::string> default_settings(const Job& job, std::size_t variant);

} // namespace vernal
