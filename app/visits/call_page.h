// A customer calls: the words in, causes for this loop ranked, what to ask next.
#pragma once

#include "app/shell/session.h"
#include "core/visit/call_back.h"

#include <QWidget>

class QGridLayout;
class QLabel;
class QListWidget;
class QPlainTextEdit;
class QPushButton;
class QCheckBox;

namespace vernal {

class CallPage : public QWidget {
    Q_OBJECT
public:
    explicit CallPage(Session& session, QWidget* parent = nullptr);
    void begin(); // empties it

signals:
    void became(const std::string& visit_id);
    void left();

private:
    void read_words();
    void rank();
    void show_cause();
    void answer(bool yes);
    void take_back();
    void take_as_visit();
    std::vector<Complaint> complaints() const;
    Session& session_;
    QPlainTextEdit* words_;
    std::vector<QCheckBox*> complaints_;
    QListWidget* causes_;
    QLabel *question_, *answered_, *about_;
    QPushButton *yes_, *no_, *skip_, *undo_, *take_;
    CallBack now_;
    std::vector<PhoneAnswer> answers_;
    std::vector<std::string> skipped_, asked_; // asked_: in their order, skipped ones among them
    std::vector<Complaint> by_words_;          // ticked by what was typed
};

} // namespace vernal
