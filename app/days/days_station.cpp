#include "days_station.h"

#include "core/job/job_check.h"

#include "app/shell/theme.h"
#include "core/job/field_path.h"
#include "files/csv_trace.h"
#include "files/disk.h"

#include <QComboBox>
#include <QDate>
#include <QDateEdit>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QListWidget>
#include <QPainter>
#include <QPushButton>
#include <QScrollArea>
#include <QSpinBox>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr int above_px = 8; // of a picture, free
constexpr QSize picture_size(236, 100);

void paint_curve(QPainter& p, const std::vector<double>& v, double lo, double hi, const QColor& colour, bool fill)
{
    if (v.size() < 2)
        return;
    QPolygonF line;
    for (std::size_t i = 0; i < v.size(); ++i)
        if (std::isfinite(v[i]))
            line.append(QPointF(static_cast<double>(i) / static_cast<double>(v.size() - 1) * picture_size.width(), picture_size.height() - 2 - (v[i] - lo) / std::max(1e-9, hi - lo) * (picture_size.height() - above_px - 6)));
    if (fill) {
        line.prepend(QPointF(0, picture_size.height()));
        line.append(QPointF(picture_size.width(), picture_size.height()));
        p.setPen(Qt::NoPen);
        p.setBrush(colour);
        p.drawPolygon(line);
    } else {
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(colour, 1.4));
        p.drawPolyline(line);
    }
}

QString day_line(const Day& d, const Units& u)
{
    if (d.kind == DayKind::recorded)
        return QObject::tr("recorded, %1").arg(qs(d.trace));
    static const char* clouds[] = {"clear", "racing clouds", "broken clouds", "overcast"};
    return QStringLiteral("%1, %2\n%3 … %4").arg(QDate(d.sky.year, d.sky.month, d.sky.day).toString(QStringLiteral("d MMM")), QObject::tr(clouds[static_cast<int>(d.sky.clouds)]), text(d.sky.air_min_c, Quantity::temperature, u), text(d.sky.air_max_c, Quantity::temperature, u));
}

} // namespace

QIcon day_picture(const Job& job, const Day& day)
{
    QPixmap map(picture_size);
    map.fill(Qt::transparent);
    QPainter p(&map);
    p.fillRect(QRect(QPoint(0, above_px), picture_size), theme().surface);
    p.setRenderHint(QPainter::Antialiasing);
    const auto icon = [&] { // a chosen day is not tinted
        p.end();
        QIcon out(map);
        out.addPixmap(map, QIcon::Selected);
        return out;
    };
    if (day.kind == DayKind::recorded) {
        if (const auto it = job.traces.find(day.trace); it != job.traces.end())
            for (const TraceColumn& c : it->second->columns)
                if (c.quantity == Quantity::temperature)
                    paint_curve(p, c.values, 0, 90, c.name == "collector" ? theme().collector : theme().store_bottom, false);
        return icon();
    }
    const SkyDay sky = generate(day.sky, job.site.place);
    std::vector<double> sun, air;
    for (std::size_t m = 0; m < sky.air_c.size(); m += 8) {
        sun.push_back(on_plane({sky.beam_normal_w_m2[m], sky.diffuse_horizontal_w_m2[m]}, sky.sun[m], 40, 0).beam_w_m2 + sky.diffuse_horizontal_w_m2[m]);
        air.push_back(sky.air_c[m]);
    }
    paint_curve(p, sun, 0, 1100, theme().sun, true);
    paint_curve(p, air, -20, 40, theme().second_ink, false);
    return icon();
}

