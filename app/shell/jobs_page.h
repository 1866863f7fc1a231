// Jobs: those last open, with what is known of them, the demo's, a new loop.
#pragma once

#include "known_jobs.h"
#include "recovery.h"

#include "core/plant/answers.h"

#include <QPushButton>
#include <QWidget>

class QVBoxLayout;

namespace vernal {

// A job or a loop to choose, with its drawing.
class JobTile : public QPushButton {
    Q_OBJECT
public:
    // picture: beside the words, or above a title that stands alone.
    JobTile(const QPixmap& picture, const QString& title, const QStringList& lines, QWidget* parent = nullptr);
    void add_mark(int severity, const QString& finding); // of its worst finding
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent* e) override;

private:
    QPixmap picture_;
    QString title_;
    QStringList lines_;
    int severity_ = -1;
    QString finding_;
};

class JobsPage : public QWidget {
    Q_OBJECT
public:
    // customers: the list of a folder's jobs, which this takes; null: there is none.
    JobsPage(const QList<KnownJob>& jobs, const QList<LeftBehind>& left, const QString& demo, QWidget* customers = nullptr, QWidget* parent = nullptr);

signals:
    void open_wanted(const QString& path); // empty: ask
    void new_wanted(const vernal::LoopAnswers& answers);
    void recover_wanted(const vernal::LeftBehind& left);

private:
    QWidget* make_jobs(const QList<KnownJob>& jobs, const QList<LeftBehind>& left, const QString& demo, QWidget* customers);
    void add_known(QVBoxLayout& box, const KnownJob& job);
    void add_demos(QVBoxLayout& box, const QString& demo);
    QWidget* make_new();
    QWidget* make_usual();
    QWidget* make_asked();
};

} // namespace vernal
