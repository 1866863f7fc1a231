#include "loop_picture.h"

#include "parts/scene.h"
#include "sheet.h"

#include <cmath>

namespace vernal {

QPixmap loop_picture(const Arrangement& arrangement, int width, double ratio)
{
    const QSize size(width, static_cast<int>(std::lround(width * sheet_h / sheet_w)));
    QPixmap out(size * ratio);
    out.setDevicePixelRatio(ratio);
    out.fill(theme().card);
    QPainter p(&out);
    p.setRenderHint(QPainter::Antialiasing);
    p.scale(size.width() / sheet_w, size.width() / sheet_w);
    const Job job = new_job(arrangement.key);
    const LoopLive resting;
    const Sheet sheet = sheet_of(arrangement);
    const PartScene scene{p, sheet, resting, job.variants.front(), arrangement, {}, true};
    for (const SheetPipe& pipe : sheet.pipes)
        paint_pipe(scene, pipe);
    for (const PartDrawing& part : part_drawings())
        if (part.paint && part.when_small && arrangement.has(part.part))
            part.paint(scene);
    return out;
}

} // namespace vernal
