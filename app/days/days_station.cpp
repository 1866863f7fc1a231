#include "days_station.h"

#include "day_picture.h"
#include "fault_sheet.h"
#include "horizon_sheet.h"
#include "import_page.h"
#include "item_rows.h"
#include "log_desk.h"
#include "log_edit_sheet.h"
#include "spell_rows.h"
#include "year_sheet.h"

#include "app/shell/theme.h"
#include "core/job/day_shelf.h"
#include "core/job/field_path.h"
#include "core/job/job_check.h"

#include <QComboBox>
#include <QDate>
#include <QDateEdit>
#include <QHBoxLayout>
#include <QListWidget>
#include <QMenu>
#include <QPushButton>
#include <QScrollArea>
#include <QStackedWidget>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace vernal {

DaysStation::DaysStation(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    whole_ = new QStackedWidget;
    import_ = new ImportPage(session_);
    logs_ = new LogDesk(session_, *import_, this);
    whole_->addWidget(make_shelf());
    whole_->addWidget(import_);
    constexpr int least_px = 200; // a page that is not shown takes no height from the strip
    whole_->setMinimumHeight(least_px);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->addWidget(whole_);
    const auto back = [this] {
        whole_->setCurrentIndex(0);
        list_->setFocus();
    };
    connect(import_, &ImportPage::left, this, back);
    connect(import_, &ImportPage::taken, this, [this, back](const std::shared_ptr<const Trace>& trace, const QString& name, const QString& said) {
        back();
        logs_->put_log(trace, name, said);
    });
    connect(logs_, &LogDesk::said, this, &DaysStation::tell);
    connect(logs_, &LogDesk::page_wanted, this, [this] { whole_->setCurrentIndex(1); });
    connect(&session.document(), &Document::changed, this, &DaysStation::refresh);
    connect(&session.document(), &Document::view_changed, this, &DaysStation::refresh);
    connect(&session, &Session::units_changed, this, &DaysStation::refresh);
    refresh();
}

