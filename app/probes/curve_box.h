// A box to choose a curve from the shelf, or to type one.
#pragma once

#include "curve_shelf.h"

#include <QComboBox>

class QLabel;

namespace vernal {

class CurveBox : public QComboBox {
    Q_OBJECT
public:
    // error: shows why what was typed is no curve.
    CurveBox(CurveShelf& shelf, QLabel* error, QWidget* parent = nullptr);
    void show_curve(const ProbeCurve& curve);

signals:
    void chosen(const vernal::ProbeCurve& curve, int entry); // entry of the shelf; −1: typed

private:
    void fill();
    void take();
    CurveShelf& shelf_;
    QLabel* error_;
    ProbeCurve shown_;
};

} // namespace vernal
