// What the unit and its outputs are like: names, what they drive, what they do
// when power returns and when a probe fails.
#pragma once

#include "app/widgets/number_edit.h"

#include <QCheckBox>
#include <QFrame>

class QGridLayout;
class QLayout;

namespace vernal {

class UnitCard : public QFrame {
    Q_OBJECT
public:
    explicit UnitCard(Session& session, QWidget* parent = nullptr);
    void refresh(); // numbers from the document

private:
    QWidget* output(std::size_t index);
    QLayout* output_head(std::size_t index);
    QWidget* fault_words(std::size_t index);
    void edit_output(std::size_t index, const QString& label, const std::function<void(Output&)>& change, const QString& merge = {});
    Session& session_;
    std::vector<NumberEdit*> rows_;
    std::vector<QCheckBox*> switches_;
    std::vector<std::vector<NumberEdit*>> output_rows_;
    std::vector<std::vector<QCheckBox*>> output_switches_;
};

// Its names and choices: the card is built anew when they change.
QString shape_of(const RuleSet& unit);

} // namespace vernal
