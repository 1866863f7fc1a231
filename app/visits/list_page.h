// An ordered list of a visit: what is open, what was done, and the item that is looked at with
// its reason, its caution, its measurement.
#pragma once

#include "app/shell/session.h"
#include "core/visit/check_list.h"

#include <QWidget>

class QComboBox;
class QLabel;
class QLineEdit;
class QListWidget;
class QPushButton;

namespace vernal {

class ListPage : public QWidget {
    Q_OBJECT
public:
    explicit ListPage(Session& session, QWidget* parent = nullptr);
    void show_visit(const std::string& id);

signals:
    void photo_wanted();
    void own_wanted(); // a list of one's own, from a file
    void left();

protected:
    void showEvent(QShowEvent* e) override;
    bool eventFilter(QObject* watched, QEvent* e) override;

private:
    QWidget* make_item();
    void collect();
    void refresh();
    void show_item();
    void tick(Tick tick);
    void take_measure();
    void take_setting();
    const ItemStands* chosen() const;
    const Visit* visit() const;
    Session& session_;
    bool glare_ = false; // theme of what is shown
    std::string id_;
    std::vector<CheckList> lists_;
    std::size_t list_ = 0;
    bool fresh_ = true; // nothing was chosen of it yet
    std::vector<ItemStands> items_;
    QComboBox* which_;
    QListWidget* list_view_;
    QLabel *open_, *title_, *text_, *why_, *caution_, *valves_, *proof_, *measured_, *said_about_;
    QLineEdit *measure_, *said_, *setting_;
    QPushButton *done_, *not_applicable_, *again_, *photo_;
};

} // namespace vernal
