#include "visits_station.h"

#include "app/print/paper_print.h"
#include "app/shell/theme.h"
#include "app/widgets/flow_layout.h"
#include "app/widgets/form.h"
#include "app/widgets/quiet_stack.h"
#include "call_page.h"
#include "core/units/calendar.h"
#include "core/visit/check_list.h"
#include "core/visit/first_day.h"
#include "core/visit/measured.h"
#include "cost_page.h"
#include "files/attachment.h"
#include "files/disk.h"
#include "files/ical.h"
#include "files/unit_file.h"
#include "letterhead_sheet.h"
#include "list_page.h"
#include "paper_pictures.h"
#include "seasons_panel.h"
#include "visit_edits.h"
#include "visit_page.h"

#include <QDateTime>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QMenu>
#include <QPrinter>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>

namespace vernal {
namespace {

constexpr int list_px = 226, seasons_px = 340;
constexpr int id_role = Qt::UserRole;

QString purpose_words(Purpose p)
{
    switch (p) {
    case Purpose::service: return QObject::tr("service");
    case Purpose::survey: return QObject::tr("survey");
    case Purpose::commissioning: return QObject::tr("commissioning");
    case Purpose::call_back: return QObject::tr("call-back");
    case Purpose::other: break;
    }
    return QObject::tr("visit");
}

QString entry_text(const Job& job, const Visit& v)
{
    QString s = qs(date_words(v.when)) + QLatin1Char('\n') + purpose_words(v.purpose) + (v.title.empty() ? QString() : QStringLiteral(": ") + qs(v.title));
    std::size_t open = v.next.size();
    for (const CheckList& l : check_lists(job))
        if (l.purpose == v.purpose && std::any_of(v.ticks.begin(), v.ticks.end(), [&](const VisitTick& t) { return t.list == l.name; }))
            open = open_items(items_of(job, variant_of(job, v), l, v.when));
    s += QLatin1Char('\n') + (v.closed ? QObject::tr("closed") : QObject::tr("open"));
    if (!v.closed && open > 0)
        s += QObject::tr(" · %1 open").arg(open);
    if (!v.amendments.empty())
        s += QObject::tr(" · amended");
    return s;
}

} // namespace

VisitsStation::VisitsStation(Session& session, const Dialogs& dialogs, QWidget* parent) : QWidget(parent), session_(session), dialogs_(dialogs)
{
    auto* row = new QHBoxLayout(this);
    constexpr int least_px = 300; // the strip has its room at other stations
    setMinimumHeight(least_px);
    row->setContentsMargins(12, 10, 0, 10);
    row->setSpacing(12);
    row->addWidget(make_list());
    row->addWidget(make_middle(), 1);
    seasons_ = new SeasonsPanel(session);
    row->addWidget(side_scroll(seasons_, seasons_px));
    connect(seasons_, &SeasonsPanel::calendar_wanted, this, &VisitsStation::write_calendar);
    connect(seasons_, &SeasonsPanel::visit_wanted, this, &VisitsStation::choose_id);
    connect(seasons_, &SeasonsPanel::done_wanted, this, &VisitsStation::put_due);
    connect(&session.document(), &Document::changed, this, &VisitsStation::refresh);
    connect(&session.document(), &Document::path_changed, this, [this] { id_.clear(); refresh(); });
}

QWidget* VisitsStation::make_list()
{
    auto* column = new QWidget;
    column->setFixedWidth(list_px);
    auto* add = new QPushButton(tr("+ visit"));
    add->setObjectName(QStringLiteral("addVisit"));
    auto* menu = new QMenu(add);
    for (std::size_t i = 0; i < purpose_keys.size(); ++i) {
        QAction* a = menu->addAction(purpose_words(static_cast<Purpose>(i)));
        a->setObjectName(QStringLiteral("add.") + QString::fromUtf8(purpose_keys[i]));
        connect(a, &QAction::triggered, this, [this, i] { begin(static_cast<Purpose>(i)); });
    }
    add->setMenu(menu);
    auto* call = new QPushButton(tr("A customer calls …"));
    call->setObjectName(QStringLiteral("callBack"));
    auto* costs = new QPushButton(tr("Costs …"));
    costs->setObjectName(QStringLiteral("costs"));
    list_ = new QListWidget;
    list_->setObjectName(QStringLiteral("visitList"));
    list_->setAccessibleName(tr("Visits"));
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list_->setWordWrap(true);
    auto* head = new QHBoxLayout;
    head->addWidget(heading(tr("Visits")), 1);
    head->addWidget(add);
    auto* box = new QVBoxLayout(column);
    box->setContentsMargins(0, 0, 0, 0);
    box->addLayout(head);
    box->addWidget(list_, 1);
    box->addWidget(call);
    box->addWidget(costs);
    connect(list_, &QListWidget::currentRowChanged, this, &VisitsStation::choose);
    connect(call, &QPushButton::clicked, this, &VisitsStation::show_call);
    connect(costs, &QPushButton::clicked, this, &VisitsStation::show_costs);
    return column;
}

QWidget* VisitsStation::make_middle()
{
    auto* middle = new QWidget;
    const auto button = [&](const char* name, const QString& words, const QString& hint = {}) {
        auto* b = new QPushButton(words);
        b->setObjectName(QString::fromLatin1(name));
        b->setToolTip(hint);
        return b;
    };
    found_ = button("takeFoundSettings", tr("As found"), tr("The chosen variant is what stood in the unit when you came"));
    left_ = button("takeLeftSettings", tr("As left"), tr("The chosen variant is what you leave in the unit"));
    lists_ = button("visitLists", tr("Lists …"), tr("Commissioning, survey, yearly service: item by item"));
    photo_ = button("visitPhoto", tr("+ photo"), tr("Or drop one on the page, or paste it"));
    close_ = button("closeVisit", tr("Close"), tr("What is closed is amended with date and reason, never changed"));
    report_ = button("visitReport", tr("Report …"));
    more_ = button("visitMore", tr("More …"));
    auto* report_menu = new QMenu(report_);
    fill_report_menu(*report_menu);
    report_->setMenu(report_menu);
    more_menu_ = new QMenu(more_);
    more_->setMenu(more_menu_);
    connect(more_menu_, &QMenu::aboutToShow, this, &VisitsStation::fill_more_menu);
    auto* acts = new FlowLayout(nullptr, 6);
    for (QPushButton* b : {found_, left_, lists_, photo_, more_, close_, report_})
        acts->addWidget(b);
    page_ = new VisitPage(session_, dialogs_);
    list_page_ = new ListPage(session_);
    call_ = new CallPage(session_);
    cost_ = new CostPage(session_);
    nothing_ = new QWidget;
    auto* empty_box = new QVBoxLayout(nothing_);
    empty_ = remark(tr("No visit yet. “+ visit” begins one now: for a survey, commissioning, service or a call-back. What you read is said line by line, “S1 1106 ohm”, “bucket 8 L 61 s”."));
    auto* first = button("firstVisit", tr("Begin a service visit"));
    connect(first, &QPushButton::clicked, this, [this] { begin(Purpose::service); });
    empty_box->addWidget(empty_);
    empty_box->addWidget(first, 0, Qt::AlignLeft);
    empty_box->addStretch(1);
    pages_ = new QuietStack;
    for (QWidget* w : std::initializer_list<QWidget*>{nothing_, page_, list_page_, call_, cost_})
        pages_->addWidget(w);
    auto* box = new QVBoxLayout(middle);
    box->setContentsMargins(0, 0, 0, 0);
    box->addLayout(acts);
    box->addWidget(pages_, 1);
    connect(found_, &QPushButton::clicked, this, [this] { take_settings(true); });
    connect(left_, &QPushButton::clicked, this, [this] { take_settings(false); });
    connect(lists_, &QPushButton::clicked, this, &VisitsStation::show_lists);
    connect(photo_, &QPushButton::clicked, page_, &VisitPage::take_photos);
    connect(close_, &QPushButton::clicked, this, &VisitsStation::close_shown);
    connect(list_page_, &ListPage::left, this, &VisitsStation::show_page);
    connect(list_page_, &ListPage::own_wanted, this, &VisitsStation::take_own_list);
    connect(list_page_, &ListPage::photo_wanted, page_, &VisitPage::take_photos);
    connect(call_, &CallPage::left, this, &VisitsStation::show_page);
    connect(call_, &CallPage::became, this, &VisitsStation::choose_id);
    connect(cost_, &CostPage::left, this, &VisitsStation::show_page);
    return middle;
}

void VisitsStation::fill_report_menu(QMenu& menu)
{
    for (const PaperKind& k : paper_kinds()) {
        QMenu* sub = menu.addMenu(tr(k.title));
        const std::string key = k.key;
        QAction* save = sub->addAction(tr("Save as PDF, HTML, CSV …"), this, [this, key] { report(key); });
        save->setObjectName(QStringLiteral("report.") + qs(key));
        sub->addAction(tr("Print …"), this, [this, key] { print(key); });
    }
    menu.addSeparator();
    menu.addAction(tr("Letterhead and paper …"), this, &VisitsStation::edit_letterhead);
}

void VisitsStation::fill_more_menu()
{
    more_menu_->clear();
    const Visit* v = find_visit(session_.document().job(), id_);
    if (!v)
        return;
    if (v->closed) {
        more_menu_->addAction(tr("Amend …"), this, [this] {
            show_page();
            page_->begin_amending();
        });
        return;
    }
    if (arrangement_of(variant_of(session_.document().job(), *v).loop).pumped())
        more_menu_->addAction(tr("Foretell the first day"), this, &VisitsStation::foretell_first_day);
    more_menu_->addAction(tr("Take over the bench's newest test"), this, &VisitsStation::add_test)->setEnabled(!session_.document().job().bench.empty());
    more_menu_->addAction(tr("Delete this draft"), this, [this] {
        const std::string id = id_;
        id_.clear();
        delete_draft(session_.document(), id);
    });
}

void VisitsStation::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    refresh();
}

