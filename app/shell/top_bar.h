// Title, variants, units, undo, and the field that finds or does anything.
#pragma once

#include "session.h"

#include <QFrame>

class QHBoxLayout;
class QLabel;
class QPushButton;

namespace vernal {

class TopBar : public QFrame {
    Q_OBJECT
public:
    TopBar(Session& session, const QList<QAction*>& actions, QWidget* parent = nullptr);

signals:
    void palette_wanted();

private:
    void refresh();
    void show_units();
    QPushButton* unit_button(const QString& name, Units units_when_on, bool is_temperature);
    Session& session_;
    QLabel* title_;
    QLabel* site_;
    QHBoxLayout* variants_;
    QString shown_; // names and choice of the variant buttons now there
    QPushButton *celsius_, *fahrenheit_, *litre_, *gallon_;
};

} // namespace vernal
