#pragma once

#include "answers_sheet.h"
#include "app/widgets/form.h"
#include "loop_view.h"
#include "valve_sheet.h"

class QPushButton;
class QScrollArea;
class QVBoxLayout;

namespace vernal {

// The drawn loop, and the few numbers of the part that was clicked.
class LoopStation : public QWidget {
    Q_OBJECT
public:
    explicit LoopStation(Session& session, QWidget* parent = nullptr);
    LoopView* view() { return view_; }
    void show_valves(ServiceState state = ServiceState::run);

signals:
    void drawing_wanted(); // somebody wants it as a file
    void print_wanted();

protected:
    void resizeEvent(QResizeEvent* e) override;

private:
    void show_part(Part part);
    void show_answers();
    void join(const LoopAnswers& answers);
    void empty_panel();
    void refresh();
    void add_kind();
    void add_fields(const QString& title);
    void open_report(bool open);
    void add_element_mode();
    void add_heater_choices();
    void add_report_wind();
    void add_tempering();
    void add_charging();
    void add_unit_feed();
    void add_choice(const char* key, const QString& label, const QStringList& names, std::function<int(const Loop&)> now);
    void add_fluid();
    void add_sums();
    QWidget* make_panel();
    void show_caution();
    Session& session_;
    LoopView* view_;
    QLabel* title_;
    QLabel* caution_;
    QWidget* panel_;
    QScrollArea* scroll_;
    FieldSheet *sheet_, *report_, *more_; // of the part, what a test report says of it, of the whole loop
    QPushButton* report_head_;
    bool report_open_ = false;
    QVBoxLayout* extra_; // below the sheet
    std::function<void()> refresh_fields_;
    Part part_ = Part::collector;
    AnswersSheet* answers_ = nullptr; // shown in place of a part
    ValveSheet* valves_ = nullptr;    // likewise
    LoopAnswers joined_;
};

} // namespace vernal
