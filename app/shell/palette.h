// "Find or do": every action, day and variant by a few letters.
#pragma once

#include <QDialog>

#include <functional>

class QLineEdit;
class QListWidget;

namespace vernal {

struct PaletteEntry {
    QString name, hint;
    std::function<void()> act;
};

class Palette : public QDialog {
    Q_OBJECT
public:
    explicit Palette(QList<PaletteEntry> entries, QWidget* parent = nullptr);

protected:
    bool eventFilter(QObject* watched, QEvent* e) override;

private:
    void filter(const QString& text);
    void act();
    QList<PaletteEntry> entries_;
    QLineEdit* field_;
    QListWidget* list_;
};

} // namespace vernal
