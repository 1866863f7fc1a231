// Logs and weather that come onto the shelf of days, and days that leave it as logs.
#pragma once

#include "app/shell/session.h"
#include "app/widgets/worker.h"

namespace vernal {

class ImportPage;
struct LogText;
struct WeatherFile;

class LogDesk : public QObject {
    Q_OBJECT
public:
    LogDesk(Session& session, ImportPage& page, QObject* parent);
    // Weather and logs as the program writes them go on the shelf at once; what else is
    // a log opens the page. The reason when neither can be.
    std::optional<Error> import_files(const QStringList& paths);
    void put_log(std::shared_ptr<const Trace> trace, const QString& file, const QString& said);
    void keep_as_log();                  // what is run on the chosen day
    void export_to(const QString& path); // the chosen day, as CSV

signals:
    void said(const QString& html);
    void page_wanted();

private:
    std::optional<Error> import_file(const QString& path, bool alone, std::vector<LogText>& unread);
    void import_weather(const WeatherFile& weather, const std::string& file);
    void with_log(double every_s, const std::function<void(const Result<Trace>&)>& take);
    Session& session_;
    ImportPage& page_;
    Worker worker_{*this}; // last
};

} // namespace vernal
