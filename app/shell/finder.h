// All that can be found or done: commands with their keys, stations, days, variants,
// probes, rules, settings with their values, sums, findings. A value typed behind the
// words of a setting makes the edits that would come of it.
#pragma once

#include "core/job/field_path.h"
#include "session.h"

#include <functional>

namespace vernal {

struct FoundEntry {
    QString name, hint; // hint: a key, a value
    QString words;      // it is found by, besides its name
    std::function<void()> act;
};

// How the finder gets to a place of the window.
struct Places {
    std::function<void(const std::string& path)> setting; // down to a part, a rule, a probe, a field
    std::function<void(const QString& which)> finding;    // as Session::finding_wanted says
    std::function<void(const std::string& sum)> sum;
};

class Finder {
public:
    Finder(Session& session, QList<FoundEntry> commands, Places places);
    // Entries of which every word is found; where the last words are a value ("start 9"),
    // what the settings found by the others would then be.
    QList<FoundEntry> find(const QString& typed) const;

private:
    void add_settings();
    void add_sums();
    void add_jobs_own();
    QList<FoundEntry> with_value(const QStringList& words, const QString& value) const;
    Session& session_;
    Places places_;
    QList<FoundEntry> all_;
    std::vector<std::pair<QString, Setting>> settings_; // with the words they are found by
};

} // namespace vernal