DaysStation::DaysStation(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    list_ = new QListWidget;
    list_->setObjectName("dayList");
    list_->setAccessibleName(tr("Days"));
    list_->setIconSize(picture_size);
    list_->setViewMode(QListView::IconMode);
    list_->setMovement(QListView::Static);
    list_->setResizeMode(QListView::Adjust);
    list_->setWordWrap(true);
    list_->setSpacing(6);
    list_->setGridSize(picture_size + QSize(16, 84));
    auto* buttons = new QHBoxLayout;
    auto* copy = new QPushButton(tr("Copy this day"));
    auto* import = new QPushButton(tr("Import a log …"));
    import->setObjectName("importLog");
    auto* remove = new QPushButton(tr("Remove"));
    buttons->addWidget(copy);
    buttons->addWidget(import);
    buttons->addWidget(remove);
    buttons->addStretch(1);
    message_ = new QLabel;
    message_->setObjectName("dayMessage");
    message_->setWordWrap(true);
    message_->hide();
    auto* left = new QVBoxLayout;
    left->addWidget(heading(tr("Days"), "h1"));
    left->addWidget(list_, 1);
    left->addWidget(message_);
    left->addLayout(buttons);
    auto* panel = new QFrame;
    panel->setObjectName("card");
    editor_ = new QVBoxLayout(panel);
    editor_->setSpacing(4);
    auto* box = new QHBoxLayout(this);
    box->setContentsMargins(14, 10, 10, 8);
    box->setSpacing(10);
    box->addLayout(left, 1);
    box->addWidget(side_scroll(panel, 372));
    connect(list_, &QListWidget::currentRowChanged, this, [this](int row) {
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
    connect(&session.document(), &Document::changed, this, &DaysStation::refresh);
    connect(&session.document(), &Document::view_changed, this, &DaysStation::refresh);
    connect(&session, &Session::units_changed, this, &DaysStation::refresh);
    refresh();
}

std::optional<Error> DaysStation::import_file(const QString& path)
{
    const auto fail = [&](const Error& e) -> std::optional<Error> {
        tell(QStringLiteral("<span style='color:%1'>■</span> %2").arg(theme().protect.name(), qs(e.text()).toHtmlEscaped()));
        return e;
    };
    const auto content = read_file(path.toStdString());
    if (!content)
        return fail(content.error());
    const std::string file = QFileInfo(path).fileName().toStdString();
    auto trace = read_trace_csv(*content, file);
    if (!trace)
        return fail(trace.error());
    QStringList notes;
    for (const std::string& n : trace->notes)
        notes << qs(n);
    tell(tr("%1: %2 rows. %3").arg(qs(file)).arg(trace->time_s.size()).arg(notes.join(QStringLiteral(". "))));
    const bool replayable = trace->find("collector") != nullptr;
    auto shared = std::make_shared<const Trace>(std::move(*trace));
    session_.document().edit(tr("Import a log"), [&](Job& j) {
        std::string name = file;
        for (int n = 2; j.traces.count(name) != 0; ++n)
            name = std::to_string(n) + "-" + file;
        j.traces[name] = shared;
        Day d = j.days[session_.document().day_index()];
        d.kind = replayable ? DayKind::recorded : DayKind::generated;
        d.name = free_name(j.days, QFileInfo(path).completeBaseName().toStdString());
        d.trace = name;
        j.days.push_back(d);
    });
    session_.document().choose_day(session_.document().job().days.size() - 1);
    return std::nullopt;
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
    const QString shape = QStringLiteral("%1|%2|%3|%4|%5").arg(doc.day_index()).arg(static_cast<int>(d.kind)).arg(d.draws.size()).arg(qs(d.trace)).arg(doc.job().days.size());
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
    }
    if (!session_.document().day().trace.empty())
        add_trace_notes();
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
    clouds->addItems({tr("clear"), tr("racing clouds"), tr("broken clouds"), tr("overcast")});
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
    const auto more = add_rows(*sheet, session_, QStringLiteral("day"), session_.document().day(), [this](const std::string& key, double to) { session_.document().set(tr("Change the day"), path(key), to); });
    refreshers_.push_back([this, date, clouds, haze, begins, again, rows, more] {
        const Day& d = session_.document().day();
        const QSignalBlocker quiet(date);
        date->setDate(QDate(d.sky.year, d.sky.month, d.sky.day));
        clouds->setCurrentIndex(static_cast<int>(d.sky.clouds));
        haze->setCurrentIndex(static_cast<int>(d.sky.haze));
        begins->setCurrentIndex(static_cast<int>(d.begins));
        again->setEnabled(d.sky.clouds != Clouds::clear);
        refresh_rows(rows, d.sky);
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
    for (std::size_t i = 0; i < session_.document().day().draws.size(); ++i)
        sheet->add({}, draw_row(i));
    editor_->addWidget(sheet);
    auto* add = new QPushButton(tr("Add a draw"));
    connect(add, &QPushButton::clicked, this, [this] { session_.document().edit_day(tr("Add a draw"), [](Day& d) { d.draws.push_back({12.0, 600, 1e-4}); }); });
    add->setObjectName("quiet");
    editor_->addWidget(add, 0, Qt::AlignLeft);
}

// One draw in a line: when, how long, how much.
QWidget* DaysStation::draw_row(std::size_t i)
{
    auto* row = new QWidget;
    auto* box = new QHBoxLayout(row);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(4);
    const Draw& draw = session_.document().day().draws[i];
    const QString between[] = {QString(), tr("for"), tr("at")};
    std::vector<NumberEdit*> edits;
    for (const auto& [field, inside] : number_fields(draw)) {
        auto* edit = new NumberEdit(session_, field);
        edit->stand_in_row();
        edit->setObjectName(QStringLiteral("draw%1.%2").arg(i).arg(QString::fromUtf8(field.key)));
        edit->set_value(inside);
        if (!between[edits.size()].isEmpty())
            box->addWidget(new QLabel(between[edits.size()]));
        box->addWidget(edit);
        connect(edit, &NumberEdit::edited, this, [this, i, key = std::string(field.key)](double to) { session_.document().set(tr("Change a draw"), path("draw/" + std::to_string(i + 1) + "/" + key), to); });
        edits.push_back(edit);
    }
    auto* remove = new QPushButton(QStringLiteral("✕"));
    remove->setObjectName("removeDraw");
    remove->setProperty("look", "quiet");
    remove->setFixedSize(32, 32);
    remove->setToolTip(tr("Remove this draw"));
    remove->setAccessibleName(tr("Remove draw %1").arg(i + 1));
    connect(remove, &QPushButton::clicked, this, [this, i] { session_.document().edit_day(tr("Remove a draw"), [i](Day& d) { d.draws.erase(d.draws.begin() + static_cast<std::ptrdiff_t>(i)); }); });
    box->addStretch(1);
    box->addWidget(remove);
    refreshers_.push_back([this, edits, i] {
        if (i < session_.document().day().draws.size())
            refresh_rows(edits, session_.document().day().draws[i]);
    });
    return row;
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
