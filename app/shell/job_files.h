// Opening, saving and recovering the job of a window, with what is asked and told on the way.
#pragma once

#include "dialogs.h"
#include "known_jobs.h"
#include "recovery.h"
#include "session.h"

#include <QLockFile>

#include <memory>

namespace vernal {

class JobFiles : public QObject {
    Q_OBJECT
public:
    struct Options {
        QString demo; // jobs beside this file ship with the program: opened, never written to
        QString recovery_folder;
        bool remember = true; // the files last used
    };
    // window: over which dialogs stand; it owns this.
    JobFiles(Session& session, const Dialogs& dialogs, Options options, QWidget* window);

    bool may_leave();               // nothing unsaved, or the person said what to do with it
    bool open(const QString& path); // empty: asks
    void recover(const LeftBehind& left);
    bool save();
    bool save_as();
    QList<KnownJob> known() const; // the last one first
    void note();                   // what is known of the open job now, for the next time
    QList<LeftBehind> left_behind() const { return Recovery::left_behind(options_.recovery_folder); }

    void left();         // the job is no longer that of a file
    void look_at_file(); // whether another program changed it; asks what to do

signals:
    void opened();
    void told(const QString& text); // of what goes on in the background

private:
    bool write(const QString& path);
    bool load(const QString& path); // over what is open
    bool save_beside();
    bool take_visits_of(const QString& path);
    // The file as it was when it was read or written last: what another program does to it shows.
    struct Stamp {
        qint64 inode = 0, bytes = -1, changed_ns = 0;
        bool operator==(const Stamp&) const = default;
    };
    static Stamp stamp_of(const QString& path);
    void belongs_to(const QString& path);
    bool is_demo(const QString& path) const;
    bool must_be_renamed() const; // the file at the job's path is not to be written to
    void tell(const QString& text) { dialogs_.tell(window_, text); }
    Session& session_;
    const Dialogs& dialogs_;
    Options options_;
    Recovery recovery_;
    QWidget* window_;
    Stamp stamp_, told_stamp_;        // told: of a change that was asked about
    std::unique_ptr<QLockFile> lock_; // of the job's path: another window is told
    QString failure_;                 // of the recovery copy, as told last
};

} // namespace vernal
