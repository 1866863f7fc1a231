// A number with its unit, typed in the person's units, kept in SI. What cannot
// be read or is out of range stays as typed, framed, with the reason beside it.
#pragma once

#include "app/shell/session.h"
#include "core/job/fields.h"

#include <QLineEdit>

namespace vernal {

class NumberEdit : public QLineEdit {
    Q_OBJECT
public:
    NumberEdit(Session& session, const NumberField& field, QWidget* parent = nullptr);
    void set_value(double inside); // no signal; leaves a field alone that is being typed in
    double value() const { return value_; }
    bool take();                               // what is typed; false: it cannot be, see reason()
    QString reason() const { return reason_; } // why the text is not taken; empty: it is
    // Part of a sentence: low, without a box of its own, and each number typed on the
    // way is told at once; Escape brings back what stood there.
    void stand_in_text();
    // In a row of a sheet: without a box until the pointer or the caret is in it.
    void stand_in_row();
    // Number of this typing, for edits that belong together; 0: nothing is being typed.
    int sitting() const { return sitting_; }

signals:
    void edited(double inside);
    void grew(); // it wants another width

protected:
    void keyPressEvent(QKeyEvent* e) override;
    void focusInEvent(QFocusEvent* e) override;

private:
    bool refuse(const QString& reason);
    void show_value();
    void type_on();
    void fit();
    void leave_typing();
    void set_reason(const QString& reason);
    Session& session_;
    NumberField field_;
    double value_ = 0;
    QString reason_;
    bool in_text_ = false, in_row_ = false;
    int sitting_ = 0;
    double stood_ = 0; // before this typing
};

} // namespace vernal
