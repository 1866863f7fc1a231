// Each output's thread through the rules of the unit on the bench, live: which ask, which decides.
#pragma once

#include "core/bench/rig.h"
#include "core/wording/threads.h"

#include <QWidget>

namespace vernal {

class LiveThreads : public QWidget {
    Q_OBJECT
public:
    explicit LiveThreads(QWidget* parent = nullptr);
    void show_rig(const Rig& rig);
    QSize sizeHint() const override;
    std::size_t rows() const { return rows_.size(); }

protected:
    void paintEvent(QPaintEvent* e) override;
    bool event(QEvent* e) override; // a knot in words

private:
    struct Row {
        QString title;
        std::vector<Knot> knots; // by output
        bool operator==(const Row&) const = default;
    };
    QPointF at(std::size_t row, std::size_t output) const;
    std::vector<Row> rows_;
    std::vector<Decision> decisions_;
    QStringList keys_;
};

} // namespace vernal
