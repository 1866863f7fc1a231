// One huge number, for hands that are on the roof: read from across the room, a tone at each
// switching, one key for the stop-watch.
#pragma once

#include "bench_model.h"

#include <QDialog>
#include <QElapsedTimer>

namespace vernal {

class FarView : public QDialog {
    Q_OBJECT
public:
    FarView(Session& session, BenchModel& model, QWidget* parent = nullptr);
    QString number() const; // as it stands there
    QString watch() const;  // "1:04.2"; empty: it was never started
    int quantity() const { return shows_; }

protected:
    void paintEvent(QPaintEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;
    void showEvent(QShowEvent* e) override;

private:
    int quantities() const;
    QString name() const;
    Session& session_;
    BenchModel& model_;
    int shows_ = 0; // 0: the pair's difference, then each probe
    QElapsedTimer running_;
    qint64 stopped_ms_ = -1;
};

} // namespace vernal
