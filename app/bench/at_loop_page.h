// At the loop: what it should show now, which of what was read is wrong, and what ails a pump.
#pragma once

#include "app/shell/dialogs.h"
#include "app/shell/session.h"
#include "core/bench/odd_reading.h"
#include "core/bench/pump_triage.h"

#include <QWidget>

#include <set>

class QComboBox;
class QLabel;
class QPushButton;

class QFormLayout;

namespace vernal {

class NumberEdit;

class AtLoopPage : public QWidget {
    Q_OBJECT
public:
    AtLoopPage(Session& session, const Dialogs& dialogs, QWidget* parent = nullptr);
    NowGiven given() const;
    HourRead read() const;

signals:
    void far_wanted();

protected:
    void showEvent(QShowEvent* e) override;

private:
    QWidget* make_expect();
    QWidget* make_read();
    QWidget* make_pump();
    NumberEdit* add_number(QFormLayout& form, const char* key, const QString& label, Quantity q, double low, double high);
    std::optional<double> typed(NumberEdit* edit) const; // none: left empty
    void refresh();
    void show_expected();
    void show_balance();
    void show_pump();
    void print();
    QString expected_html(bool to_fill_in) const;
    Session& session_;
    const Dialogs& dialogs_;
    NumberEdit *hour_, *air_, *store_;
    QComboBox *sky_, *haze_;
    QLabel *expected_, *balance_, *pump_;
    NumberEdit *litres_, *seconds_, *supply_, *return_, *sun_, *area_, *volt_, *current_, *gauge_;
    std::array<QComboBox*, pump_looks> looks_{};
    std::set<NumberEdit*> typed_;
    bool begun_ = false;
};

} // namespace vernal