QWidget* DaysStation::make_shelf()
{
    auto* shelf = new QWidget;
    list_ = new QListWidget;
    list_->setObjectName("dayList");
    list_->setAccessibleName(tr("Days"));
    list_->setIconSize(day_picture_size);
    list_->setViewMode(QListView::IconMode);
    list_->setMovement(QListView::Static);
    list_->setResizeMode(QListView::Adjust);
    list_->setWordWrap(true);
    list_->setSpacing(6);
    list_->setGridSize(day_picture_size + QSize(16, 84));
    auto* buttons = new QHBoxLayout;
    auto* ready = new QPushButton(tr("Add a day ▾"));
    ready->setObjectName("addDay");
    ready->setMenu(new QMenu(ready));
    ready->menu()->setObjectName("readyDays");
    ready->menu()->setToolTipsVisible(true);
    for (const ReadyDay& day : ready_days()) {
        QAction* action = ready->menu()->addAction(tr(day.title));
        action->setObjectName(QString::fromLatin1(day.key));
        action->setToolTip(tr(day.about));
        connect(action, &QAction::triggered, this, [this, &day] { add_ready(day); });
    }
    auto* copy = new QPushButton(tr("Copy this day"));
    auto* import = new QPushButton(tr("Import a log or weather …"));
    import->setObjectName("importLog");
    auto* export_day = new QPushButton(tr("Save as CSV …"));
    export_day->setObjectName("exportDay");
    export_day->setToolTip(tr("What the unit reads and does on this day, a row each ten seconds; of a log its own rows"));
    connect(export_day, &QPushButton::clicked, this, &DaysStation::export_wanted);
    auto* remove = new QPushButton(tr("Remove"));
    buttons->addWidget(ready);
    buttons->addWidget(copy);
    buttons->addWidget(import);
    buttons->addWidget(export_day);
    buttons->addWidget(remove);
    buttons->addStretch(1);
    message_ = new QLabel;
    message_->setObjectName("dayMessage");
    message_->setWordWrap(true);
    message_->hide();
    auto* left = new QVBoxLayout;
    auto* year = new QPushButton(tr("A year"));
    year->setObjectName("showYear");
    year->setCheckable(true);
    year->setToolTip(tr("365 days by months, in place of the shelf"));
    auto* top = new QHBoxLayout;
    top->addWidget(heading(tr("Days"), "h1"), 1);
    top->addWidget(year);
    auto* pages = new QStackedWidget;
    pages->addWidget(list_);
    pages->addWidget(new YearSheet(session_));
    connect(year, &QPushButton::toggled, pages, &QStackedWidget::setCurrentIndex);
    left->addLayout(top);
    left->addWidget(pages, 1);
    left->addWidget(message_);
    left->addLayout(buttons);
    auto* panel = new QFrame;
    panel->setObjectName("card");
    editor_ = new QVBoxLayout(panel);
    editor_->setSpacing(4);
    auto* box = new QHBoxLayout(shelf);
    box->setContentsMargins(14, 10, 10, 8);
    box->setSpacing(10);
    box->addLayout(left, 1);
    box->addWidget(side_scroll(panel, 372));
    connect(list_, &QListWidget::currentRowChanged, this, [this](int row) {
        message_->hide();
        if (row >= 0 && static_cast<std::size_t>(row) != session_.document().day_index())
            session_.document().choose_day(static_cast<std::size_t>(row));
    });
    connect(copy, &QPushButton::clicked, this, [this] {
        session_.document().edit(tr("Copy a day"), [i = session_.document().day_index()](Job& j) {
            Day d = j.days[i];
            d.name = free_name(j.days, d.name + " copy");
            j.days.insert(j.days.begin() + static_cast<std::ptrdiff_t>(i) + 1, d);
        });
        session_.document().choose_day(session_.document().day_index() + 1);
    });
    connect(remove, &QPushButton::clicked, this, [this] {
        if (session_.document().job().days.size() < 2)
            return tell(tr("A job keeps at least one day."));
        session_.document().edit(tr("Remove a day"), [i = session_.document().day_index()](Job& j) { j.days.erase(j.days.begin() + static_cast<std::ptrdiff_t>(i)); });
    });
    connect(import, &QPushButton::clicked, this, &DaysStation::import_wanted);
    return shelf;
}

bool DaysStation::importing() const { return whole_->currentIndex() == 1; }

void DaysStation::add_ready(const ReadyDay& ready)
{
    session_.document().edit(tr("Add a day"), [&](Job& j) {
        Day d = ready_day(ready, j);
        d.name = free_name(j.days, d.name);
        j.days.push_back(d);
    });
    session_.document().choose_day(session_.document().job().days.size() - 1);
    tell(tr("%1. %2.").arg(tr(ready.title), tr(ready.about)));
}

void DaysStation::tell(const QString& what)
{
    message_->setText(what);
    message_->show();
}

void DaysStation::refresh()
{
    const Document& doc = session_.document();
    const QSignalBlocker quiet(list_);
    if (doc.job().days != shown_ || session_.units() != shown_units_ || list_->count() == 0) {
        shown_ = doc.job().days;
        shown_units_ = session_.units();
        list_->clear();
        for (const Day& d : doc.job().days) {
            auto* item = new QListWidgetItem(day_picture(doc.job(), d), QStringLiteral("%1\n%2").arg(qs(d.name), day_line(d, session_.units())));
            list_->addItem(item);
        }
    }
    list_->setCurrentRow(static_cast<int>(doc.day_index()));
    const Day& d = doc.day();
    const QString shape = QStringLiteral("%1|%2|%3|%4|%5|%6").arg(doc.day_index()).arg(static_cast<int>(d.kind)).arg(d.draws.size()).arg(d.shades.size()).arg(qs(d.trace)).arg(doc.job().days.size());
    if (shape != shape_) {
        shape_ = shape;
        rebuild_editor();
    }
    for (const auto& r : refreshers_)
        r();
}

