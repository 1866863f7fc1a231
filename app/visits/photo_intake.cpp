#include "photo_intake.h"

#include "files/attachment.h"

#include <QBuffer>
#include <QFileInfo>
#include <QImageReader>

namespace vernal {
namespace {

constexpr int jpeg_quality = 85;

Result<Attachment> encoded(const QImage& image, const QString& name)
{
    QImage fits = image;
    if (std::max(image.width(), image.height()) > photo_side_px)
        fits = image.scaled(photo_side_px, photo_side_px, Qt::KeepAspectRatio, Qt::SmoothTransformation);
    // Only the dots go on: no place, no time, no name of a camera.
    QImage bare(fits.size(), QImage::Format_RGB32);
    bare.fill(Qt::white);
    {
        const QImage opaque = fits.convertToFormat(QImage::Format_ARGB32_Premultiplied);
        for (int y = 0; y < bare.height(); ++y) {
            const auto* from = reinterpret_cast<const QRgb*>(opaque.constScanLine(y));
            auto* to = reinterpret_cast<QRgb*>(bare.scanLine(y));
            for (int x = 0; x < bare.width(); ++x) {
                const int rest = 255 - qAlpha(from[x]);
                to[x] = qRgb(qRed(from[x]) + rest, qGreen(from[x]) + rest, qBlue(from[x]) + rest);
            }
        }
    }
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    if (!bare.save(&buffer, "JPEG", jpeg_quality))
        return Error{"the photo cannot be kept as JPEG", name.toStdString(), "Save it as JPEG or PNG with another program first"};
    return make_attachment(QFileInfo(name).completeBaseName().toStdString() + ".jpg", bytes.toStdString());
}

} // namespace

Result<Attachment> photo_of(const QString& path)
{
    QImageReader reader(path);
    reader.setAutoTransform(true);
    QImageReader::setAllocationLimit(1024); // MB: a photo of a hundred megapixels
    if (const QSize size = reader.size(); size.isValid() && std::max(size.width(), size.height()) > photo_side_px)
        reader.setScaledSize(size.scaled(photo_side_px, photo_side_px, Qt::KeepAspectRatio));
    const QImage image = reader.read();
    if (image.isNull())
        return Error{"this is no photo: " + reader.errorString().toStdString(), path.toStdString(), "Take a JPEG, PNG, BMP or GIF"};
    return encoded(image, QFileInfo(path).fileName());
}

Result<Attachment> photo_of(const QImage& image, const QString& name) { return encoded(image, name); }

PhotoIntake::PhotoIntake(QObject* parent) : QObject(parent) {}

void PhotoIntake::take_files(const QStringList& paths)
{
    waiting_ += paths;
    if (!worker_.runs())
        next();
}

void PhotoIntake::next()
{
    if (waiting_.isEmpty())
        return;
    worker_.run([path = waiting_.takeFirst()](const std::stop_token&) { return photo_of(path); },
        [this](Result<Attachment> photo) {
            if (photo)
                emit taken(*photo);
            else
                emit refused(QString::fromStdString(photo.error().text()));
            next();
        });
}

void PhotoIntake::take_image(const QImage& image)
{
    worker_.run([image](const std::stop_token&) { return photo_of(image, QStringLiteral("pasted.jpg")); },
        [this](Result<Attachment> photo) {
            if (photo)
                emit taken(*photo);
            else
                emit refused(QString::fromStdString(photo.error().text()));
            next();
        });
}

} // namespace vernal
