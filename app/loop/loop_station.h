#pragma once

#include "app/widgets/form.h"
#include "loop_view.h"

class QGridLayout;

namespace vernal {

// The drawn loop, and the few numbers of the part that was clicked.
class LoopStation : public QWidget {
    Q_OBJECT
public:
    explicit LoopStation(Session& session, QWidget* parent = nullptr);
    LoopView* view() { return view_; }

signals:
    void drawing_wanted(); // somebody wants it as a file
    void print_wanted();

private:
    void show_part(Part part);
    void refresh();
    QLabel* words(const QString& text);
    void add_fields(const QString& title);
    void add_element_mode();
    void add_fluid();
    void add_sums();
    void add_safety(Part part);
    Session& session_;
    LoopView* view_;
    QLabel* title_;
    QGridLayout* grid_;
    QVBoxLayout* extra_;
    std::function<void()> refresh_fields_;
    Part part_ = Part::collector;
    QString arrangement_;
};

} // namespace vernal
