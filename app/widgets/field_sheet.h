// Settings as rows of a gloved hand's height without gaps between them: name, what
// is usual, value with its unit; and the marks of what was found at each.
#pragma once

#include "app/shell/session.h"

#include <QFrame>

class QLabel;
class QVBoxLayout;

namespace vernal {

class FindingMark;

class FieldRow : public QWidget {
    Q_OBJECT
public:
    // label: empty where the editor names itself. hint: on hover, whence the value comes.
    FieldRow(const QString& label, QWidget* editor, const QString& hint, QWidget* parent = nullptr);
    void set_usual(const QString& usual);
    void set_hint(const QString& hint);
    void show_findings(Session& session, const std::vector<Finding>& found);
    static FieldRow* of(QWidget* editor); // nullptr: it stands in none

protected:
    void paintEvent(QPaintEvent* e) override;
    void resizeEvent(QResizeEvent* e) override;
    void mousePressEvent(QMouseEvent* e) override;

private:
    void make_room();
    QString label_;
    QLabel *name_ = nullptr, *usual_ = nullptr;
    QWidget* editor_;
    FindingMark* mark_ = nullptr;
};

class FieldSheet : public QFrame {
    Q_OBJECT
public:
    explicit FieldSheet(Session& session, QWidget* parent = nullptr);
    // Path of what the rows are settings of, "loop/tank".
    void set_path(const std::string& path);
    // key: of the setting behind the path; empty: it is none.
    FieldRow* add(const QString& label, QWidget* editor, const std::string& key = {}, const QString& hint = {});
    void add_number(const NumberField& field, QWidget* editor);
    void add_wide(QWidget* words); // over the whole width, as high as it needs
    void clear();

private:
    void mark_findings();
    void retell(); // what is usual, in other units
    struct Row {
        FieldRow* row;
        std::string key;
        std::optional<NumberField> field;
    };
    Session& session_;
    QVBoxLayout* box_;
    std::string path_;
    std::vector<Row> rows_;
};

} // namespace vernal
