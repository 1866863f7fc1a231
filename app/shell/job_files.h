// Opening, saving and recovering the job of a window, with what is asked and told on the way.
#pragma once

#include "dialogs.h"
#include "recovery.h"
#include "session.h"

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
    QStringList recent() const;
    QList<LeftBehind> left_behind() const { return Recovery::left_behind(options_.recovery_folder); }

signals:
    void opened();

private:
    bool write(const QString& path);
    bool is_demo(const QString& path) const;
    bool must_be_renamed() const; // the file at the job's path is not to be written to
    void remember(const QString& path);
    void tell(const QString& text) { dialogs_.tell(window_, text); }
    Session& session_;
    const Dialogs& dialogs_;
    Options options_;
    Recovery recovery_;
    QWidget* window_;
};

} // namespace vernal
