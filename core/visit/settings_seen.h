// What was found in a unit and what was left, in the sentences of the rules.
#pragma once

#include "core/job/job.h"

namespace vernal {

struct SettingPiece {
    enum class Is : std::uint8_t { same,
        was,   // found, gone now: struck through
        now }; // left in its place: bold
    std::string text;
    Is is = Is::same;
    bool operator==(const SettingPiece&) const = default;
};
using SettingLine = std::vector<SettingPiece>;

struct SettingsSeen {
    std::vector<SettingLine> lines; // what differs
    std::size_t same = 0;           // rules that are as they were
};

SettingsSeen settings_seen(const Variant& found, const Variant& left, const Units& units);

// One sentence made into another, word by word: what is common stands once.
SettingLine words_between(const std::string& found, const std::string& left);

std::string plain_text(const SettingLine& line); // "… [was 5.6 K] 9.4 K …"

} // namespace vernal