void VisitsStation::refresh()
{
    if (!isVisible())
        return;
    const Job& job = session_.document().job();
    const auto& visits = job.logbook.visits;
    if (!find_visit(job, id_))
        id_ = visits.empty() ? "" : visits.back().id;
    const QSignalBlocker quiet(list_);
    list_->clear();
    for (auto it = visits.rbegin(); it != visits.rend(); ++it) { // the latest on top
        auto* item = new QListWidgetItem(entry_text(job, *it), list_);
        item->setData(id_role, qs(it->id));
        item->setToolTip(item->text());
        if (it->id == id_)
            list_->setCurrentItem(item);
    }
    const Visit* v = find_visit(job, id_);
    if (!v && pages_->currentWidget() != call_ && pages_->currentWidget() != cost_)
        pages_->setCurrentWidget(nothing_);
    else if (v && pages_->currentWidget() == nothing_)
        pages_->setCurrentWidget(page_);
    for (QPushButton* b : {found_, left_, photo_, close_})
        b->setEnabled(v && !v->closed);
    lists_->setEnabled(v);
    more_->setEnabled(v);
    if (v) {
        page_->show_visit(id_);
        list_page_->show_visit(id_);
    }
}

void VisitsStation::choose(int row)
{
    if (row >= 0)
        choose_id(list_->item(row)->data(id_role).toString().toStdString());
}

