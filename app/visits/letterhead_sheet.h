// The person's own letterhead and paper size, for all that is handed over.
#pragma once

#include <QDialog>

namespace vernal {

class LetterheadSheet : public QDialog {
    Q_OBJECT
public:
    explicit LetterheadSheet(QWidget* parent = nullptr);
};

} // namespace vernal
