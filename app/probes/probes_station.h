// The probes of a variant, and the pages that say all about one of them.
#pragma once

#include "curve_shelf.h"
#include "meter_bar.h"
#include "probe_page.h"

class QListWidget;
class QStackedWidget;
class QTabBar;

namespace vernal {

class ProbePointsPage;

class ProbesStation : public QWidget {
    Q_OBJECT
public:
    // own_curves: the person's own curve file.
    ProbesStation(Session& session, const QString& own_curves, QWidget* parent = nullptr);
    void read_points(const QString& path); // into the points of the probe shown
    void choose(std::size_t probe);
    void show_page(int page);                   // 0 Curve … 6 One knob
    void show_page_of(const QString& settings); // "lead", "condition", "sensor", "probe", "input", "knob" …
    void show_page_of(ProbePage sums);

signals:
    void points_file_wanted();
    void chart_save_wanted();
    void chart_print_wanted();

private:
    void refresh();
    void bring_up_to_date();
    void mark_findings();
    void add_probe(Probe p);
    QPushButton* make_instrument_button();
    void show_fitting_pages();
    void remove_probe();
    QWidget* make_list();
    QPushButton* make_chart_button();
    QString row_text(const Probe& p) const;
    Session& session_;
    CurveShelf shelf_;
    QListWidget* list_;
    QPushButton *add_, *add_instrument_, *remove_;
    QTabBar* tabs_; // of a thermometer; an instrument has one page
    QWidget* instrument_;
    QStackedWidget* pages_;
    MeterBar* meter_;
    ProbePointsPage* points_;
    std::size_t shown_ = 0;
};

} // namespace vernal
