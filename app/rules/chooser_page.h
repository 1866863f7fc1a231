// A few plain questions, and all settings that follow, each with its reason.
#pragma once

#include "app/shell/session.h"
#include "core/advice/schools.h"

#include <QWidget>

class QComboBox;
class QGridLayout;
class QLabel;
class QLayout;
class QVBoxLayout;

namespace vernal {

class ChooserPage : public QWidget {
    Q_OBJECT
public:
    explicit ChooserPage(Session& session, QWidget* parent = nullptr);

signals:
    void taken();

protected:
    void showEvent(QShowEvent* e) override; // likely answers anew

private:
    void add_question(QGridLayout& grid, std::size_t question);
    QLayout* buttons();
    void refresh();
    QWidget* choice_row(const Choice& choice) const;
    Session& session_;
    Answers answers_;
    std::vector<QComboBox*> boxes_;
    std::vector<Choice> choices_;
    QVBoxLayout* rows_;
    QLabel* effect_;
    bool trying_ = false;
};

} // namespace vernal
