#include "station.h"

#include "app/print/settings_sheet.h"
#include "rules_station.h"

#include <QPrinter>

namespace vernal {
namespace {

QString card_title(const Document& d) { return QObject::tr("%1, settings “%2”").arg(qs(d.job().title), qs(d.variant().name)); }

void save_card(RulesStation& station, const StationContext& c)
{
    const Document& d = c.session.document();
    const QString path = c.dialogs.save_file(&station, qs(d.job().title) + QObject::tr(", settings.pdf"));
    if (path.isEmpty())
        return;
    if (const QString trouble = write_settings_card(path, settings_card(d.variant(), c.session.units()), card_title(d)); !trouble.isEmpty())
        c.dialogs.tell(&station, trouble);
}

void print_card(RulesStation& station, const StationContext& c)
{
    const Document& d = c.session.document();
    QPrinter printer(QPrinter::HighResolution);
    printer.setDocName(qs(d.job().title));
    if (c.dialogs.printer(&station, printer) && !paint_settings_card(printer, settings_card(d.variant(), c.session.units()), card_title(d)))
        c.dialogs.tell(&station, QObject::tr("The printer did not take the card. Look at its name and its paper, or save the card as PDF."));
}

} // namespace

QWidget* make_rules_station(const StationContext& c)
{
    auto* station = new RulesStation(c.session);
    QObject::connect(station, &RulesStation::card_save_wanted, station, [station, c] { save_card(*station, c); });
    QObject::connect(station, &RulesStation::card_print_wanted, station, [station, c] { print_card(*station, c); });
    add_command(*station, QObject::tr("Print the settings card …"), QKeySequence::Print, [station, c] { print_card(*station, c); });
    add_command(*station, QObject::tr("Save the settings card …"), {}, [station, c] { save_card(*station, c); });
    return station;
}

} // namespace vernal
