#include "part_photos.h"

#include "app/widgets/flow_layout.h"
#include "app/widgets/form.h"
#include "core/units/calendar.h"
#include "core/visit/keeping.h"

#include <QLabel>
#include <QVBoxLayout>

#include <algorithm>

namespace vernal {

QWidget* part_photos(const Job& job, const std::string& name)
{
    const auto all = photos_of(job, name);
    if (all.empty())
        return nullptr;
    auto* w = new QWidget;
    w->setObjectName(QStringLiteral("partPhotos"));
    auto* box = new QVBoxLayout(w);
    box->setContentsMargins(0, 6, 0, 0);
    box->addWidget(heading(QObject::tr("Photos")));
    auto* row = new FlowLayout;
    constexpr std::size_t most = 6;
    constexpr int high_px = 84;
    for (std::size_t i = 0; i < std::min(most, all.size()); ++i) {
        const auto content = std::find_if(job.attachments.begin(), job.attachments.end(), [&](const Attachment& a) { return a.sha256 == all[i].photo->sha256 && a.bytes; });
        if (content == job.attachments.end())
            continue;
        auto* picture = new QLabel;
        picture->setPixmap(QPixmap::fromImage(QImage::fromData(QByteArray::fromStdString(*content->bytes)).scaledToHeight(high_px, Qt::SmoothTransformation)));
        const QString words = qs(date_words(all[i].visit->when) + (all[i].photo->caption.empty() ? "" : ": " + all[i].photo->caption));
        picture->setToolTip(words);
        picture->setAccessibleName(words);
        row->addWidget(picture);
    }
    box->addLayout(row);
    return w;
}

} // namespace vernal
