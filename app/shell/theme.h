// The two looks of the window: Paper, and Glare for sunlight.
#pragma once

#include <QColor>
#include <QFont>
#include <QString>

class QApplication;

namespace vernal {

struct Theme {
    bool glare = false;
    QColor desk, surface, card, hairline, ink, second_ink;
    QColor accent, accent_ground; // runs, chosen, accept
    QColor protect, protect_ground, start, start_ground, caution;
    QColor collector, store_bottom, store_top, air, sun;
    double line_px = 1.6;
};

// The theme in use; one for the whole program.
const Theme& theme();

// Loads the shipped fonts; call once, before the first widget.
void load_fonts();

// Switches the colours of the whole program; nothing is styled anew.
void apply_theme(QApplication& app, bool glare);

QFont text_font(double px, bool bold = false); // its figures are of one width
QFont raw_font(double px);                     // of raw files and code

} // namespace vernal
