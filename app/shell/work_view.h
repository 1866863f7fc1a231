// The window at work: top line, rail, station, findings, day strip.
#pragma once

#include "station.h"
#include "strip.h"

class QAction;
class QPushButton;
class QSplitter;
class QStackedWidget;

namespace vernal {

class FindingsPanel;
class FindingsSpine;

class WorkView : public QWidget {
    Q_OBJECT
public:
    struct Actions {
        QAction* save;
        QAction* sheet;         // title and place
        QList<QAction*> others; // buttons of the top line
    };
    // remember: heights and the findings' place, for the next time.
    WorkView(const StationContext& context, const Actions& actions, bool remember, QWidget* parent = nullptr);
    void show_station(int index); // in stations()
    int station() const;
    Strip& strip() { return *strip_; }
    FindingsPanel& findings() { return *findings_; }
    void show_findings(bool open);
    bool findings_shown() const;
    void show_strip(Strip::Height h);
    void next_strip_height();
    void ask_time();                  // of the cursor, typed
    QList<QAction*> commands() const; // of all stations, see add_command()
    void next_pane();                 // the focus goes on to the next part of the window

signals:
    void palette_wanted();

protected:
    bool eventFilter(QObject* watched, QEvent* e) override;
    void showEvent(QShowEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;

private:
    QWidget* make_rail();
    void mark_stations();
    void pin_findings(bool pinned);
    void place_findings();
    void keep(const char* key, const QVariant& value) const;
    Session& session_;
    bool remember_, pinned_ = false;
    QStackedWidget* stack_;
    QWidget* upper_;
    QSplitter* split_;
    Strip* strip_;
    FindingsPanel* findings_;
    FindingsSpine* spine_;
    QList<QPushButton*> rail_;
    QList<QLabel*> marks_;
};

} // namespace vernal
