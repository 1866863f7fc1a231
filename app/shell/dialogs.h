// What asks the person; tests put their own answers here.
#pragma once

#include <QString>

#include <functional>

class QPrinter;
class QWidget;

namespace vernal {

struct Dialogs {
    std::function<QString(QWidget*)> open_file; // a job; empty: none
    std::function<QString(QWidget*)> open_log;  // a CSV
    std::function<QString(QWidget*, const QString&)> save_file;
    enum class Unsaved { save,
        drop,
        cancel };
    std::function<Unsaved(QWidget*)> unsaved;
    std::function<void(QWidget*, const QString&)> tell; // an error nobody can overlook
    std::function<bool(QWidget*, QPrinter&)> printer;   // chooses and sets one; false: nothing is printed
    static Dialogs usual();
};

} // namespace vernal
