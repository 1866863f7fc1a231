// The recovery copy: unsaved work, at most two seconds behind.
#pragma once

#include "document.h"
#include "files/job_file.h"

#include <QDir>
#include <QTimer>

#include <atomic>
#include <memory>
#include <mutex>

namespace vernal {

// A copy left behind by a program that did not end properly.
struct LeftBehind {
    QString copy;     // the container
    QString original; // path of the job it belongs to; may be empty
};

class Recovery : public QObject {
    Q_OBJECT
public:
    // folder: where copies lie; made when missing.
    Recovery(Document& document, const QString& folder, QObject* parent = nullptr);
    ~Recovery() override; // a proper end removes the copy

    // Copies of programs that no longer run.
    static QList<LeftBehind> left_behind(const QString& folder);
    static Result<OpenedJob> open(const LeftBehind& left);
    static void discard(const LeftBehind& left);
    void write_now(); // in the background: a slow disk never holds up the window
    static QString usual_folder();

private:
    struct Shared { // with writes still under way
        std::mutex mutex;
        std::atomic<quint64> newest = 0;
    };
    QString base() const;
    void remove();
    std::shared_ptr<Shared> shared_ = std::make_shared<Shared>();
    Document& document_;
    QString folder_;
    QTimer timer_;
};

} // namespace vernal
