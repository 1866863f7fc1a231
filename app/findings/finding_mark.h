// The mark of a finding at what it is about: the sentence on hover or focus, Enter
// opens it with its remedy tried.
#pragma once

#include "app/shell/session.h"

#include <QAbstractButton>

namespace vernal {

// Shape and colour by severity: square, triangle, disc.
struct SeverityMark {
    const char* sign;
    QColor colour;
};
SeverityMark mark_of(Severity s);

// By what a finding is asked for (Session::finding_wanted): its kind and what it is about.
QString finding_key(const Finding& f);

class FindingMark : public QAbstractButton {
    Q_OBJECT
public:
    explicit FindingMark(Session& session, QWidget* parent = nullptr);
    void show_findings(const std::vector<Finding>& found); // hidden without any

protected:
    void paintEvent(QPaintEvent* e) override;
    void focusInEvent(QFocusEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;

private:
    Session& session_;
    Severity worst_ = Severity::note;
    QString kind_;
};

} // namespace vernal