void VisitsStation::choose_id(const std::string& id)
{
    id_ = id;
    show_page();
}

void VisitsStation::show_page()
{
    pages_->setCurrentWidget(find_visit(session_.document().job(), id_) ? static_cast<QWidget*>(page_) : nothing_);
    refresh();
}

void VisitsStation::show_call()
{
    pages_->setCurrentWidget(call_);
    call_->begin();
}

void VisitsStation::show_lists()
{
    if (find_visit(session_.document().job(), id_))
        pages_->setCurrentWidget(list_page_);
}

void VisitsStation::show_costs() { pages_->setCurrentWidget(cost_); }

void VisitsStation::begin(Purpose purpose)
{
    choose_id(begin_visit(session_.document(), purpose));
    if (purpose == Purpose::survey || purpose == Purpose::commissioning)
        show_lists();
    else
        page_->say({});
}

void VisitsStation::close_shown()
{
    const QString why = close_visit(session_.document(), id_);
    if (why.isEmpty())
        return;
    show_page();
    page_->say(QStringLiteral("persons: "));
    dialogs_.tell(this, why + tr(". Say it in the line below the page."));
}

void VisitsStation::take_settings(bool found)
{
    const Variant now = session_.document().variant();
    change_visit(session_.document(), id_, found ? tr("Settings found") : tr("Settings left"), [&](Visit& v) {
        (found ? v.found : v.left) = {now};
        if (found && v.found_how.empty())
            v.found_how = "by reading the unit, as “" + now.name + "”";
        if (!found && v.left_how.empty())
            v.left_how = "as “" + now.name + "”";
    });
}

void VisitsStation::foretell_first_day()
{
    const Document& d = session_.document();
    const Visit* v = find_visit(d.job(), id_);
    if (!v)
        return;
    const auto readings = valid_readings(*v);
    const VisitReading *store = reading_of(readings, "store"), *air = reading_of(readings, "air");
    const Day& day = d.day();
    constexpr double swing_k = 5;
    const auto foretold = foretell(d.job(), variant_of(d.job(), *v), v->when.substr(0, 10), Clouds::clear, air ? air->value - swing_k : day.sky.air_min_c, air ? air->value + swing_k : day.sky.air_max_c, store ? store->value : day.mains_c);
    if (!foretold)
        return dialogs_.tell(this, qs(foretold.error().text()));
    change_visit(session_.document(), id_, tr("Foretell the first day"), [&](Visit& x) { x.first_day = *foretold; });
}

