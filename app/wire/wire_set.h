// How a unit on the wire is set, against the job's variant; its settings and its log taken over.
#pragma once

#include "wire_link.h"

#include "app/shell/session.h"

#include <QWidget>

class QCheckBox;
class QLabel;
class QProgressBar;
class QPushButton;
class QVBoxLayout;

namespace vernal {

class WireSet : public QWidget {
    Q_OBJECT
public:
    WireSet(Session& session, WireLink& link, QWidget* parent = nullptr);

signals:
    void asked(const std::vector<vernal::WireWrite>& writes);
    void said(const QString& words);

private:
    void refresh();
    void lay_out(const std::vector<WireDifference>& found);
    void choose();
    void as_variant();
    void keep_log(int rows);
    Session& session_;
    WireLink& link_;
    QLabel *heads_, *left_, *harm_;
    QVBoxLayout* rows_;
    std::vector<std::pair<QCheckBox*, WireWrite>> boxes_;
    QPushButton *write_, *as_variant_, *log_, *again_;
    QProgressBar* progress_;
    QStringList shown_;
};

} // namespace vernal
