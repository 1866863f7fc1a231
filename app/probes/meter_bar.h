// What the meter and a thermometer show, and at once what that says about the probe.
#pragma once

#include "app/shell/session.h"
#include "core/sums/meter.h"
#include "curve_shelf.h"

#include <QFrame>

#include <map>

class QComboBox;
class QLabel;
class QLineEdit;

namespace vernal {

class MeterBar : public QFrame {
    Q_OBJECT
public:
    // shown: index of the probe the station has chosen; lives as long as the bar.
    MeterBar(Session& session, CurveShelf& shelf, const std::size_t& shown, QWidget* parent = nullptr);
    // Of the probe shown; nullopt: nothing was read of it.
    const std::optional<MeterAnswer>& answer() const { return answer_; }
    void refresh(); // another probe, curve or unit

signals:
    void answered();

private:
    // What was typed for a probe of a job; it is kept while the program runs.
    struct Typed {
        QString signal, beside;
        bool connected = false;
    };
    const Probe& probe() const;
    std::string key() const; // of the probe in this job
    void take();
    void work();
    void convert_beside();
    Session& session_;
    CurveShelf& shelf_;
    const std::size_t& shown_;
    QLineEdit *signal_, *beside_;
    QComboBox* connected_;
    QLabel *says_, *unit_;
    std::map<std::string, Typed> typed_; // by key()
    Units units_;
    std::optional<MeterAnswer> answer_;
};

} // namespace vernal
