// The open curve file (docs/probes.md): the curves that ship with the program,
// and those a person adds.
#pragma once

#include "core/probe/identify.h"

#include <filesystem>

namespace vernal {

// Entries of a curve file. Errors name the file, the entry and what is wrong;
// nothing of a file with an error is taken.
Result<CurveBook> read_curves(const std::string& text, const std::string& file_name);
std::string write_curves(const CurveBook& book);

const CurveBook& shipped_curves();

// Where a person's own file is looked for: vernal-relay/curves.json in the
// folder for settings (XDG_CONFIG_HOME, else ~/.config).
std::filesystem::path own_curves_path();

// The shipped ones and, where the file exists, those in it; an own entry takes
// the place of a shipped one with its key.
Result<CurveBook> all_curves(const std::filesystem::path& own = own_curves_path());

// Adds an entry to a person's own file, which is made where there is none; one with
// its key is replaced.
Result<std::monostate> add_own_curve(const NamedCurve& curve, const std::filesystem::path& own = own_curves_path());

// Curve by its key in the book, or by its own text.
Result<ProbeCurve> curve_by_name(const CurveBook& book, const std::string& key_or_text);

} // namespace vernal
