#include "station.h"

#include "app/print/paper_print.h"
#include "app/print/settings_sheet.h"
#include "core/sums/knob_card.h"
#include "rules_station.h"

namespace vernal {
namespace {

QString card_title(const Document& d) { return QObject::tr("%1, settings “%2”").arg(qs(d.job().title), qs(d.variant().name)); }

void save_card(RulesStation& station, const StationContext& c)
{
    const Document& d = c.session.document();
    const QString path = c.dialogs.save_file(&station, qs(d.job().title) + QObject::tr(", settings.pdf"));
    if (path.isEmpty())
        return;
    if (const QString trouble = path.endsWith(QLatin1String(".pdf"), Qt::CaseInsensitive) ? write_plain_paper(path, "settings", d, c.session.units()) : write_settings_card(path, whole_card(d.variant(), c.session.units()), card_title(d)); !trouble.isEmpty())
        c.dialogs.tell(&station, trouble);
}

void print_card(RulesStation& station, const StationContext& c)
{
    if (const QString trouble = print_plain_paper(&station, c.dialogs, "settings", c.session.document(), c.session.units()); !trouble.isEmpty())
        c.dialogs.tell(&station, trouble);
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
