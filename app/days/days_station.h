#pragma once

#include "app/widgets/form.h"

#include <thread>

class QListWidget;
class QComboBox;
class QCheckBox;
class QPushButton;
class QStackedWidget;

namespace vernal {

class ImportPage;
struct LogText;
struct ReadyDay;
struct WeatherFile;

// The shelf of days, and the numbers of the chosen one.
class DaysStation : public QWidget {
    Q_OBJECT
public:
    explicit DaysStation(Session& session, QWidget* parent = nullptr);
    // Weather and logs as the program writes them go on the shelf at once; what else is
    // a log is shown with how it would be read. The reason when neither can be.
    std::optional<Error> import_files(const QStringList& paths);
    ImportPage& import_page() { return *import_; }
    bool importing() const;
    void export_to(const QString& path); // the chosen day, as CSV

signals:
    void import_wanted(); // ask for files, then import_files()
    void export_wanted(); // ask for a file, then export_to()

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
    std::optional<Error> import_file(const QString& path, bool alone, std::vector<LogText>& unread);
    void put_log(std::shared_ptr<const Trace> trace, const QString& file, const QString& said);
    void import_weather(const WeatherFile& weather, const std::string& file);
    void add_trace_notes();
    void add_faults();
    void add_log_edits();
    void with_log(double every_s, const std::function<void(const Result<Trace>&)>& take);
    void keep_as_log();
    Session& session_;
    QStackedWidget* whole_; // the shelf, or the page of an import
    ImportPage* import_;
    QListWidget* list_;
    QVBoxLayout* editor_;
    QLabel* message_;
    std::vector<std::function<void()>> refreshers_;
    QString shape_;
    std::vector<Day> shown_; // what the pictures show
    Units shown_units_;
    std::jthread runner_; // last: it ends before what it tells
};

} // namespace vernal
