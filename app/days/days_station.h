#pragma once

#include "app/widgets/form.h"

class QListWidget;
class QComboBox;
class QCheckBox;
class QPushButton;

namespace vernal {

struct ReadyDay;
struct WeatherFile;

// The shelf of days, and the numbers of the chosen one.
class DaysStation : public QWidget {
    Q_OBJECT
public:
    explicit DaysStation(Session& session, QWidget* parent = nullptr);
    // Reads a log and puts it on the shelf; the reason when it cannot.
    std::optional<Error> import_file(const QString& path);

signals:
    void import_wanted(); // ask for a file, then import_file()

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
    void import_weather(const WeatherFile& weather, const std::string& file);
    void add_trace_notes();
    Session& session_;
    QListWidget* list_;
    QVBoxLayout* editor_;
    QLabel* message_;
    std::vector<std::function<void()>> refreshers_;
    QString shape_;
    std::vector<Day> shown_; // what the pictures show
    Units shown_units_;
};

} // namespace vernal
