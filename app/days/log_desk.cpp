#include "log_desk.h"

#include "import_page.h"

#include "app/shell/theme.h"
#include "core/job/job_check.h"
#include "files/any_log.h"
#include "files/csv_trace.h"
#include "files/day_csv.h"
#include "files/disk.h"
#include "files/epw.h"
#include "files/log_cells.h"

#include <QFileInfo>

#include <algorithm>

namespace vernal {

LogDesk::LogDesk(Session& session, ImportPage& page, QObject* parent) : QObject(parent), session_(session), page_(page) {}

namespace {

constexpr std::size_t read_at_once_bytes = 2'000'000; // more is read with progress

bool is_of_unit(const TraceColumn& c, const Variant& v) // a probe's place or an output
{
    return std::find(place_keys.begin(), place_keys.end(), c.name) != place_keys.end() || std::any_of(v.unit.outputs.begin(), v.unit.outputs.end(), [&](const Output& o) { return o.key == c.name; });
}

// Every column is one the program writes itself.
bool is_ours(const Trace& trace, const Variant& v)
{
    return std::all_of(trace.columns.begin(), trace.columns.end(), [&](const TraceColumn& c) { return is_of_unit(c, v) || signal_quantity(c.name); });
}

// The rules are replayed on it. Else it is weather.
bool is_replayed(const Trace& trace, const Variant& v)
{
    return std::any_of(trace.columns.begin(), trace.columns.end(), [&](const TraceColumn& c) { return is_of_unit(c, v); });
}

} // namespace

std::optional<Error> LogDesk::import_files(const QStringList& paths)
{
    std::vector<LogText> unread;
    std::optional<Error> wrong;
    for (const QString& path : paths)
        if (auto problem = import_file(path, paths.size() == 1, unread))
            wrong = problem;
    if (wrong)
        emit said(QStringLiteral("<span style='color:%1'>■</span> %2").arg(theme().protect.name(), qs(wrong->text()).toHtmlEscaped()));
    if (!unread.empty()) {
        page_.open(std::move(unread));
        emit page_wanted();
    }
    return wrong;
}

std::optional<Error> LogDesk::import_file(const QString& path, bool alone, std::vector<LogText>& unread)
{
    const auto content = read_file(path.toStdString());
    if (!content)
        return content.error();
    const std::string file = QFileInfo(path).fileName().toStdString();
    if (is_epw(file)) {
        const auto weather = read_epw(*content, file);
        if (!weather)
            return weather.error();
        import_weather(*weather, file);
        return std::nullopt;
    }
    if (content->find_first_not_of(" \t\r\n") == std::string::npos)
        return Error{"the file is empty", file, "Choose a log with a row of readings"};
    if (alone && content->size() < read_at_once_bytes && is_own_log(*content))
        if (auto trace = read_trace_csv(*content, file); trace && is_ours(*trace, session_.document().variant())) {
            put_log(std::make_shared<const Trace>(std::move(*trace)), qs(file), {});
            return std::nullopt;
        }
    bool converted = false;
    unread.push_back({file, as_utf8(*content, converted)});
    return std::nullopt;
}

void LogDesk::put_log(std::shared_ptr<const Trace> trace, const QString& file, const QString& said)
{
    QStringList notes;
    for (const std::string& n : trace->notes)
        notes << qs(n) + QLatin1Char('.');
    const std::size_t rows = trace->time_s.size();
    session_.document().edit(tr("Import a log"), [&](Job& j) {
        const std::string name = free_trace_name(j, file.toStdString());
        Day d = j.days[session_.document().day_index()];
        d.id.clear();
        d.kind = is_replayed(*trace, session_.document().variant()) ? DayKind::recorded : DayKind::generated;
        d.name = free_name(j.days, QFileInfo(file).completeBaseName().toStdString());
        d.trace = name;
        j.traces[name] = std::move(trace);
        j.days.push_back(d);
    });
    session_.document().choose_day(session_.document().job().days.size() - 1);
    emit this->said(tr("%1: %2 rows. %3").arg(file.toHtmlEscaped()).arg(rows).arg(notes.join(QLatin1Char(' '))) + QLatin1Char(' ') + said);
}

void LogDesk::import_weather(const WeatherFile& weather, const std::string& file)
{
    session_.document().edit(tr("Import a year's weather"), [&, like = session_.document().day_index()](Job& j) { put_weather(j, weather, file, like); });
    session_.document().choose_day(session_.document().job().days.size() - 1);
    QStringList notes;
    for (const std::string& n : weather.trace.notes)
        notes << qs(n);
    emit said(tr("%1: %2 hours of weather. The day has that of its date; the job's place is now %3, where the sun was measured. %4").arg(qs(file).toHtmlEscaped()).arg(weather.trace.time_s.size()).arg(qs(weather.name).toHtmlEscaped(), notes.join(QStringLiteral(". "))));
}

void LogDesk::with_log(double every_s, const std::function<void(const Result<Trace>&)>& take)
{
    const Document& d = session_.document();
    emit said(tr("Running “%1” …").arg(qs(d.day().name).toHtmlEscaped()));
    worker_.run([every_s, job = d.job(), v = d.variant_index(), day = d.day_index()](const std::stop_token& stop) { return day_log(job, job.variants[v], job.days[day], every_s, stop); }, take);
}

void LogDesk::keep_as_log()
{
    constexpr double every_s = 30;
    with_log(every_s, [this, name = session_.document().day().name](const Result<Trace>& log) {
        if (!log)
            return void(emit said(qs(log.error().text()).toHtmlEscaped()));
        put_log(std::make_shared<const Trace>(*log), qs(name + ".csv"), tr("The day as the unit would have recorded it, with its faults felt."));
    });
}

void LogDesk::export_to(const QString& path)
{
    constexpr double every_s = 10;
    const bool recorded = session_.document().day().kind == DayKind::recorded;
    with_log(every_s, [this, path, recorded](const Result<Trace>& log) {
        if (!log)
            return void(emit said(qs(log.error().text()).toHtmlEscaped()));
        const auto done = write_file_atomically(path.toStdString(), write_trace_csv(*log));
        emit said(done ? tr("%1 written: %2 rows%3.").arg(path.toHtmlEscaped()).arg(log->time_s.size()).arg(recorded ? QString() : tr(", one each ten seconds")) : qs(done.error().text()).toHtmlEscaped());
    });
}

} // namespace vernal
