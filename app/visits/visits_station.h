// Visits: the logbook. At the left its visits, in the middle a page of it, at the right how the
// loop went over the seasons and what is due.
#pragma once

#include "app/shell/dialogs.h"
#include "app/shell/session.h"

#include <QPageSize>
#include <QWidget>

class QListWidget;
class QMenu;
class QPushButton;
class QStackedWidget;
class QLabel;

namespace vernal {

class CallPage;
class CostPage;
class ListPage;
class SeasonsPanel;
class VisitPage;

class VisitsStation : public QWidget {
    Q_OBJECT
public:
    VisitsStation(Session& session, const Dialogs& dialogs, QWidget* parent = nullptr);
    void begin(Purpose purpose);
    void show_call();
    void show_lists();
    void show_costs();
    void close_shown();
    void show_page();
    void report(const std::string& kind);
    void print(const std::string& kind);
    VisitPage& page() { return *page_; }
    std::string shown() const { return id_; }
    // The paper of a kind, of the shown visit; told where it cannot be made.
    bool write_report(const std::string& kind, const QString& path, QPageSize::PageSizeId size);

protected:
    void showEvent(QShowEvent* e) override;

private:
    QWidget* make_list();
    QWidget* make_middle();
    void fill_report_menu(QMenu& menu);
    void fill_more_menu();
    void refresh();
    void choose(int row);
    void choose_id(const std::string& id);
    void take_settings(bool found);
    void foretell_first_day();
    void add_test();
    void put_due(const std::string& title, const std::string& due_id);
    void write_calendar();
    void edit_letterhead();
    void take_own_list();
    Session& session_;
    const Dialogs& dialogs_;
    std::string id_;
    QListWidget* list_;
    QStackedWidget* pages_;
    QLabel* empty_;
    QPushButton *report_, *more_, *lists_, *close_, *photo_, *found_, *left_;
    QMenu* more_menu_;
    VisitPage* page_;
    ListPage* list_page_;
    CallPage* call_;
    CostPage* cost_;
    SeasonsPanel* seasons_;
    QWidget* nothing_;
};

} // namespace vernal
