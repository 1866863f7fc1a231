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

signals:
    void edited(double inside);

protected:
    void keyPressEvent(QKeyEvent* e) override;
    void focusInEvent(QFocusEvent* e) override;

private:
    bool refuse(const QString& reason);
    void show_value();
    void fit();
    void set_reason(const QString& reason);
    Session& session_;
    NumberField field_;
    double value_ = 0;
    QString reason_;
};

} // namespace vernal
