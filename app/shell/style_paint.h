// Shapes and sizes of the look's parts.
#pragma once

#include <QStyle>

class QStyleOptionSlider;
class QWidget;

namespace vernal {

// What a button is like, by its object name.
struct ButtonLook {
    enum class Kind : std::uint8_t { usual,
        act,   // what the person most likely wants here
        quiet, // no frame until the pointer is there
        word,  // within a sentence, finely underlined
        rail,  // a station
        part,  // one of a row that belong together; a chosen one is filled
        tile,  // large, text at its left
        rank,  // in the margin of a sheet
        thread // the head of a thread
    } kind = Kind::usual;
    int pad = 11, high = 32;
};
ButtonLook button_look(const QWidget* w);

// A frame with a ground of its own: card, top, rail, side, strip, by its look or object name. Empty: none.
QString panel_name(const QWidget* w);

QRect scroll_part(const QStyleOptionSlider& bar, QStyle::SubControl part);

} // namespace vernal
