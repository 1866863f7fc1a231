// The questions a loop is put together from, one below the other.
#pragma once

#include "core/plant/answers.h"

#include <QWidget>

#include <vector>

class QComboBox;
class QLabel;

namespace vernal {

class AnswersSheet : public QWidget {
    Q_OBJECT
public:
    explicit AnswersSheet(QWidget* parent = nullptr);
    void set(const LoopAnswers& answers);
    const LoopAnswers& answers() const { return answers_; }

signals:
    // Somebody answered; what could not go with it was answered otherwise.
    void answered(const vernal::LoopAnswers& answers);

private:
    void choose(std::size_t question, int answer);
    struct Row {
        QLabel* text;
        QComboBox* choice;
    };
    LoopAnswers answers_;
    std::vector<Row> rows_;
    QLabel* also_; // what else had to change, and why
};

} // namespace vernal
