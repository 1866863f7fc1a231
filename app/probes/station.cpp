#include "station.h"

#include "app/print/pocket_sheet.h"
#include "probes_station.h"

#include <QPrinter>

namespace vernal {
namespace {

void save_chart(ProbesStation& station, const StationContext& c)
{
    const Document& d = c.session.document();
    const QString title = qs(d.job().title), path = c.dialogs.save_file(&station, title + QObject::tr(", pocket chart.pdf"));
    if (path.isEmpty())
        return;
    if (const QString trouble = write_pocket_chart(path, pocket_chart(d.variant()), title); !trouble.isEmpty())
        c.dialogs.tell(&station, trouble);
}

void print_chart(ProbesStation& station, const StationContext& c)
{
    const Document& d = c.session.document();
    QPrinter printer(QPrinter::HighResolution);
    printer.setDocName(qs(d.job().title));
    if (c.dialogs.printer(&station, printer) && !paint_pocket_chart(printer, pocket_chart(d.variant()), qs(d.job().title)))
        c.dialogs.tell(&station, QObject::tr("The printer did not take the chart. Look at its name and its paper, or save the chart as PDF."));
}

} // namespace

QWidget* make_probes_station(const StationContext& c)
{
    auto* station = new ProbesStation(c.session, c.own_curves);
    QObject::connect(station, &ProbesStation::points_file_wanted, station, [station, c] {
        if (const QString path = c.dialogs.open_log(station); !path.isEmpty())
            station->read_points(path);
    });
    QObject::connect(station, &ProbesStation::chart_save_wanted, station, [station, c] { save_chart(*station, c); });
    QObject::connect(station, &ProbesStation::chart_print_wanted, station, [station, c] { print_chart(*station, c); });
    add_command(*station, QObject::tr("Print the pocket chart …"), {}, [station, c] { print_chart(*station, c); });
    add_command(*station, QObject::tr("Save the pocket chart …"), {}, [station, c] { save_chart(*station, c); });
    return station;
}

} // namespace vernal
