// By which map and where a unit is on the wire; and the stand-in, for trying.
#pragma once

#include "stand_in_process.h"
#include "wire_link.h"

#include "app/shell/dialogs.h"
#include "app/shell/session.h"

#include <QWidget>

class QCheckBox;
class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;
class QSpinBox;

namespace vernal {

class WireCard : public QWidget {
    Q_OBJECT
public:
    WireCard(Session& session, const Dialogs& dialogs, WireLink& link, QWidget* parent = nullptr);
    // A map's text taken into the job; else what is wrong with it.
    std::optional<Error> take_map(const QString& file, const std::string& text);
    RegisterMap map() const; // chosen
    StandInProcess& stand_in() { return stand_in_; }
    bool on_stand_in() const; // what is joined is the stand-in
    void collect();           // the job's maps

signals:
    void said(const QString& words);

private:
    QWidget* make_address();
    QWidget* make_stand_in();
    void show_state();
    void join();
    void save_map();
    WireAddress typed() const;
    Session& session_;
    const Dialogs& dialogs_;
    WireLink& link_;
    StandInProcess stand_in_;
    std::vector<RegisterMap> maps_;
    QComboBox *which_, *by_, *parity_, *baud_, *words_;
    QLineEdit *host_, *terminal_;
    QSpinBox* port_;
    QWidget *tcp_row_, *serial_row_;
    QPushButton *join_, *try_, *say_;
    QLabel *state_, *answered_;
    int joined_port_ = 0;
    std::string joined_with_; // id of the job's first variant then
};

} // namespace vernal
