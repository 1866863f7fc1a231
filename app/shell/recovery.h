// The recovery copy: unsaved work, at most two seconds behind.
#pragma once

#include "document.h"
#include "files/recovery_copy.h"

#include <QDir>
#include <QTimer>

namespace vernal {

// A copy left behind by a program that did not end properly.
struct LeftBehind {
    QString copy;     // the container
    QString original; // path of the job it belongs to; may be empty
};

class Recovery : public QObject {
    Q_OBJECT
public:
    // folder: where copies lie; made when missing. A proper end removes the copy.
    Recovery(Document& document, const QString& folder, QObject* parent = nullptr);

    // Copies of programs that no longer run.
    static QList<LeftBehind> left_behind(const QString& folder);
    static Result<OpenedJob> open(const LeftBehind& left);
    static void discard(const LeftBehind& left);
    void write_now(); // in the background: a slow disk never holds up the window
    static QString usual_folder();

    void wait() { copy_.wait(); } // until it stands

signals:
    void failed(const QString& why); // a copy could not be made; empty: it could again

private:
    void remove() { copy_.remove(); }
    Document& document_;
    RecoveryCopy copy_;
    QTimer timer_, look_; // look: at what became of the copy
};

} // namespace vernal
