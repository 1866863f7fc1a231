#pragma once

#include "app/widgets/form.h"

class QListWidget;
class QComboBox;
class QCheckBox;
class QPushButton;
class QStackedWidget;

namespace vernal {

class ImportPage;
class LogDesk;
struct ReadyDay;

// The shelf of days, and the numbers of the chosen one.
class DaysStation : public QWidget {
    Q_OBJECT
public:
    explicit DaysStation(Session& session, QWidget* parent = nullptr);
    LogDesk& logs() { return *logs_; }
    ImportPage& import_page() { return *import_; }
    bool importing() const;

signals:
    void import_wanted(); // ask for files, then logs().import_files()
    void export_wanted(); // ask for a file, then logs().export_to()

private:
    void refresh();
    void tell(const QString& what);
    std::string path(const std::string& key) const; // of a setting of the chosen day
    void rebuild_editor();
    void add_sky_rows();
    void add_draw_rows();
    void add_shade_rows();
    void add_horizon();
    void add_ready(const ReadyDay& ready);
    QWidget* make_shelf();
    void add_trace_notes();
    void add_faults();
    void add_log_edits();
    Session& session_;
    QStackedWidget* whole_; // the shelf, or the page of an import
    ImportPage* import_;
    LogDesk* logs_;
    QListWidget* list_;
    QVBoxLayout* editor_;
    QLabel* message_;
    std::vector<std::function<void()>> refreshers_;
    QString shape_;
    std::vector<Day> shown_; // what the pictures show
    Units shown_units_;
};

} // namespace vernal
