// What can be handed on as a picture: from a menu on it, by Ctrl+C, or to a file.
#pragma once

#include <QSizeF>
#include <QString>

#include <functional>

class QCustomPlot;
class QPainter;
class QWidget;

namespace vernal {

class Picture {
public:
    virtual ~Picture() = default;
    virtual QString picture_name() const = 0; // for the file: "day", "loop"
    virtual QSizeF picture_size() const = 0;  // in its own points
    virtual void paint_picture(QPainter& p) = 0;
};

// Does something with the picture that this widget shows or lies in, plots with them;
// false: there is none.
bool with_picture(QWidget* widget, const std::function<void(Picture&)>& act);

// As SVG, PNG (twice as fine as the screen) or PDF (as large as it is), by the ending.
// Empty: written; else why not.
QString write_picture(Picture& picture, const QString& path);
inline constexpr const char* picture_filter = "Pictures (*.svg *.png *.pdf)";

// As SVG, for papers.
QByteArray picture_svg(Picture& picture);

void copy_picture(Picture& picture);

// A plot on its own points, as vectors.
void paint_plot(QCustomPlot& plot, QPainter& p);

} // namespace vernal
