// The valve board beside the drawing: a state of service, what flows in it, and how each hand valve stands.
#pragma once

#include "app/widgets/field_sheet.h"
#include "core/plant/valve_board.h"

class QComboBox;
class QLabel;
class QPaintDevice;

namespace vernal {

class LoopView;

class ValveSheet : public QWidget {
    Q_OBJECT
public:
    explicit ValveSheet(Session& session, QWidget* parent = nullptr);
    ServiceState state() const { return state_; }
    void choose(ServiceState state);
    // To its other position; one that has none stays.
    void turn(HandValve valve);
    void refresh();

signals:
    void state_chosen(vernal::ServiceState state);

private:
    void put(HandValve valve, int choice);
    void make_rows();
    Session& session_;
    ServiceState state_ = ServiceState::run;
    QComboBox* states_;
    QLabel *about_, *flow_;
    FieldSheet* rows_;
    std::vector<std::pair<HandValve, QComboBox*>> boxes_;
    std::vector<HandValve> shown_;
};

// One page: the drawing in its state, and all valves in all states. False: it cannot be painted on.
bool paint_valve_board(QPaintDevice& device, const LoopView& view, Session& session);

} // namespace vernal
