#include "picture.h"

#include "app/shell/theme.h"

#include <QApplication>
#include <QBuffer>
#include <QClipboard>
#include <QFileInfo>
#include <QImage>
#include <QObject>
#include <QPainter>
#include <QPdfWriter>
#include <QSvgGenerator>
#include <QWidget>

#include <qcustomplot.h>

namespace vernal {
namespace {

constexpr double points_per_inch = 72;

// Any plot, as vectors.
class Plot : public Picture {
public:
    explicit Plot(QCustomPlot& plot) : plot_(plot) {}
    QString picture_name() const override { return plot_.objectName().isEmpty() ? QStringLiteral("picture") : plot_.objectName(); }
    QSizeF picture_size() const override { return plot_.size(); }
    void paint_picture(QPainter& p) override { paint_plot(plot_, p); }
    static void paint_plot(QCustomPlot& plot, QPainter& to)
    {
        QPicture recorded;
        QCPPainter p(&recorded);
        p.setMode(QCPPainter::pmVectorized);
        plot.toPainter(&p, plot.width(), plot.height());
        p.end();
        to.drawPicture(0, 0, recorded);
    }

private:
    QCustomPlot& plot_;
};

QImage image_of(Picture& picture, double fineness)
{
    const QSizeF size = picture.picture_size();
    QImage image((size * fineness).toSize(), QImage::Format_ARGB32);
    image.fill(theme().surface);
    image.setDevicePixelRatio(fineness);
    QPainter p(&image);
    p.setRenderHint(QPainter::Antialiasing);
    picture.paint_picture(p);
    return image;
}

bool paint_svg(QSvgGenerator& svg, Picture& picture)
{
    const QSizeF size = picture.picture_size();
    svg.setSize(size.toSize());
    svg.setViewBox(QRectF({}, size));
    svg.setTitle(picture.picture_name());
    QPainter p(&svg);
    if (!p.isActive())
        return false;
    p.fillRect(QRectF({}, size), theme().surface);
    picture.paint_picture(p);
    return true;
}

} // namespace

void paint_plot(QCustomPlot& plot, QPainter& p) { Plot::paint_plot(plot, p); }

bool with_picture(QWidget* widget, const std::function<void(Picture&)>& act)
{
    for (QWidget* w = widget; w && !w->isWindow(); w = w->parentWidget()) {
        if (auto* picture = dynamic_cast<Picture*>(w)) {
            act(*picture);
            return true;
        }
        if (auto* plot = qobject_cast<QCustomPlot*>(w)) {
            Plot picture(*plot);
            act(picture);
            return true;
        }
    }
    return false;
}

QString write_picture(Picture& picture, const QString& path)
{
    const QString ending = QFileInfo(path).suffix().toLower();
    const QSizeF size = picture.picture_size();
    const QString unwritten = QObject::tr("%1 cannot be written there. Choose another folder.").arg(path);
    if (ending == QLatin1String("png"))
        return image_of(picture, 2).save(path) ? QString() : unwritten;
    if (ending != QLatin1String("svg") && ending != QLatin1String("pdf"))
        return QObject::tr("%1 was not written: a picture is saved as .svg, .png or .pdf.").arg(path);
    if (!QFileInfo(QFileInfo(path).absolutePath()).isWritable())
        return unwritten;
    if (ending == QLatin1String("pdf")) {
        QPdfWriter pdf(path);
        pdf.setPageSize(QPageSize(size * points_per_inch / 96, QPageSize::Point));
        pdf.setPageMargins({});
        pdf.setTitle(picture.picture_name());
        QPainter p(&pdf);
        if (!p.isActive())
            return unwritten;
        p.scale(pdf.width() / size.width(), pdf.height() / size.height());
        p.fillRect(QRectF({}, size), theme().surface);
        picture.paint_picture(p);
        return {};
    }
    QSvgGenerator svg;
    svg.setFileName(path);
    return paint_svg(svg, picture) ? QString() : unwritten;
}

QByteArray picture_svg(Picture& picture)
{
    QByteArray out;
    QBuffer buffer(&out);
    QSvgGenerator svg;
    svg.setOutputDevice(&buffer);
    return paint_svg(svg, picture) ? out : QByteArray();
}

void copy_picture(Picture& picture) { QApplication::clipboard()->setImage(image_of(picture, 2)); }

} // namespace vernal