std::string DaysStation::path(const std::string& key) const { return "day/" + session_.document().day().id + "/" + key; }

void DaysStation::rebuild_editor()
{
    clear_layout(editor_);
    refreshers_.clear();
    auto* name = new QLineEdit;
    name->setObjectName("words");
    name->setAccessibleName(tr("Name of the day"));
    connect(name, &QLineEdit::editingFinished, this, [this, name] { session_.document().set(tr("Name a day"), path("name"), name->text().toStdString()); });
    refreshers_.push_back([this, name] { name->setText(qs(session_.document().day().name)); });
    editor_->addWidget(name);
    if (session_.document().day().kind == DayKind::generated) {
        add_sky_rows();
        add_draw_rows();
        add_shade_rows();
        add_horizon();
    }
    if (!session_.document().day().trace.empty())
        add_trace_notes();
    add_faults();
    if (session_.document().day().kind == DayKind::recorded)
        add_log_edits();
    editor_->addStretch(1);
}

void DaysStation::add_sky_rows()
{
    auto* sheet = new FieldSheet(session_);
    auto* date = new QDateEdit;
    date->setDisplayFormat(QStringLiteral("d MMMM yyyy"));
    date->setObjectName("dayDate");
    date->setAccessibleName(tr("Date"));
    date->setMinimumHeight(32);
    date->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    auto* sky = new QWidget;
    sky->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    auto* sky_row = new QHBoxLayout(sky);
    sky_row->setContentsMargins(0, 0, 0, 0);
    auto* clouds = new QComboBox;
    clouds->setObjectName("dayClouds");
    clouds->setAccessibleName(tr("Sky"));
    clouds->addItems(sky_names());
    auto* again = new QPushButton(tr("Others"));
    again->setObjectName("otherClouds");
    again->setToolTip(tr("The same kind of day with other clouds"));
    sky_row->addWidget(clouds, 1);
    sky_row->addWidget(again);
    sheet->set_path("day/" + session_.document().day().id);
    sheet->add(tr("Date"), date);
    sheet->add(tr("Sky"), sky);
    const auto choice = [&](const char* name, const QString& label, const QStringList& names, const QString& edit, const char* key) {
        return choice_row(
            *sheet, QString::fromLatin1(name), label, names, [this, edit, key](int i) {
                Document& d = session_.document();
                if (const auto now = setting_at(d.job(), d.variant_index(), path(key)))
                    d.set(edit, now->path, now->choices[static_cast<std::size_t>(i)]);
            },
            key);
    };
    QComboBox* haze = choice("dayHaze", tr("Air"), {tr("clear as on mountains"), tr("usual"), tr("hazy"), tr("smoke")}, tr("Change the air"), "sky/haze");
    haze->setToolTip(tr("How much of the sun a cloudless sky lets through: Linke turbidity 2, 3, 4.5 or 7"));
    QComboBox* begins = choice("dayBegins", tr("Stores begin"), {tr("as such days leave them"), tr("cold, filled today"), tr("after days unused")}, tr("Change how the stores begin"), "begins");
    begins->setToolTip(tr("A pool, a slab and a battery begin as stated at the Loop station"));
    connect(date, &QDateEdit::dateChanged, this, [this](const QDate& d) {
        session_.document().edit_day(
            tr("Change the date"), [d](Day& x) {
                x.sky.year = d.year();
                x.sky.month = d.month();
                x.sky.day = d.day();
            },
            QStringLiteral("date"));
    });
    connect(clouds, &QComboBox::activated, this, [this](int i) {
        Document& d = session_.document();
        if (const auto now = setting_at(d.job(), d.variant_index(), path("sky/clouds")))
            d.set(tr("Change the sky"), now->path, now->choices[static_cast<std::size_t>(i)]);
    });
    connect(again, &QPushButton::clicked, this, [this] { session_.document().set(tr("Other clouds"), path("sky/seed"), session_.document().day().sky.seed % 1000000 + 1.0); });
    const auto rows = add_rows(*sheet, session_, QStringLiteral("sky"), session_.document().day().sky, [this](const std::string& key, double to) { session_.document().set(tr("Change the day"), path("sky/" + key), to); });
    const auto more = add_rows(
        *sheet, session_, QStringLiteral("day"), session_.document().day(), [this](const std::string& key, double to) { session_.document().set(tr("Change the day"), path(key), to); }, [](const NumberField& f) { return std::string_view(f.key) != "guests_times"; });
    refreshers_.push_back(add_spell_rows(*sheet, session_, [this](const std::string& key) { return path(key); }));
    refreshers_.push_back([this, date, sky, clouds, haze, begins, again, rows, more] {
        const Day& d = session_.document().day();
        const QSignalBlocker quiet(date);
        date->setDate(QDate(d.sky.year, d.sky.month, d.sky.day));
        clouds->setCurrentIndex(static_cast<int>(d.sky.clouds));
        haze->setCurrentIndex(static_cast<int>(d.sky.haze));
        begins->setCurrentIndex(static_cast<int>(d.begins));
        again->setEnabled(d.sky.clouds != Clouds::clear);
        refresh_rows(rows, d.sky);
        const auto it = session_.document().job().traces.find(d.trace);
        const auto given = [&](const char* column) { return it != session_.document().job().traces.end() && it->second->find(column) != nullptr; };
        const bool sun = given("irradiance") || given("beam_normal"), air = given("air") || given("temperature");
        show_row(sky, !sun); // what the file says is not asked for
        show_row(haze, !sun);
        for (NumberEdit* edit : rows)
            show_row(edit, !(air && edit->objectName().startsWith(QLatin1String("sky.air_"))) && !(given("wind") && edit->objectName() == QLatin1String("sky.wind_m_s")) && (edit->objectName() != QLatin1String("sky.fog_until_h") || d.sky.clouds == Clouds::fog) && (edit->objectName() != QLatin1String("sky.thunder_at_h") || d.sky.clouds == Clouds::thunder));
        refresh_rows(more, d);
    });
    editor_->addWidget(sheet);
}

