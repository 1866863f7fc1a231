// The name of a line of the map, with its number to be typed into.
#pragma once

#include "app/widgets/number_edit.h"
#include "core/wording/map_lines.h"

namespace vernal {

class MapLabel : public QWidget {
    Q_OBJECT
public:
    MapLabel(Session& session, const MapLine& line, const QString& word, QWidget* parent);
    void show_line(const MapLine& line); // the same line with another value
    const MapLine& line() const { return line_; }
    static constexpr int high_px = 24;
    int wide_px() const;

signals:
    void moved(const vernal::MapLine& line, double to, int sitting);
    void grew();

protected:
    void paintEvent(QPaintEvent* e) override;
    void resizeEvent(QResizeEvent* e) override;

private:
    MapLine line_;
    QString word_;
    NumberEdit* edit_;
};

// "start", "stop", "limit", "again" …; of a line of a probe on neither axis that probe's name before it.
QString map_word(const Variant& v, const MapLine& line);

} // namespace vernal
