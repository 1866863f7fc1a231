// The bench: a procedure, the rig under the hands, and what decides now.
#pragma once

#include "bench_model.h"

#include <QWidget>

class QCheckBox;
class QComboBox;
class QHBoxLayout;
class QLabel;
class QPushButton;
class QStackedWidget;

namespace vernal {

class FarView;
class LiveThreads;
class NumberEdit;
class RigView;
class UnitPage;
class WirePage;
struct Dialogs;

class BenchStation : public QWidget {
    Q_OBJECT
public:
    BenchStation(Session& session, const Dialogs& dialogs, QWidget* parent = nullptr);
    enum class Page { rig,
        unit, // its sheet
        loop, // at the loop: what it should show, which reading is wrong, the pump
        drills,
        wire };
    void show_page(Page page);
    void show_far();
    void wire_off(); // every output of the unit on the wire
    BenchModel& model() { return *model_; }
    RigView& rig_view() { return *rig_view_; }

protected:
    void showEvent(QShowEvent* e) override;
    void hideEvent(QHideEvent* e) override;

private:
    QHBoxLayout* make_head();
    QWidget* make_rig();
    QHBoxLayout* make_media();
    QHBoxLayout* make_supply();
    void offer_faults();
    QWidget* make_now();
    void show_now();
    void show_wire();
    Session& session_;
    BenchModel* model_;
    RigView* rig_view_ = nullptr;
    QStackedWidget* pages_ = nullptr;
    std::array<QPushButton*, 5> page_buttons_{};
    WirePage* wire_ = nullptr;
    FarView* far_ = nullptr;
    LiveThreads* threads_ = nullptr;
    QWidget* captured_card_ = nullptr;
    QWidget* speed_row_ = nullptr;
    QLabel *hint_ = nullptr, *why_ = nullptr, *captured_ = nullptr, *caution_ = nullptr;
    std::vector<QPushButton*> speeds_;
    std::vector<std::pair<NumberEdit*, Medium>> media_;
    NumberEdit *supply_ = nullptr, *sun_ = nullptr;
    QWidget* sun_row_ = nullptr;
    QPushButton* as_it_stands_ = nullptr;
    QComboBox* fault_ = nullptr;
    QCheckBox *power_ = nullptr, *sound_ = nullptr;
};

} // namespace vernal