void DaysStation::add_draw_rows()
{
    editor_->addWidget(heading(tr("Draw")));
    auto* profile = new QComboBox;
    profile->setObjectName("drawProfile");
    profile->setAccessibleName(tr("Draw over the day"));
    for (const DrawProfile& p : draw_profiles())
        profile->addItem(tr(p.title));
    profile->addItem(tr("as set below"));
    editor_->addWidget(profile);
    connect(profile, &QComboBox::activated, this, [this](int i) {
        if (static_cast<std::size_t>(i) < draw_profiles().size())
            session_.document().edit_day(tr("Choose how water is drawn"), [i](Day& d) { d.draws = draw_profiles()[static_cast<std::size_t>(i)].draws; });
    });
    refreshers_.push_back([this, profile] {
        const auto& all = draw_profiles();
        const auto it = std::find_if(all.begin(), all.end(), [this](const DrawProfile& p) { return p.draws == session_.document().day().draws; });
        profile->setCurrentIndex(static_cast<int>(it - all.begin()));
    });
    auto* sheet = new FieldSheet(session_);
    const ItemWords words{"draw", tr("Change a draw"), tr("Remove this draw"), {QString(), tr("for"), tr("at")}};
    for (std::size_t i = 0; i < session_.document().day().draws.size(); ++i)
        sheet->add({}, item_row(session_, words, &Day::draws, i, path(""), refreshers_));
    editor_->addWidget(sheet);
    auto* add = new QPushButton(tr("Add a draw"));
    connect(add, &QPushButton::clicked, this, [this] { session_.document().edit_day(tr("Add a draw"), [](Day& d) { d.draws.push_back({12.0, 600, 1e-4}); }); });
    add->setObjectName("quiet");
    editor_->addWidget(add, 0, Qt::AlignLeft);
}

