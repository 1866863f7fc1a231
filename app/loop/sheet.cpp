#include "parts/scene.h"

namespace vernal {

Sheet sheet_of(const Arrangement& arrangement)
{
    Sheet sheet;
    Layout layout{arrangement, sheet};
    const auto each = [&](void (*PartDrawing::*what)(Layout&)) {
        for (const PartDrawing& part : part_drawings())
            if (part.*what && arrangement.has(part.part))
                (part.*what)(layout);
    };
    each(&PartDrawing::place);
    each(&PartDrawing::make_room);
    each(&PartDrawing::connect);
    return sheet;
}

} // namespace vernal
