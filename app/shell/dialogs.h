// What asks the person; tests put their own answers here.
#pragma once

#include <QString>
#include <QStringList>

#include <functional>

class QPrinter;
class QWidget;

namespace vernal {

struct Dialogs {
    std::function<QString(QWidget*)> open_file;     // a job; empty: none
    std::function<QString(QWidget*)> open_log;      // a CSV
    std::function<QStringList(QWidget*)> open_logs; // logs, several of one unit, or weather
    std::function<QStringList(QWidget*)> open_photos;
    std::function<QString(QWidget*)> open_folder; // of jobs; empty: none
    std::function<QString(QWidget*, const QString&)> save_file;
    enum class Unsaved { save,
        drop,
        cancel };
    std::function<QString(QWidget*, const QString& suggested, const QString& filter)> save_as; // a picture, a table, a log; empty: not
    std::function<Unsaved(QWidget*)> unsaved;
    // The file was changed by another program since it was opened or saved here.
    enum class Changed { keep_mine,
        take_theirs,
        save_beside,
        take_visits, // into mine, then mine is written
        cancel };
    std::function<Changed(QWidget*, const QString& path)> changed;
    std::function<void(QWidget*, const QString&)> tell; // an error nobody can overlook
    std::function<bool(QWidget*, QPrinter&)> printer;   // chooses and sets one; false: nothing is printed
    static Dialogs usual();
};

} // namespace vernal
