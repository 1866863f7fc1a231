#include "paper_pictures.h"

#include "app/charts/day_chart.h"
#include "app/loop/loop_view.h"
#include "app/rules/operating_map.h"
#include "app/widgets/picture.h"

namespace vernal {
namespace {

constexpr double photo_mm = 80, drawing_mm = 125;

PaperPicture drawn(Picture& p) { return {"image/svg+xml", picture_svg(p).toStdString(), drawing_mm}; }

template <class Widget, class... A>
PaperPicture off_screen(const QSize& size, const std::function<void(Widget&)>& ready, Session& session, A&&... a)
{
    Widget w(session, std::forward<A>(a)...);
    w.setAttribute(Qt::WA_DontShowOnScreen);
    if (ready)
        ready(w);
    w.resize(size);
    w.show(); // it lays itself out
    return drawn(w);
}

} // namespace

PaperPictures paper_pictures(Session& session, const std::vector<std::string>& names)
{
    PaperPictures out;
    for (const std::string& name : names) {
        if (name == "loop")
            out[name] = off_screen<LoopView>({760, 460}, {}, session);
        else if (name == "board")
            out[name] = off_screen<LoopView>(
                {760, 460}, [](LoopView& v) { v.show_board(ServiceState::run); }, session);
        else if (name == "map" && session.outcome())
            out[name] = off_screen<OperatingMap>({760, 460}, {}, session);
        else if (name == "day" && session.outcome())
            out[name] = off_screen<DayChart>({900, 380}, {}, session, false);
        else if (name.starts_with("photo/"))
            for (const Attachment& a : session.document().job().attachments)
                if (a.bytes && "photo/" + a.sha256 == name)
                    out[name] = {a.name.ends_with(".png") ? "image/png" : "image/jpeg", *a.bytes, photo_mm};
    }
    return out;
}

} // namespace vernal
