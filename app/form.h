// Builds rows of label and editor for a value's fields, from the field list.
#pragma once

#include "number_edit.h"

#include <QCheckBox>
#include <QGridLayout>
#include <QLabel>

#include <functional>

class QComboBox;
class QScrollArea;

namespace vernal {

// A visitor that collects the number fields of one value, with a way to read and
// write each through its position in the visit.
struct NumberFields : FieldVisitor {
    struct Entry {
        NumberField field;
        double value;
    };
    std::vector<Entry> entries;
    void number(const NumberField& f, double x) { entries.push_back({f, x}); }
    void temperature(const NumberField& f, Temperature t) { entries.push_back({f, t.in_celsius()}); }
    void difference(const NumberField& f, TempDiff d) { entries.push_back({f, d.in_kelvin()}); }
};

// Writes one number field by its key.
struct SetNumber : FieldVisitor {
    std::string key;
    double to = 0;
    void number(const NumberField& f, double& x) { x = key == f.key ? to : x; }
    void temperature(const NumberField& f, Temperature& t) { t = key == f.key ? Temperature::celsius(to) : t; }
    void difference(const NumberField& f, TempDiff& d) { d = key == f.key ? TempDiff::kelvin(to) : d; }
};

// The switches of one value, and writing one by its key.
struct SwitchFields : FieldVisitor {
    struct Found {
        SwitchField field;
        bool on;
    };
    std::vector<Found> found;
    void boolean(const SwitchField& f, bool on) { found.push_back({f, on}); }
};
struct SetSwitch : FieldVisitor {
    std::string key;
    bool to = false;
    void boolean(const SwitchField& f, bool& on) { on = key == f.key ? to : on; }
};

template <class T>
std::vector<SwitchFields::Found> switch_fields(const T& value)
{
    SwitchFields v;
    fields(v, value);
    return v.found;
}

template <class T>
void set_switch(T& value, const std::string& key, bool to)
{
    SetSwitch v;
    v.key = key;
    v.to = to;
    fields(v, value);
}

template <class T>
std::vector<NumberFields::Entry> number_fields(const T& value)
{
    NumberFields v;
    fields(v, value);
    return v.entries;
}

template <class T>
void set_number(T& value, const std::string& key, double to)
{
    SetNumber v;
    v.key = key;
    v.to = to;
    fields(v, value);
}

// Rows for every number field of `value`; change(key, inside) is called on an edit.
// Editors are named "<prefix>.<key>". Returns them.
template <class T>
std::vector<NumberEdit*> add_rows(QGridLayout& grid, Session& session, const QString& prefix, const T& value, const std::function<void(const std::string&, double)>& change)
{
    std::vector<NumberEdit*> out;
    for (const auto& [field, inside] : number_fields(value)) {
        auto* edit = new NumberEdit(session, field);
        edit->setObjectName(prefix + "." + QString::fromUtf8(field.key));
        edit->set_value(inside);
        auto* label = new QLabel(QString::fromUtf8(field.label));
        label->setToolTip(QString::fromUtf8(field.typical));
        label->setBuddy(edit);
        label->setWordWrap(true);
        const int row = grid.rowCount();
        grid.addWidget(label, row, 0);
        grid.addWidget(edit, row, 1, Qt::AlignRight);
        const std::string key = field.key;
        QObject::connect(edit, &NumberEdit::edited, edit, [change, key](double v) { change(key, v); });
        out.push_back(edit);
    }
    return out;
}

template <class T>
void refresh_rows(const std::vector<NumberEdit*>& edits, const T& value)
{
    const auto entries = number_fields(value);
    for (std::size_t i = 0; i < edits.size() && i < entries.size(); ++i)
        edits[i]->set_value(entries[i].value);
}

// A box per switch of `value`, named "<prefix>.<key>"; change(key, on) on a click.
template <class T>
std::vector<QCheckBox*> add_switches(QLayout& box, const QString& prefix, const T& value, const std::function<void(const SwitchField&, bool)>& change)
{
    std::vector<QCheckBox*> out;
    for (const auto& [field, on] : switch_fields(value)) {
        auto* check = new QCheckBox(QString::fromUtf8(field.label));
        check->setObjectName(prefix + "." + QString::fromUtf8(field.key));
        check->setToolTip(QString::fromUtf8(field.typical));
        check->setMinimumHeight(32);
        check->setChecked(on);
        box.addWidget(check);
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

// Shows or hides an editor together with the label that names it.
void show_row(QWidget* edit, bool on);

// A label in the second ink that wraps.
QLabel* remark(const QString& text = {});

// A row with a box of names; change(index) is called when the person chooses.
QComboBox* choice_row(QGridLayout& grid, const QString& name, const QString& label, const QStringList& names, const std::function<void(int)>& change);

} // namespace vernal
