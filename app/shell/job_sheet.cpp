#include "job_sheet.h"

#include "app/widgets/form.h"
#include "core/weather/zone.h"
#include "files/place_list.h"

#include <QCompleter>
#include <QDialogButtonBox>
#include <QSettings>
#include <QStringListModel>
#include <QTimeZone>
#include <QVBoxLayout>

#include <cmath>

namespace vernal {
namespace {

constexpr int width_px = 460;
constexpr std::size_t most_offered = 12;

void keep_site(const Site& site)
{
    const Place& p = site.place;
    QSettings().setValue(QStringLiteral("site"), QVariantMap{{QStringLiteral("name"), qs(site.name)}, {QStringLiteral("latitude"), p.latitude_deg}, {QStringLiteral("longitude"), p.longitude_deg}, {QStringLiteral("altitude"), p.altitude_m}, {QStringLiteral("ahead"), p.utc_offset_h}, {QStringLiteral("zone"), qs(p.zone)}, {QStringLiteral("summer"), p.daylight_saving}});
}

} // namespace

std::optional<Site> remembered_site()
{
    const QVariantMap m = QSettings().value(QStringLiteral("site")).toMap();
    if (m.isEmpty())
        return std::nullopt;
    Site site;
    site.name = m.value(QStringLiteral("name")).toString().toStdString();
    Place& p = site.place;
    p.latitude_deg = std::clamp(m.value(QStringLiteral("latitude")).toDouble(), -90.0, 90.0);
    p.longitude_deg = std::clamp(m.value(QStringLiteral("longitude")).toDouble(), -180.0, 180.0);
    p.altitude_m = std::clamp(m.value(QStringLiteral("altitude")).toDouble(), -400.0, 6000.0);
    p.utc_offset_h = std::clamp(m.value(QStringLiteral("ahead")).toDouble(), -12.0, 14.0);
    p.zone = m.value(QStringLiteral("zone")).toString().toStdString();
    if (!zone_known(p.zone))
        p.zone.clear();
    p.daylight_saving = m.value(QStringLiteral("summer"), true).toBool();
    return site;
}

JobSheet::JobSheet(Session& session, bool remember, QWidget* parent) : QDialog(parent), session_(session), remember_(remember)
{
    setObjectName(QStringLiteral("jobSheet"));
    setWindowTitle(tr("Title and place"));
    setMinimumWidth(width_px);
    const Job& job = session.document().job();
    auto* sheet = new FieldSheet(session);
    const auto words = [&](const QString& label, const char* name, const std::string& now, const QString& hint = {}) {
        auto* edit = new QLineEdit(qs(now));
        edit->setObjectName(QLatin1String(name));
        edit->setAccessibleName(label);
        edit->setMinimumHeight(32);
        edit->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
        sheet->add(label, edit, {}, hint);
        return edit;
    };
    title_ = words(tr("Title"), "jobTitle", job.title);
    customer_ = words(tr("Customer"), "jobCustomer", job.site.customer);
    place_ = words(tr("Place"), "jobPlace", job.site.name, tr("A city's name is looked up in the list that ships; any other name is as good, with its coordinates below"));
    offered_ = new QStringListModel(this);
    auto* completer = new QCompleter(offered_, this);
    completer->setCompletionMode(QCompleter::UnfilteredPopupCompletion);
    place_->setCompleter(completer);
    connect(place_, &QLineEdit::textEdited, this, &JobSheet::find);
    connect(completer, qOverload<const QString&>(&QCompleter::activated), this, &JobSheet::go_to, Qt::QueuedConnection); // after its own text
    const auto numbers = add_rows(*sheet, session, QStringLiteral("place"), job.site.place, [this](const std::string&, double) { show_clock(); });
    latitude_ = numbers[0];
    longitude_ = numbers[1];
    altitude_ = numbers[2];
    ahead_ = numbers[3];
    zone_ = choice_row(*sheet, QStringLiteral("jobZone"), tr("Time zone"), {tr("none: a fixed clock")}, [this](int) { show_clock(); });
    for (const QByteArray& id : QTimeZone::availableTimeZoneIds())
        if (id.contains('/') && !id.startsWith("Etc/") && zone_known(id.toStdString()))
            zone_->addItem(QString::fromLatin1(id));
    zone_->setCurrentIndex(std::max(0, zone_->findText(qs(job.site.place.zone))));
    summer_ = add_switches(*sheet, QStringLiteral("place"), job.site.place, [this](const SwitchField&, bool) { show_clock(); }).front();
    clock_ = remark();
    trouble_ = remark();
    trouble_->hide();
    auto* buttons = new QDialogButtonBox;
    QPushButton* take = buttons->addButton(tr("Take this"), QDialogButtonBox::AcceptRole);
    take->setObjectName(QStringLiteral("takeJob"));
    buttons->addButton(tr("Leave it as it was"), QDialogButtonBox::RejectRole);
    connect(buttons, &QDialogButtonBox::accepted, this, &JobSheet::take);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(16, 12, 16, 12);
    box->addWidget(heading(tr("Title and place"), "h1"));
    box->addWidget(sheet);
    box->addWidget(clock_);
    box->addWidget(trouble_);
    box->addStretch(1);
    box->addWidget(buttons);
    show_clock();
    title_->setFocus();
    title_->selectAll();
}

void JobSheet::find(const QString& typed)
{
    QStringList names;
    if (typed.size() > 1)
        for (const ListedPlace* p : find_places(typed.toStdString(), most_offered))
            names << qs(p->text());
    offered_->setStringList(names);
}

void JobSheet::go_to(const QString& listed)
{
    const auto found = find_places(listed.toStdString(), 1);
    if (found.empty())
        return;
    place_->setText(qs(found.front()->name));
    latitude_->set_value(found.front()->place.latitude_deg);
    longitude_->set_value(found.front()->place.longitude_deg);
    zone_->setCurrentIndex(std::max(0, zone_->findText(qs(found.front()->place.zone))));
    trouble_->setText(tr("The list has no altitudes: state this place's, it thins the air and lets water boil sooner."));
    trouble_->show();
    show_clock();
}

// What the clock shows, in words, so that a wrong zone is seen.
void JobSheet::show_clock()
{
    const bool fixed = zone_->currentIndex() == 0;
    show_row(ahead_, fixed);
    show_row(summer_, !fixed);
    if (fixed) {
        clock_->setText(tr("The clock is the same all year."));
        return;
    }
    Place p;
    p.zone = zone_->currentText().toStdString();
    p.daylight_saving = summer_->isChecked();
    const auto ahead = [&](int month) {
        const double h = clock_ahead_h(p, QDate::currentDate().year(), month, 15);
        return (h < 0 ? QStringLiteral("UTC − ") : QStringLiteral("UTC + ")) + text(std::fabs(h), Quantity::hours, session_.units());
    };
    clock_->setText(tr("The clock shows %1 in January, %2 in July.").arg(ahead(1), ahead(7)));
}

void JobSheet::take()
{
    for (NumberEdit* edit : {latitude_, longitude_, altitude_, ahead_})
        if (!edit->take()) {
            trouble_->setText(edit->reason());
            trouble_->show();
            edit->setFocus();
            return;
        }
    Site site;
    site.name = place_->text().trimmed().toStdString();
    site.customer = customer_->text().trimmed().toStdString();
    site.place.latitude_deg = latitude_->value();
    site.place.longitude_deg = longitude_->value();
    site.place.altitude_m = altitude_->value();
    site.place.utc_offset_h = ahead_->value();
    if (zone_->currentIndex() > 0)
        site.place.zone = zone_->currentText().toStdString();
    site.place.daylight_saving = summer_->isChecked();
    const std::string title = title_->text().trimmed().toStdString();
    if (remember_)
        keep_site(site);
    if (const Job& job = session_.document().job(); job.title != title || !(job.site == site))
        session_.document().edit(tr("Change title and place"), [&](Job& j) {
            j.title = title.empty() ? j.title : title;
            j.site = site;
        });
    accept();
}

} // namespace vernal
