// Builds rows of label and editor for a value's fields, from the field list.
#pragma once

#include "core/job/field_lists.h"
#include "field_sheet.h"
#include "number_edit.h"

#include <QCheckBox>
#include <QLabel>

#include <functional>

class QComboBox;
class QScrollArea;

namespace vernal {

// Rows for every number field of `value`, or those wanted; change(key, inside) is called on an edit.
// Editors are named "<prefix>.<key>". Returns them.
template <class T>
std::vector<NumberEdit*> add_rows(FieldSheet& sheet, Session& session, const QString& prefix, const T& value, const std::function<void(const std::string&, double)>& change, const std::function<bool(const NumberField&)>& wanted = {})
{
    std::vector<NumberEdit*> out;
    for (const auto& [field, inside] : number_fields(value)) {
        if (wanted && !wanted(field))
            continue;
        auto* edit = new NumberEdit(session, field);
        edit->stand_in_row();
        edit->setObjectName(prefix + "." + QString::fromUtf8(field.key));
        edit->set_value(inside);
        sheet.add_number(field, edit);
        const std::string key = field.key;
        QObject::connect(edit, &NumberEdit::edited, edit, [change, key](double v) { change(key, v); });
        out.push_back(edit);
    }
    return out;
}

template <class T>
void refresh_rows(const std::vector<NumberEdit*>& edits, const T& value)
{
    std::size_t next = 0; // both in the order of the fields
    for (const auto& [field, inside] : number_fields(value))
        if (next < edits.size() && edits[next]->objectName().endsWith("." + QString::fromUtf8(field.key)))
            edits[next++]->set_value(inside);
}

// A box per switch of `value`, named "<prefix>.<key>"; change(key, on) on a click.
template <class T>
std::vector<QCheckBox*> add_switches(FieldSheet& sheet, const QString& prefix, const T& value, const std::function<void(const SwitchField&, bool)>& change)
{
    std::vector<QCheckBox*> out;
    for (const auto& [field, on] : switch_fields(value)) {
        auto* check = new QCheckBox(QString::fromUtf8(field.label));
        check->setObjectName(prefix + "." + QString::fromUtf8(field.key));
        check->setMinimumHeight(32);
        check->setChecked(on);
        sheet.add({}, check, field.key, QString::fromUtf8(field.typical));
        QObject::connect(check, &QCheckBox::clicked, check, [change, f = field](bool now) { change(f, now); });
        out.push_back(check);
    }
    return out;
}

template <class T>
void refresh_switches(const std::vector<QCheckBox*>& boxes, const T& value)
{
    const auto found = switch_fields(value);
    for (std::size_t i = 0; i < boxes.size() && i < found.size(); ++i)
        boxes[i]->setChecked(found[i].on);
}

// Empties a layout and deletes its widgets.
void clear_layout(QLayout* layout);

// Makes a panel of this width scroll up and down beside the main view.
QScrollArea* side_scroll(QWidget* panel, int width);

QLabel* heading(const QString& text, const char* style = "h2");

// Shows or hides an editor together with its row.
void show_row(QWidget* edit, bool on);

// A label in the second ink that wraps.
QLabel* remark(const QString& text = {});

// A row with a box of names; change(index) is called when the person chooses.
QComboBox* choice_row(FieldSheet& sheet, const QString& name, const QString& label, const QStringList& names, const std::function<void(int)>& change, const std::string& key = {});

} // namespace vernal
