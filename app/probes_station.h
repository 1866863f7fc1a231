#pragma once

#include "form.h"

#include <qcustomplot.h>

class QListWidget;
class QComboBox;

namespace vernal {

// Each probe: place, curve drawn, and the two-way converter.
class ProbesStation : public QWidget {
    Q_OBJECT
public:
    explicit ProbesStation(Session& session, QWidget* parent = nullptr);

private:
    void refresh();
    void show_probe();
    void draw_curve();
    void convert(bool from_ohm);
    void change_curve();
    const Probe* probe() const;
    QWidget* editor();
    QWidget* converter();
    Session& session_;
    QListWidget* list_;
    QLineEdit* name_;
    QComboBox* place_;
    QComboBox* curve_;
    QLabel* curve_error_;
    QGridLayout* grid_;
    std::vector<NumberEdit*> edits_;
    NumberEdit *ohm_, *temp_;
    QLabel* answer_;
    QCustomPlot* plot_;
    std::size_t shown_ = 0;
    std::vector<Probe> shown_probes_;
};

} // namespace vernal
