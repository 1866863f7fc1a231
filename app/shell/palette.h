// "Find or do": whatever the finder knows, by a few letters.
#pragma once

#include "finder.h"

#include <QDialog>

class QLineEdit;
class QListWidget;

namespace vernal {

class Palette : public QDialog {
    Q_OBJECT
public:
    explicit Palette(Finder finder, QWidget* parent = nullptr);

protected:
    bool eventFilter(QObject* watched, QEvent* e) override;

private:
    void filter(const QString& text);
    void act();
    Finder finder_;
    QList<FoundEntry> shown_;
    QLineEdit* field_;
    QListWidget* list_;
};

} // namespace vernal
