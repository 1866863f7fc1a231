// The first rows of a log as they stand in the file, and over each column what it is
// taken for and in which unit.
#pragma once

#include "files/import/log_layout.h"

#include <QTableWidget>

class QComboBox;

namespace vernal {

class LogTable : public QTableWidget {
    Q_OBJECT
public:
    explicit LogTable(QWidget* parent = nullptr);
    void show(const LogLayout& layout, const std::vector<std::vector<std::string>>& rows, const std::vector<LogTarget>& targets);
    const LogLayout& layout() const { return layout_; }

signals:
    void edited(); // layout() has changed

private:
    void add_column(int column);
    void offer_units(int column);
    void choose(int column, int index);
    QComboBox* unit_box(int column) const;
    LogLayout layout_;
    std::vector<LogTarget> targets_;
};

} // namespace vernal
