// One course over the seasons as a small picture: points, their line, the band it lay in at first.
#pragma once

#include "core/visit/over_the_seasons.h"

#include <QWidget>

namespace vernal {

class SeasonChart : public QWidget {
    Q_OBJECT
public:
    explicit SeasonChart(SeasonCourse course, QWidget* parent = nullptr);
    QSize sizeHint() const override { return {300, 96}; }

protected:
    void paintEvent(QPaintEvent* e) override;

private:
    SeasonCourse course_;
};

} // namespace vernal
