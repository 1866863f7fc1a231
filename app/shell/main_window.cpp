#include "main_window.h"

#include "app/charts/day_chart.h"
#include "app/days/days_station.h"
#include "app/days/log_desk.h"
#include "app/findings/findings_panel.h"
#include "app/loop/loop_station.h"
#include "app/probes/probes_station.h"
#include "app/rules/rules_station.h"
#include "app/widgets/quiet_stack.h"
#include "core/job/field_path.h"
#include "core/sums/field_sums.h"
#include "customer_list.h"
#include "files/curve_file.h"
#include "hand_on.h"
#include "job_sheet.h"
#include "jobs_page.h"
#include "palette.h"
#include "theme.h"
#include "typed.h"

#include <QAction>
#include <QApplication>
#include <QCloseEvent>
#include <QFileInfo>
#include <QMimeData>
#include <QScreen>
#include <QSettings>
#include <QTimer>

namespace vernal {

MainWindow::MainWindow(Dialogs dialogs, const Options& options, QWidget* parent) : QMainWindow(parent), dialogs_(std::move(dialogs)), options_(options)
{
    const QString recovery = options.recovery_folder.isEmpty() ? Recovery::usual_folder() : options.recovery_folder;
    files_ = new JobFiles(session_, dialogs_, {options.demo, recovery, options.remember}, this);
    connect(files_, &JobFiles::opened, this, [this] { show_station(2); });
    connect(&session_.document(), &Document::refused, this, [this](const QString& why) { dialogs_.tell(this, why); });
    connect(files_, &JobFiles::told, this, [this](const QString& text) { dialogs_.tell(this, text); });
    session_.document().may_turn = [this] { return took_typed(); };
    setObjectName("desk");
    const auto name_window = [this] { setWindowTitle(qs(session_.document().job().title) + QStringLiteral("[*] — Vernal Relay")); };
    connect(&session_.document(), &Document::changed, this, name_window);
    name_window();
    setAcceptDrops(true);
    const QSize usual(1280, 800), least(1024, 700);
    const QSize room = screen() ? screen()->availableSize() : usual;
    setMinimumSize(least.boundedTo(room)); // no larger than the screen
    resize(usual.boundedTo(room));
    make_actions();
    pages_ = new QuietStack;
    setCentralWidget(pages_);
    pages_->addWidget(new QWidget);
    sheet_->setEnabled(false);
    connect(pages_, &QStackedWidget::currentChanged, sheet_, [this](int page) { sheet_->setEnabled(page == 1); });
    work_ = new WorkView({session_, dialogs_, options_.own_curves.isEmpty() ? qs(own_curves_path().string()) : options_.own_curves}, {save_, sheet_, {undo_, redo_, glare_}}, options_.remember);
    connect(work_, &WorkView::palette_wanted, this, &MainWindow::open_palette);
    pages_->addWidget(work_);
    for (QAction* a : work_->commands()) { // of hidden stations too, while a job is open
        addAction(a);
        all_actions_.append(a);
        a->setEnabled(false);
        connect(pages_, &QStackedWidget::currentChanged, a, [a](int page) { a->setEnabled(page == 1); });
    }
    connect(&session_.document().undo_stack(), &QUndoStack::cleanChanged, this, [this](bool clean) { setWindowModified(!clean); });
    show_start();
}

// A field that loses the focus as it goes still speaks to the document: views go first.
MainWindow::~MainWindow()
{
    session_.document().may_turn = {};
    work_ = nullptr;
    delete takeCentralWidget();
}

QAction* MainWindow::action(const QString& name, const QKeySequence& key, std::function<void()> act)
{
    auto* a = new QAction(name, this);
    a->setShortcut(key);
    connect(a, &QAction::triggered, this, [act = std::move(act)] { act(); });
    addAction(a);
    all_actions_.append(a);
    return a;
}

void MainWindow::make_actions()
{
    action(tr("Open a job …"), QKeySequence::Open, [this] { open({}); });
    save_ = action(tr("Save"), QKeySequence::Save, [this] { save(); });
    action(tr("Save as …"), QKeySequence::SaveAs, [this] { save_as(); });
    sheet_ = action(tr("Title, customer and place …"), QKeySequence(Qt::Key_F2), [this] {
        if (!took_typed() || findChild<JobSheet*>())
            return;
        auto* sheet = new JobSheet(session_, options_.remember, this);
        sheet->setAttribute(Qt::WA_DeleteOnClose);
        sheet->open();
    });
    action(tr("Jobs"), QKeySequence::New, [this] { show_start(); });
    make_undo_actions();
    glare_ = action(tr("Glare"), QKeySequence(Qt::CTRL | Qt::Key_G), [this] { set_glare(!theme().glare); });
    glare_->setCheckable(true);
    glare_->setToolTip(tr("High contrast for sunlight"));
    action(tr("Import a log …"), QKeySequence(Qt::CTRL | Qt::Key_I), [this] {
        import_logs(dialogs_.open_logs(this));
    });
    auto* hand_on = new HandOn(*this, dialogs_);
    action(tr("Save the picture of this station …"), {}, [this, hand_on] { hand_on->save_picture_of(&work()); });
    action(tr("Save the table of this station …"), {}, [this, hand_on] { hand_on->save_table_of(&work()); });
    make_view_actions();
    for (int i = 0; i < static_cast<int>(stations().size()); ++i)
        action(tr("Go to %1").arg(tr(stations()[static_cast<std::size_t>(i)].title)), QKeySequence(Qt::CTRL | static_cast<Qt::Key>(Qt::Key_1 + i)), [this, i] { show_station(i); });
    action(tr("Leave"), QKeySequence::Quit, [this] { close(); });
    auto* palette = new QAction(this);
    palette->setShortcut(QKeySequence(Qt::CTRL | Qt::Key_K));
    connect(palette, &QAction::triggered, this, &MainWindow::open_palette);
    addAction(palette);
}

void MainWindow::make_view_actions()
{
    action(tr("Units: °C or °F"), QKeySequence(Qt::CTRL | Qt::Key_U), [this] {
        Units u = session_.units();
        u.fahrenheit = !u.fahrenheit;
        session_.set_units(u);
    });
    action(tr("Units: metric"), {}, [this] { session_.set_units(Units::metric()); });
    action(tr("Units: US"), {}, [this] { session_.set_units(Units::us()); });
    action(tr("Findings, open or folded"), QKeySequence(Qt::Key_F4), [this] {
        show_findings(!work_->findings_shown());
        if (work_->findings_shown())
            work_->findings().take_focus();
    });
    action(tr("Day strip: next height"), QKeySequence(Qt::Key_F3), [this] { work_->next_strip_height(); });
    action(tr("Next part of the window"), QKeySequence(Qt::Key_F6), [this] { work_->next_pane(); });
    action(tr("Time of the cursor"), QKeySequence(Qt::CTRL | Qt::Key_T), [this] { work_->ask_time(); });
    action(tr("Cursor to the next switching point"), QKeySequence(Qt::ALT | Qt::Key_Right), [this] { session_.step_cursor(true); });
    action(tr("Cursor to the switching point before"), QKeySequence(Qt::ALT | Qt::Key_Left), [this] { session_.step_cursor(false); });
}

void MainWindow::make_undo_actions()
{
    QUndoStack& stack = session_.document().undo_stack();
    undo_ = action(tr("Undo"), QKeySequence::Undo, [&stack] { stack.undo(); });
    redo_ = action(tr("Redo"), QKeySequence::Redo, [&stack] { stack.redo(); });
    const auto enable = [this, &stack] {
        undo_->setEnabled(stack.canUndo());
        redo_->setEnabled(stack.canRedo());
        undo_->setToolTip(stack.canUndo() ? tr("Undo: %1").arg(stack.undoText()) : tr("Nothing to undo"));
        redo_->setToolTip(stack.canRedo() ? tr("Redo: %1").arg(stack.redoText()) : tr("Nothing to redo"));
    };
    connect(&stack, &QUndoStack::indexChanged, this, enable);
    enable();
}

void MainWindow::show_start()
{
    if (pages_->currentIndex() == 1)
        files_->note();
    auto* customers = new CustomerList(dialogs_, options_.remember);
    connect(customers, &CustomerList::open_wanted, this, [this](const QString& path) { open(path); });
    auto* page = new JobsPage(files_->known(), files_->left_behind(), options_.demo, customers);
    connect(page, &JobsPage::open_wanted, this, [this](const QString& path) { open(path); });
    connect(page, &JobsPage::new_wanted, this, &MainWindow::new_job_of);
    connect(page, &JobsPage::recover_wanted, files_, &JobFiles::recover);
    QWidget* old = pages_->widget(0);
    pages_->insertWidget(0, page);
    pages_->removeWidget(old);
    old->deleteLater();
    pages_->setCurrentIndex(0);
}

void MainWindow::new_job_of(const LoopAnswers& answers)
{
    if (!took_typed() || !files_->may_leave())
        return;
    Job job = new_job(answers);
    if (options_.remember)
        if (const auto site = remembered_site()) {
            job.site = *site;
            move_fresh_job(job, site->place);
        }
    session_.document().set_job(std::move(job), {});
    files_->left();
    show_station(0);
}

bool MainWindow::took_typed()
{
    if (!work_)
        return true;
    const QString trouble = take_typed(*work_);
    if (!trouble.isEmpty())
        dialogs_.tell(this, trouble);
    return trouble.isEmpty();
}

void MainWindow::show_station(int index)
{
    if (pages_->currentIndex() == 1 && !took_typed())
        return;
    pages_->setCurrentIndex(1);
    work_->show_station(index);
}

void MainWindow::open_palette()
{
    if (pages_->currentIndex() == 1 && !took_typed())
        return;
    QList<FoundEntry> commands;
    for (QAction* a : all_actions_)
        if (a->isEnabled())
            commands.append({a->text(), a->shortcut().toString(QKeySequence::NativeText), {}, [a] { a->trigger(); }});
    Places places;
    places.setting = [this](const std::string& path) { go_to(path); };
    places.finding = [this](const QString& which) { emit session_.finding_wanted(which); };
    places.sum = [this](const std::string& key) { go_to_sum(key); };
    auto* palette = new Palette(Finder(session_, std::move(commands), std::move(places)), this);
    palette->setAttribute(Qt::WA_DeleteOnClose);
    palette->move(mapToGlobal(QPoint((width() - palette->width()) / 2, 46)));
    palette->show();
}

// To the place of a setting: its station, its part, rule or probe, and its field.
void MainWindow::go_to(const std::string& path)
{
    const QStringList steps = qs(path).split('/');
    const Variant& v = session_.document().variant();
    const auto focus = [this](const QString& name) {
        for (NumberEdit* edit : work_->findChildren<NumberEdit*>(name)) // one that is going is hidden
            if (edit->isVisible())
                return edit->setFocus(Qt::ShortcutFocusReason);
    };
    if (steps[0] == QLatin1String("rule")) {
        show_station(station_index("rules"));
        for (std::size_t i = 0; i < v.unit.rules.size(); ++i)
            if (steps.size() > 1 && qs(v.unit.rules[i].id) == steps[1])
                station<RulesStation>().ledger().go_to(i, steps.value(2).toStdString());
    } else if (steps[0] == QLatin1String("loop")) {
        show_station(station_index("loop"));
        for (Part part : arrangement_of(v.loop).parts)
            if (qs(part_path(part)) == steps.mid(0, 2).join('/'))
                station<LoopStation>().view()->choose(part);
        for (std::size_t s = 0; s < service_states; ++s)
            if (steps.size() > 2 && steps[1] == QLatin1String("valves") && steps[2] == QLatin1String(state_keys[s]))
                station<LoopStation>().show_valves(static_cast<ServiceState>(s));
        focus(QStringLiteral("loop.%1").arg(steps.last()));
    } else if (steps[0] == QLatin1String("probe") || steps[0] == QLatin1String("input") || steps[0] == QLatin1String("knob")) {
        show_station(station_index("probes"));
        for (std::size_t i = 0; i < v.probes.size(); ++i)
            if (steps.size() > 1 && qs(v.probes[i].id) == steps[1])
                station<ProbesStation>().choose(i);
        const QString of = steps.size() > 3 || steps[0] != QLatin1String("probe") ? steps[steps.size() - 2] : QStringLiteral("probe");
        station<ProbesStation>().show_page_of(of);
        focus(of + QLatin1Char('.') + steps.last());
    } else if (steps[0] == QLatin1String("unit") || steps[0] == QLatin1String("output")) {
        show_station(station_index("rules"));
        station<RulesStation>().show_page(RulesStation::unit);
        focus(QStringLiteral("unit.%1").arg(steps.last()));
    } else {
        show_station(station_index("days"));
        focus(QStringLiteral("day.%1").arg(steps.last()));
    }
}

void MainWindow::go_to_sum(const std::string& key)
{
    const FieldSum* sum = find_sum(key);
    const Arrangement& a = arrangement_of(session_.document().variant().loop);
    if (!sum)
        return;
    if (sum->page != ProbePage::none) {
        show_station(station_index("probes"));
        station<ProbesStation>().show_page_of(sum->page);
    } else {
        show_station(station_index("loop"));
        for (Part p : sum->parts)
            if (a.has(p)) {
                station<LoopStation>().view()->choose(p);
                break;
            }
    }
    if (auto* open = work_->findChild<QAbstractButton*>(QStringLiteral("sum.%1.open").arg(qs(key)))) {
        open->setChecked(true);
        open->setFocus(Qt::ShortcutFocusReason);
        const auto inputs = open->parentWidget()->findChildren<NumberEdit*>();
        if (!inputs.isEmpty())
            inputs.front()->setFocus(Qt::ShortcutFocusReason);
    }
}

void MainWindow::import_logs(const QStringList& paths)
{
    if (paths.isEmpty())
        return;
    show_station(3);
    station<DaysStation>().logs().import_files(paths);
}

// Views draw the same once more in other colours; nothing is run for it.
void MainWindow::set_glare(bool glare)
{
    apply_theme(*qApp, glare);
    glare_->setChecked(glare);
    for (DayChart* c : findChildren<DayChart*>())
        c->restyle();
    session_.document().choose_day(session_.document().day_index()); // cards take their colours anew
    session_.restyle();
    if (options_.remember)
        QSettings().setValue(QStringLiteral("glare"), glare);
}

void MainWindow::changeEvent(QEvent* e)
{
    QMainWindow::changeEvent(e);
    if (e->type() == QEvent::ActivationChange && isActiveWindow() && pages_ && pages_->currentIndex() == 1 && !QApplication::activeModalWidget())
        QTimer::singleShot(0, files_, &JobFiles::look_at_file);
}

void MainWindow::closeEvent(QCloseEvent* e) { took_typed() && files_->may_leave() ? e->accept() : e->ignore(); }

void MainWindow::dragEnterEvent(QDragEnterEvent* e)
{
    if (e->mimeData()->hasUrls())
        e->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* e)
{
    QStringList logs;
    for (const QUrl& url : e->mimeData()->urls()) {
        const QString path = url.toLocalFile(), ending = QFileInfo(path).suffix().toLower();
        if (ending == QLatin1String("vrelay") || ending == QLatin1String("json"))
            open(path);
        else
            logs << path;
    }
    import_logs(logs);
}

} // namespace vernal