void VisitsStation::add_test()
{
    const auto& bench = session_.document().job().bench;
    if (bench.empty())
        return;
    change_visit(session_.document(), id_, tr("Take over a test"), [key = test_key(bench.back())](Visit& x) {
        if (std::find(x.tests.begin(), x.tests.end(), key) == x.tests.end())
            x.tests.push_back(key);
    });
}

void VisitsStation::put_due(const std::string& title, const std::string& due_id)
{
    const Visit* v = find_visit(session_.document().job(), id_);
    if (!v || v->closed)
        return dialogs_.tell(this, tr("What was done is written into an open visit: begin one, or choose it."));
    change_visit(session_.document(), id_, tr("Done: %1").arg(qs(title)), [&](Visit& x) {
        VisitWork w;
        w.text = title;
        w.does = {due_id};
        x.work.push_back(w);
    });
}

void VisitsStation::write_calendar()
{
    const Job& job = session_.document().job();
    const QString path = dialogs_.save_as(this, qs(job.title) + QStringLiteral(".ics"), tr("Calendars (*.ics)"));
    if (path.isEmpty())
        return;
    std::vector<CalendarEntry> all;
    for (const DueNow& d : seasons_->due())
        all.push_back({d, job.title, job.site.customer, job.site.name});
    const auto done = write_file_atomically(path.toStdString(), due_calendar(all, QDateTime::currentDateTimeUtc().toString(QStringLiteral("yyyyMMddTHHmmssZ")).toStdString()));
    if (!done)
        dialogs_.tell(this, qs(done.error().text()));
}

namespace {

Result<Paper> paper_of(Session& session, const std::string& kind, const std::string& visit, const std::vector<UnitSheet>& sheets)
{
    const Document& d = session.document();
    PaperRequest r{d.job(), d.variant_index(), visit, session.units(), today_date(), sheets.empty() ? nullptr : &sheets.front()};
    return find_paper(kind)->make(r);
}

} // namespace

bool VisitsStation::write_report(const std::string& kind, const QString& path, QPageSize::PageSizeId size)
{
    const auto sheets = sheets_of(session_.document().job());
    const auto paper = paper_of(session_, kind, kind == "service" ? id_ : "", sheets);
    if (!paper) {
        dialogs_.tell(this, qs(paper.error().text()));
        return false;
    }
    const QString why = write_paper(path, *paper, own_letterhead(), paper_pictures(session_, paper->pictures()), size);
    if (!why.isEmpty())
        dialogs_.tell(this, why);
    return why.isEmpty();
}

void VisitsStation::report(const std::string& kind)
{
    const QString path = dialogs_.save_as(this, QStringLiteral("%1 %2.pdf").arg(qs(session_.document().job().title), qs(kind)), tr("Papers (*.pdf *.html);;Tables and data (*.csv *.json *.txt)"));
    if (!path.isEmpty())
        write_report(kind, path, usual_paper());
}

void VisitsStation::print(const std::string& kind)
{
    const auto sheets = sheets_of(session_.document().job());
    const auto paper = paper_of(session_, kind, kind == "service" ? id_ : "", sheets);
    if (!paper)
        return dialogs_.tell(this, qs(paper.error().text()));
    QPrinter printer(QPrinter::HighResolution);
    printer.setPageSize(QPageSize(usual_paper()));
    printer.setDocName(qs(session_.document().job().title + " " + kind));
    if (dialogs_.printer(this, printer) && paint_paper(printer, *paper, own_letterhead(), paper_pictures(session_, paper->pictures())) == 0)
        dialogs_.tell(this, tr("The printer did not take the paper. Look at its name and its paper, or save it as PDF."));
}

// Kept in the job as an attachment; one of the same name goes.
void VisitsStation::take_own_list()
{
    const QString path = dialogs_.open_log(this);
    if (path.isEmpty())
        return;
    const auto text = read_file(path.toStdString());
    if (!text)
        return dialogs_.tell(this, qs(text.error().text()));
    const auto list = read_check_list(*text, path.toStdString());
    if (!list)
        return dialogs_.tell(this, qs(list.error().text()));
    session_.document().edit(tr("A list of one's own"), [&](Job& j) { keep_attachment(j, make_attachment(list->name + check_list_ending, *text)); });
}

void VisitsStation::edit_letterhead()
{
    auto* sheet = new LetterheadSheet(this);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    sheet->open();
}

} // namespace vernal
