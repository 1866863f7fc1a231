// Why the variants' figures differ, in a sentence; worked out in the background
// while somebody looks.
#pragma once

#include "app/shell/session.h"

#include <QLabel>
#include <QTimer>

#include <stop_token>

namespace vernal {

class DifferenceLine : public QLabel {
    Q_OBJECT
public:
    explicit DifferenceLine(Session& session, QWidget* parent = nullptr);
    ~DifferenceLine() override;
    void refresh(); // outcome, verdict or units changed

protected:
    void showEvent(QShowEvent* e) override;
    void resizeEvent(QResizeEvent* e) override;

private:
    void ask();
    void say(const QString& what);
    void keep_height();
    Session& session_;
    QTimer* soon_;
    std::stop_source under_way_;
    quint64 asked_ = 0; // the newest question; answers of others are late
};

} // namespace vernal