void DaysStation::add_shade_rows()
{
    editor_->addWidget(heading(tr("Shade")));
    auto* sheet = new FieldSheet(session_);
    const ItemWords words{"shade", tr("Change a shade"), tr("Remove this shade"), {QString(), tr("to"), tr("lets through")}};
    for (std::size_t i = 0; i < session_.document().day().shades.size(); ++i)
        sheet->add({}, item_row(session_, words, &Day::shades, i, path(""), refreshers_));
    editor_->addWidget(sheet);
    auto* add = new QPushButton(tr("Add the shade of something near"));
    add->setObjectName("addShade");
    add->setProperty("look", "quiet");
    add->setToolTip(tr("A chimney, a tree: when its shade lies on the array on this day"));
    connect(add, &QPushButton::clicked, this, [this] { session_.document().edit_day(tr("Add a shade"), [](Day& d) { d.shades.emplace_back(); }); });
    editor_->addWidget(add, 0, Qt::AlignLeft);
}

void DaysStation::add_faults()
{
    editor_->addWidget(heading(tr("Faults")));
    auto* sheet = new FaultSheet(session_);
    refreshers_.push_back([sheet] { sheet->refresh(); });
    editor_->addWidget(sheet);
    if (session_.document().day().kind == DayKind::recorded)
        return;
    auto* keep = new QPushButton(tr("Keep what is run as a log"));
    keep->setObjectName("keepLog");
    keep->setProperty("look", "quiet");
    keep->setToolTip(tr("As a logger beside the unit would have recorded it, a row each half minute: to be edited, replayed and audited"));
    connect(keep, &QPushButton::clicked, logs_, &LogDesk::keep_as_log);
    editor_->addWidget(keep, 0, Qt::AlignLeft);
}

void DaysStation::add_log_edits()
{
    editor_->addWidget(heading(tr("Edit this log")));
    auto* sheet = new LogEditSheet(session_);
    connect(sheet, &LogEditSheet::said, this, &DaysStation::tell);
    refreshers_.push_back([sheet] { sheet->refresh(); });
    editor_->addWidget(sheet);
}

void DaysStation::add_horizon()
{
    editor_->addWidget(heading(tr("Horizon")));
    auto* sheet = new HorizonSheet(session_);
    refreshers_.push_back([sheet] { sheet->refresh(); });
    editor_->addWidget(sheet);
}

void DaysStation::add_trace_notes()
{
    const Job& job = session_.document().job();
    const auto it = job.traces.find(session_.document().day().trace);
    if (it == job.traces.end())
        return;
    QStringList columns, notes;
    for (const TraceColumn& c : it->second->columns)
        columns << qs(c.name);
    for (const std::string& n : it->second->notes)
        notes << qs(n);
    const bool replay = session_.document().day().kind == DayKind::recorded;
    auto* label = new QLabel(tr("<b>%1</b><br>%2 rows, one each %3<br>begins %4<br>columns: %5<br>%6<br><br>%7")
                                 .arg(qs(session_.document().day().trace).toHtmlEscaped())
                                 .arg(it->second->time_s.size())
                                 .arg(text(it->second->interval_s(), Quantity::duration, session_.units()), qs(it->second->start), columns.join(QStringLiteral(", ")), notes.join(QStringLiteral("<br>")),
                                     replay ? tr("Replayed: the rules decide on these readings. No heat is computed, because the log already holds what its own pump did.") : tr("Gives this day its air temperature, and its sun where it has an “irradiance” column.")));
    label->setWordWrap(true);
    editor_->addWidget(label);
}

} // namespace vernal
