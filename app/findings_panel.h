// What is wrong or risky, most serious first; each remedy shows its effect
// before it is accepted. Below it, Why at the cursor.
#pragma once

#include "session.h"

#include <QFrame>
#include <QLabel>

class QVBoxLayout;

namespace vernal {

class FindingsPanel : public QFrame {
    Q_OBJECT
public:
    explicit FindingsPanel(Session& session, QWidget* parent = nullptr);

private:
    void show_findings();
    void show_why();
    QWidget* card(const Finding& f);
    void add_remedy(QVBoxLayout& box, const Finding& f);
    void show_preview(const Outcome& o);
    Session& session_;
    QVBoxLayout* cards_;
    QLabel* count_;
    QLabel* why_;
    QString shown_;               // what the cards say; redrawn only when it changes
    QLabel* effect_ = nullptr;    // of the card whose remedy is tried
    QWidget* accept_ = nullptr;
};

} // namespace vernal
