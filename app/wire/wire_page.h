// The bench with a unit on the wire: what it reads, how it is set, what is written to it and read back.
#pragma once

#include "wire_card.h"

class QFrame;

namespace vernal {

class WirePage : public QWidget {
    Q_OBJECT
public:
    WirePage(Session& session, const Dialogs& dialogs, QWidget* parent = nullptr);
    WireLink& link() { return link_; }
    WireCard& card() { return *card_; }

protected:
    void showEvent(QShowEvent* e) override;
    void hideEvent(QHideEvent* e) override;
    bool eventFilter(QObject* of, QEvent* e) override; // the window closes

private:
    QFrame* make_question();
    void ask(const std::vector<WireWrite>& writes);
    void ask_next();
    void say(const QString& words);
    Session& session_;
    WireLink link_;
    WireCard* card_;
    QFrame* question_;
    QWidget* says_;
    QLabel *asks_, *said_;
    QPushButton *write_, *not_;
    std::vector<WireWrite> waiting_; // in order, the first of them is shown
    std::size_t of_ = 0;
    bool writing_ = false;
};

} // namespace vernal
