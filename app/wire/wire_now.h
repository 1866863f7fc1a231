// What a unit on the wire reads and does now, and its switches.
#pragma once

#include "wire_link.h"

#include "app/shell/session.h"

#include <QWidget>

class QCheckBox;
class QGridLayout;
class QLabel;
class QPushButton;
class QTableWidget;

namespace vernal {

class WireNow : public QWidget {
    Q_OBJECT
public:
    WireNow(Session& session, WireLink& link, QWidget* parent = nullptr);

signals:
    void asked(const std::vector<vernal::WireWrite>& writes); // to be shown before they are written

protected:
    void resizeEvent(QResizeEvent* e) override;

private:
    void lay_out();
    void show_now();
    void fill_row(int row, const MapRegister& r);
    Session& session_;
    WireLink& link_;
    QTableWidget* table_;
    QGridLayout* switches_;
    struct Switch {
        std::string output;
        QLabel* stands;
        std::array<QPushButton*, 3> to;
    };
    std::vector<Switch> rows_;
    QCheckBox* arm_;
    QPushButton* off_;
    QLabel *caution_, *nothing_;
    QWidget* rest_; // keeps the words at the top
    RegisterMap laid_out_;
};

} // namespace vernal
