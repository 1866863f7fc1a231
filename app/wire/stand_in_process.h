// The stand-in as a program of its own, started for trying: it listens on this machine only.
#pragma once

#include "core/units/result.h"
#include "link/register_map.h"

#include <QProcess>
#include <QTemporaryDir>

#include <memory>

namespace vernal {

class StandInProcess : public QObject {
    Q_OBJECT
public:
    explicit StandInProcess(QObject* parent = nullptr);
    ~StandInProcess() override;
    // Ends by listens() or failed().
    void start(const Job& job, std::size_t variant, const RegisterMap& map, int speed);
    void stop();
    bool runs() const { return process_ && process_->state() != QProcess::NotRunning; }
    void say(const QString& words); // a line on its standard input
    // Where the program is: beside this one, in the build, or on the path; empty: nowhere.
    static QString program();

signals:
    void listens(int port);
    void failed(const QString& why);
    void answered(const QString& words);
    void ended();

private:
    void heard();
    std::unique_ptr<QTemporaryDir> folder_;
    QProcess* process_ = nullptr;
    bool listening_ = false;
};

} // namespace vernal
