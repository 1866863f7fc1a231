// A look at a log that is about to be taken in: its columns over time.
#pragma once

#include "app/widgets/picture.h"
#include "core/job/trace.h"

#include <QWidget>

namespace vernal {

class LogPicture : public QWidget, public Picture {
    Q_OBJECT
public:
    explicit LogPicture(QWidget* parent = nullptr);
    void show(const Trace& trace); // a look of at most some thousand rows
    void show_nothing();
    QString picture_name() const override { return QStringLiteral("log"); }
    QSizeF picture_size() const override { return size(); }
    void paint_picture(QPainter& p) override { render(&p); }

protected:
    void paintEvent(QPaintEvent* e) override;

private:
    Trace trace_;
};

} // namespace vernal
