#include "station.h"

#include "loop_station.h"
#include "loop_view.h"
#include "valve_sheet.h"

#include <QFileInfo>
#include <QPdfWriter>
#include <QPrinter>

namespace vernal {
namespace {

// A valve board on paper is its drawing and all its valves.
void write_drawing(LoopStation& station, const StationContext& c)
{
    const QString path = c.dialogs.save_as(&station, qs(c.session.document().job().title) + QStringLiteral(".svg"), QObject::tr(picture_filter));
    if (path.isEmpty())
        return;
    if (station.view()->board() && path.endsWith(QStringLiteral(".pdf"), Qt::CaseInsensitive) && QFileInfo(QFileInfo(path).path()).isWritable()) {
        QPdfWriter pdf(path);
        if (!paint_valve_board(pdf, *station.view(), c.session))
            c.dialogs.tell(&station, QObject::tr("The valve board could not be written to %1.").arg(path));
        return;
    }
    if (const QString why = write_picture(*station.view(), path); !why.isEmpty())
        c.dialogs.tell(&station, why);
}

void print_drawing(LoopStation& station, const StationContext& c)
{
    QPrinter printer(QPrinter::HighResolution);
    const bool board = station.view()->board().has_value();
    printer.setPageOrientation(board ? QPageLayout::Portrait : QPageLayout::Landscape);
    printer.setDocName(qs(c.session.document().job().title));
    if (c.dialogs.printer(&station, printer) && !(board ? paint_valve_board(printer, *station.view(), c.session) : station.view()->paint_onto(printer)))
        c.dialogs.tell(&station, QObject::tr("The printer did not take the drawing. Look at its name and its paper, or save the drawing as PDF."));
}

} // namespace

QWidget* make_loop_station(const StationContext& c)
{
    auto* station = new LoopStation(c.session);
    QObject::connect(station, &LoopStation::drawing_wanted, station, [station, c] { write_drawing(*station, c); });
    QObject::connect(station, &LoopStation::print_wanted, station, [station, c] { print_drawing(*station, c); });
    add_command(*station, QObject::tr("Print the drawing …"), {}, [station, c] { print_drawing(*station, c); });
    add_command(*station, QObject::tr("Save the drawing …"), {}, [station, c] { write_drawing(*station, c); });
    add_command(*station, QObject::tr("Valve board"), {}, [station] { station->show_valves(); });
    return station;
}

} // namespace vernal
