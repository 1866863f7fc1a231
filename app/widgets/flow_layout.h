// Lays widgets out like words in a paragraph. A widget with the property
// "attached" (punctuation) sticks to the one before it.
#pragma once

#include <QLayout>

namespace vernal {

class FlowLayout : public QLayout {
public:
    explicit FlowLayout(QWidget* parent = nullptr, int gap_x = 5, int gap_y = 4);
    ~FlowLayout() override;
    void addItem(QLayoutItem* item) override { items_.append(item); }
    int count() const override { return static_cast<int>(items_.size()); }
    QLayoutItem* itemAt(int i) const override { return items_.value(i); }
    QLayoutItem* takeAt(int i) override { return i >= 0 && i < count() ? items_.takeAt(i) : nullptr; }
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override { return arrange(QRect(0, 0, width, 0), false); }
    QSize sizeHint() const override { return minimumSize(); }
    QSize minimumSize() const override;
    Qt::Orientations expandingDirections() const override { return {}; }
    void setGeometry(const QRect& r) override;

private:
    int arrange(const QRect& r, bool place) const;
    QList<QLayoutItem*> items_;
    int gap_x_, gap_y_;
};

} // namespace vernal
