// What is wrong or risky, most serious first; each remedy shows its effect
// before it is accepted. Below it, Why at the cursor.
#pragma once

#include "app/shell/session.h"

#include <QFrame>
#include <QLabel>

class QPushButton;
class QScrollArea;
class QVBoxLayout;

namespace vernal {

class FindingsPanel : public QFrame {
    Q_OBJECT
public:
    explicit FindingsPanel(Session& session, QWidget* parent = nullptr);
    static constexpr int width_px = 300;
    void show_pinned(bool pinned);
    void try_remedy(const QString& which); // as Session::finding_wanted says
    void take_focus();                     // to the first remedy
    bool leave_try();                      // of the remedy that is tried; false: none is

signals:
    void pin_wanted(bool pin);
    void close_wanted();

private:
    void show_findings();
    void show_why();
    struct Card {
        QLabel* title = nullptr;
        QLabel* reason = nullptr;
        QPushButton *attempt = nullptr, *leave = nullptr, *show = nullptr;
        QFrame* frame = nullptr;
        std::shared_ptr<Remedy> remedy;                    // what the buttons of this card now do; none: nothing to try
        std::shared_ptr<std::pair<double, double>> seen_s; // likewise
    };
    void remake(std::size_t findings);
    Card make_card(const Finding& like);
    void add_show(QVBoxLayout& box, Card& c);
    void add_remedy(QVBoxLayout& box, Card& c);
    static void fill(Card& c, const Finding& f);
    void show_preview(const Outcome& o);
    Session& session_;
    QVBoxLayout* cards_;
    QLabel* count_;
    QLabel* why_;
    QScrollArea* scroll_;
    QPushButton* pin_;
    std::vector<Card> shown_;
    bool glare_ = false;       // the theme the cards were made in
    QLabel* effect_ = nullptr; // of the card whose remedy is tried
};

} // namespace vernal
