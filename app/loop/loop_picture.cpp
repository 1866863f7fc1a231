#include "loop_picture.h"

#include "parts/scene.h"
#include "sheet.h"

#include <cmath>

namespace vernal {

QPixmap loop_picture(const Arrangement& arrangement, int width, double ratio)
{
    const Sheet sheet = sheet_of(arrangement);
    const QSize size(width, static_cast<int>(std::lround(width * sheet_h / least_sheet_w)));
    const double scale = std::min(width / sheet.width, size.height() / sheet_h);
    QPixmap out(size * ratio);
    out.setDevicePixelRatio(ratio);
    out.fill(theme().card);
    QPainter p(&out);
    p.setRenderHint(QPainter::Antialiasing);
    p.translate((width - scale * sheet.width) / 2, (size.height() - scale * sheet_h) / 2);
    p.scale(scale, scale);
    const Job job = new_job(arrangement.answers);
    const LoopLive resting;
    const PartScene scene{p, sheet, resting, job.variants.front(), arrangement, {}, true};
    for (const SheetPipe& pipe : sheet.pipes)
        paint_pipe(scene, pipe);
    for (const PartDrawing& part : part_drawings())
        if (part.paint && part.when_small && arrangement.has(part.part))
            part.paint(scene);
    return out;
}

} // namespace vernal
