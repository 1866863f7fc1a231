// Numbers and words that were typed and not yet confirmed.
#pragma once

#include <QWidget>

namespace vernal {

// Takes all of them within this widget. A number that cannot be taken stays as it
// is typed and gets the focus; then the reason, else empty.
QString take_typed(QWidget& in);

} // namespace vernal
