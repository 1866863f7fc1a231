// Photos on their way into the job: turned upright, scaled, encoded anew beside the window, so that
// nothing of where they were taken goes with them.
#pragma once

#include "app/widgets/worker.h"
#include "core/job/job.h"

#include <QImage>
#include <QObject>
#include <QStringList>

namespace vernal {

inline constexpr int photo_side_px = 2400; // the longer side at most

// Of a file or of an image; error: why it is no photo.
Result<Attachment> photo_of(const QString& path);
Result<Attachment> photo_of(const QImage& image, const QString& name);

class PhotoIntake : public QObject {
    Q_OBJECT
public:
    explicit PhotoIntake(QObject* parent = nullptr);
    void take_files(const QStringList& paths);
    void take_image(const QImage& image);
    bool runs() const { return worker_.runs() || !waiting_.isEmpty(); }

signals:
    void taken(const vernal::Attachment& photo);
    void refused(const QString& why);

private:
    void next();
    QStringList waiting_;
    Worker worker_{*this}; // last
};

} // namespace vernal
