// Rules as sentences with numbers in them, beside the operating map.
#pragma once

#include "operating_map.h"
#include "rule_card.h"
#include "unit_card.h"

#include <set>

class QComboBox;
class QSlider;
class QVBoxLayout;

namespace vernal {

class RulesStation : public QWidget {
    Q_OBJECT
public:
    explicit RulesStation(Session& session, QWidget* parent = nullptr);

private:
    void refresh();
    void rebuild();
    QWidget* outputs_row();
    QWidget* add_button();
    QWidget* third_row();
    void refresh_third();
    Session& session_;
    QVBoxLayout *cards_, *outputs_;
    OperatingMap* map_;
    std::vector<RuleCard*> shown_;
    UnitCard* unit_ = nullptr;
    QLabel* refusal_; // why a rule could not be moved
    std::set<std::size_t> open_; // rules whose details are shown
    QComboBox* third_;
    QSlider* third_at_;
    QLabel* third_text_;
    QString shape_; // kinds, switches, probes of the cards now shown
};

} // namespace vernal
