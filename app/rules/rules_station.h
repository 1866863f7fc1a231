// Rules as a ledger, beside the operating map.
#pragma once

#include "app/print/settings_sheet.h"
#include "chooser_page.h"
#include "ledger.h"
#include "operating_map.h"
#include "unit_card.h"

class QComboBox;
class QScrollArea;
class QSlider;
class QStackedWidget;

namespace vernal {

class RulesStation : public QWidget {
    Q_OBJECT
public:
    explicit RulesStation(Session& session, QWidget* parent = nullptr);
    enum Page { map_page,
        chooser,
        card,
        unit };
    void show_page(int page);
    Ledger& ledger() { return *ledger_; }

signals:
    void card_save_wanted();
    void card_print_wanted();

private:
    void refresh();
    QWidget* make_map_page();
    void refresh_unit();
    void refresh_head();
    Session& session_;
    Ledger* ledger_;
    OperatingMap* map_;
    QStackedWidget* pages_;
    QScrollArea* unit_page_;
    std::vector<QPushButton*> page_buttons_;
    UnitCard* unit_ = nullptr;
    QString unit_shape_;
    QLabel* map_title_;
    QComboBox* third_;
    QSlider* third_at_;
    QLabel* third_text_;
};

} // namespace vernal
