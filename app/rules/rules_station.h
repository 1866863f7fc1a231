// Rules as sentences with numbers in them, beside the operating map.
#pragma once

#include "app/print/settings_sheet.h"
#include "chooser_page.h"
#include "operating_map.h"
#include "rule_card.h"
#include "unit_card.h"

#include <set>

class QComboBox;
class QSlider;
class QStackedWidget;
class QVBoxLayout;

namespace vernal {

class RulesStation : public QWidget {
    Q_OBJECT
public:
    explicit RulesStation(Session& session, QWidget* parent = nullptr);
    void show_page(int page); // 0 map, 1 chooser, 2 settings card

signals:
    void card_save_wanted();
    void card_print_wanted();

private:
    void refresh();
    void rebuild();
    QWidget* outputs_row();
    QWidget* add_button();
    QWidget* third_row();
    QWidget* map_page();
    void refresh_third();
    Session& session_;
    QVBoxLayout *cards_, *outputs_;
    OperatingMap* map_;
    QStackedWidget* pages_;
    std::vector<QPushButton*> page_buttons_;
    std::vector<RuleCard*> shown_;
    UnitCard* unit_ = nullptr;
    QLabel* refusal_;            // why a rule could not be moved
    std::set<std::size_t> open_; // rules whose details are shown
    QComboBox* third_;
    QSlider* third_at_;
    QLabel* third_text_;
    QString shape_; // kinds, switches, probes of the cards now shown
};

} // namespace vernal
