// The figures of a run, stated once: window, command line, --json and what
// compares runs read this table. A new figure is a line here and, where people
// are to see it, its key in the list of rows.
#pragma once

#include "core/run/figures.h"
#include "core/units/quantity.h"

namespace vernal {

enum class Better : std::uint8_t { neither,
    more,
    less };

struct Figure {
    const char* key;   // in --json, "drain_back/fills"; of the first or second output "outputs/0/starts"
    const char* label; // in the window
    Quantity quantity;
    Better better;
    double (*value)(const Figures& f); // inside unit; NaN: there is none
    // Whether a person wants to see it; a value that is not a number is shown as "–" where it does.
    bool (*applies)(const Figures& f);
    std::string (*words)(const Figures& f, const Units& u) = nullptr; // instead of the number
    bool is_words = false;                                            // no number at all: a place
};
const std::vector<Figure>& figure_table(); // in the order of --json

const Figure* find_figure(const std::string& key); // nullptr: unknown

// The rows that people read, in their order.
const std::vector<const Figure*>& figure_rows();

// Value as it is read; empty: it does not apply, leave the row out.
std::string figure_text(const Figure& figure, const Figures& f, const Units& u);

// Of one output, keys in "outputs".
struct PumpFigure {
    const char* key;
    Quantity quantity; // count: whole
    double (*value)(const PumpFigures& p);
};
const std::vector<PumpFigure>& pump_figure_table();

} // namespace vernal
