// What can be done to the log of the chosen day; each makes a new log, undone like any edit.
#pragma once

#include "app/shell/session.h"

#include <QWidget>

class QComboBox;
class QLabel;

namespace vernal {

class FieldSheet;
class NumberEdit;

class LogEditSheet : public QWidget {
    Q_OBJECT
public:
    explicit LogEditSheet(Session& session, QWidget* parent = nullptr);
    void refresh();

signals:
    void said(const QString& what); // what was done, or why not

private:
    using Edit = std::function<Result<Trace>(const Trace&)>;
    NumberEdit* number(FieldSheet& sheet, const char* key, const QString& label, Quantity q, double min, double max, double at, const std::function<void(double)>& take);
    void apply(const QString& label, const Edit& edit);
    void join_with(const QString& other);
    std::vector<std::string> columns() const;  // those chosen
    std::pair<double, double> stretch() const; // marked, or all of it
    const Trace* trace() const;
    Session& session_;
    QComboBox *columns_, *join_;
    NumberEdit *factor_, *offset_;
    QLabel* words_;
    QWidget *cut_, *cut_out_;
};

} // namespace vernal
