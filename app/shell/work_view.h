// The window at work: rail, station, findings, day strip.
#pragma once

#include "station.h"
#include "strip.h"

class QAction;
class QPushButton;
class QStackedWidget;

namespace vernal {

class WorkView : public QWidget {
    Q_OBJECT
public:
    WorkView(const StationContext& context, const QList<QAction*>& top_actions, QWidget* parent = nullptr);
    void show_station(int index); // in stations()
    Strip& strip() { return *strip_; }

signals:
    void palette_wanted();

private:
    QWidget* make_rail();
    void mark_stations();
    Session& session_;
    QStackedWidget* stack_;
    Strip* strip_;
    QList<QPushButton*> rail_;
    QList<QLabel*> marks_;
};

} // namespace vernal
