#include "main_window.h"

#include "files/curve_file.h"
#include "files/job_file.h"
#include "app/findings/findings_panel.h"
#include "palette.h"
#include "app/print/pocket_sheet.h"
#include "start_page.h"
#include "theme.h"
#include "top_bar.h"

#include <QAction>
#include <QApplication>
#include <QButtonGroup>
#include <QCloseEvent>
#include <QFileDialog>
#include <QFileInfo>
#include <QMessageBox>
#include <QMimeData>
#include <QPrintDialog>
#include <QPrinter>
#include <QPushButton>
#include <QSettings>
#include <QSplitter>
#include <QStackedWidget>
#include <QThreadPool>
#include <QVBoxLayout>

namespace vernal {
namespace {

constexpr const char* job_filter = "Vernal Relay jobs (*.vrelay *.json)";

struct Station {
    const char* digit;
    const char* name;
};
constexpr Station stations[] = {{"1", "Loop"}, {"2", "Probes"}, {"3", "Rules"}, {"4", "Days"}, {"5", "Run"}};

// Which station a kind of finding belongs to.
int station_of(const Finding& f)
{
    const FindingKind* kind = find_kind(f.kind);
    const Cause cause = kind ? kind->cause : Cause::rules;
    return cause == Cause::loop ? 0 : cause == Cause::probes ? 1
                                  : cause == Cause::sight    ? 4
                                                             : 2;
}

} // namespace

Dialogs Dialogs::usual()
{
    Dialogs s;
    s.open_file = [](QWidget* w) { return QFileDialog::getOpenFileName(w, QObject::tr("Open a job"), {}, QString::fromLatin1(job_filter)); };
    s.open_log = [](QWidget* w) { return QFileDialog::getOpenFileName(w, QObject::tr("Import a log"), {}, QObject::tr("Logs (*.csv *.txt *.tsv);;All files (*)")); };
    s.save_file = [](QWidget* w, const QString& path) { return QFileDialog::getSaveFileName(w, QObject::tr("Save the job"), path, QString::fromLatin1(job_filter)); };
    s.unsaved = [](QWidget* w) {
        const auto answer = QMessageBox::question(w, QObject::tr("Unsaved work"), QObject::tr("The job was changed since it was saved."), QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel);
        return answer == QMessageBox::Save ? Unsaved::save : answer == QMessageBox::Discard ? Unsaved::drop
                                                                                            : Unsaved::cancel;
    };
    s.printer = [](QWidget* w, QPrinter& printer) { return QPrintDialog(&printer, w).exec() == QDialog::Accepted; };
    s.tell = [](QWidget* w, const QString& text) { QMessageBox::warning(w, QStringLiteral("Vernal Relay"), text); };
    return s;
}

MainWindow::MainWindow(Dialogs dialogs, const Options& options, QWidget* parent)
    : QMainWindow(parent), dialogs_(std::move(dialogs)), options_(options), recovery_(session_.document(), options.recovery_folder.isEmpty() ? Recovery::usual_folder() : options.recovery_folder)
{
    setObjectName("desk");
    const auto name_window = [this] { setWindowTitle(qs(session_.document().job().title) + QStringLiteral("[*] — Vernal Relay")); };
    connect(&session_.document(), &Document::changed, this, name_window);
    name_window();
    setAcceptDrops(true);
    resize(1280, 800);
    setMinimumSize(1024, 700);
    make_actions();
    pages_ = new QStackedWidget;
    setCentralWidget(pages_);
    pages_->addWidget(new QWidget);
    pages_->addWidget(make_work());
    connect(&session_, &Session::verdict_changed, this, &MainWindow::mark_stations);
    connect(&session_.document().undo_stack(), &QUndoStack::cleanChanged, this, [this](bool clean) { setWindowModified(!clean); });
    show_start();
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
    QUndoStack& stack = session_.document().undo_stack();
    action(tr("Open a job …"), QKeySequence::Open, [this] { open({}); });
    save_ = action(tr("Save"), QKeySequence::Save, [this] { save(); });
    action(tr("Save as …"), QKeySequence::SaveAs, [this] { save_as(); });
    action(tr("First page"), QKeySequence::New, [this] { show_start(); });
    undo_ = action(tr("Undo"), QKeySequence::Undo, [&stack] { stack.undo(); });
    redo_ = action(tr("Redo"), QKeySequence::Redo, [&stack] { stack.redo(); });
    glare_ = action(tr("Glare"), QKeySequence(Qt::CTRL | Qt::Key_G), [this] { set_glare(!theme().glare); });
    glare_->setCheckable(true);
    glare_->setToolTip(tr("High contrast for sunlight"));
    action(tr("Import a log …"), QKeySequence(Qt::CTRL | Qt::Key_I), [this] {
        if (const QString path = dialogs_.open_log(this); !path.isEmpty()) {
            show_station(3);
            days_->import_file(path);
        }
    });
    action(tr("Units: °C or °F"), {}, [this] {
        Units u = session_.units();
        u.fahrenheit = !u.fahrenheit;
        session_.set_units(u);
    });
    for (int i = 0; i < static_cast<int>(std::size(stations)); ++i)
        action(tr("Go to %1").arg(QString::fromLatin1(stations[i].name)), QKeySequence(Qt::CTRL | static_cast<Qt::Key>(Qt::Key_1 + i)), [this, i] { show_station(i); });
    action(tr("Leave"), QKeySequence::Quit, [this] { close(); });
    auto* palette = new QAction(this);
    palette->setShortcut(QKeySequence(Qt::CTRL | Qt::Key_K));
    connect(palette, &QAction::triggered, this, &MainWindow::open_palette);
    addAction(palette);
    const auto enable = [this, &stack] {
        undo_->setEnabled(stack.canUndo());
        redo_->setEnabled(stack.canRedo());
        undo_->setToolTip(stack.canUndo() ? tr("Undo: %1").arg(stack.undoText()) : tr("Nothing to undo"));
        redo_->setToolTip(stack.canRedo() ? tr("Redo: %1").arg(stack.redoText()) : tr("Nothing to redo"));
    };
    connect(&stack, &QUndoStack::indexChanged, this, enable);
    enable();
}

QWidget* MainWindow::make_rail()
{
    auto* rail = new QFrame;
    rail->setObjectName("rail");
    rail->setFixedWidth(108);
    auto* box = new QVBoxLayout(rail);
    box->setContentsMargins(0, 14, 0, 8);
    box->setSpacing(4);
    auto* group = new QButtonGroup(rail);
    for (int i = 0; i < static_cast<int>(std::size(stations)); ++i) {
        auto* b = new QPushButton(QStringLiteral("%1  %2").arg(QString::fromLatin1(stations[i].digit), QString::fromLatin1(stations[i].name)));
        b->setObjectName("rail");
        b->setCheckable(true);
        b->setToolTip(QStringLiteral("Ctrl+%1").arg(QString::fromLatin1(stations[i].digit)));
        group->addButton(b);
        connect(b, &QPushButton::clicked, this, [this, i] { show_station(i); });
        auto* mark = new QLabel(b);
        mark->setGeometry(88, 8, 16, 16);
        mark->setAttribute(Qt::WA_TransparentForMouseEvents);
        marks_.append(mark);
        rail_.append(b);
        box->addWidget(b);
    }
    box->addStretch(1);
    return rail;
}

QWidget* MainWindow::make_work()
{
    stations_ = new QStackedWidget;
    loop_ = new LoopStation(session_);
    days_ = new DaysStation(session_);
    run_ = new RunStation(session_);
    for (QWidget* w : {static_cast<QWidget*>(loop_), make_probes(), make_rules(), static_cast<QWidget*>(days_), static_cast<QWidget*>(run_)})
        stations_->addWidget(w);
    connect(loop_, &LoopStation::drawing_wanted, this, [this] {
        const QString path = dialogs_.save_file(this, qs(session_.document().job().title) + QStringLiteral(".svg"));
        if (!path.isEmpty() && !loop_->view()->write(path))
            dialogs_.tell(this, tr("The drawing could not be written to %1. Give a name that ends in .svg, .png or .pdf, in a folder you may write to.").arg(path));
    });
    connect(loop_, &LoopStation::print_wanted, this, &MainWindow::print_drawing);
    connect(days_, &DaysStation::import_wanted, this, [this] {
        if (const QString path = dialogs_.open_log(this); !path.isEmpty())
            days_->import_file(path);
    });
    strip_ = new Strip(session_);
    auto* upper = new QWidget;
    auto* row = new QHBoxLayout(upper);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(0);
    row->addWidget(stations_, 1);
    row->addWidget(new FindingsPanel(session_));
    auto* split = new QSplitter(Qt::Vertical);
    split->addWidget(upper);
    split->addWidget(strip_);
    split->setStretchFactor(0, 1);
    split->setSizes({534, 216});
    split->setChildrenCollapsible(false);
    auto* work = new QWidget;
    auto* all = new QVBoxLayout(work);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(0);
    auto* top = new TopBar(session_, {save_, undo_, redo_, glare_});
    connect(top, &TopBar::palette_wanted, this, &MainWindow::open_palette);
    all->addWidget(top);
    auto* middle = new QHBoxLayout;
    middle->setSpacing(0);
    middle->addWidget(make_rail());
    middle->addWidget(split, 1);
    all->addLayout(middle, 1);
    return work;
}

QWidget* MainWindow::make_probes()
{
    probes_ = new ProbesStation(session_, options_.own_curves.isEmpty() ? qs(own_curves_path().string()) : options_.own_curves);
    connect(probes_, &ProbesStation::points_file_wanted, this, [this] {
        if (const QString path = dialogs_.open_log(this); !path.isEmpty())
            probes_->read_points(path);
    });
    connect(probes_, &ProbesStation::chart_save_wanted, this, &MainWindow::save_chart);
    connect(probes_, &ProbesStation::chart_print_wanted, this, &MainWindow::print_chart);
    return probes_;
}

QWidget* MainWindow::make_rules()
{
    rules_ = new RulesStation(session_);
    connect(rules_, &RulesStation::card_save_wanted, this, [this] {
        const Document& d = session_.document();
        const QString title = tr("%1, settings “%2”").arg(qs(d.job().title), qs(d.variant().name)), path = dialogs_.save_file(this, qs(d.job().title) + tr(", settings.pdf"));
        if (path.isEmpty())
            return;
        if (const QString trouble = write_settings_card(path, settings_card(d.variant(), session_.units()), title); !trouble.isEmpty())
            dialogs_.tell(this, trouble);
    });
    connect(rules_, &RulesStation::card_print_wanted, this, [this] {
        const Document& d = session_.document();
        QPrinter printer(QPrinter::HighResolution);
        printer.setDocName(qs(d.job().title));
        if (dialogs_.printer(this, printer) && !paint_settings_card(printer, settings_card(d.variant(), session_.units()), tr("%1, settings “%2”").arg(qs(d.job().title), qs(d.variant().name))))
            dialogs_.tell(this, tr("The printer did not take the card. Look at its name and its paper, or save the card as PDF."));
    });
    return rules_;
}

void MainWindow::save_chart()
{
    const QString title = qs(session_.document().job().title), path = dialogs_.save_file(this, title + tr(", pocket chart.pdf"));
    if (path.isEmpty())
        return;
    if (const QString trouble = write_pocket_chart(path, pocket_chart(session_.document().variant()), title); !trouble.isEmpty())
        dialogs_.tell(this, trouble);
}

void MainWindow::print_chart()
{
    QPrinter printer(QPrinter::HighResolution);
    printer.setDocName(qs(session_.document().job().title));
    if (dialogs_.printer(this, printer) && !paint_pocket_chart(printer, pocket_chart(session_.document().variant()), qs(session_.document().job().title)))
        dialogs_.tell(this, tr("The printer did not take the chart. Look at its name and its paper, or save the chart as PDF."));
}

void MainWindow::show_start()
{
    QStringList recent = options_.remember ? QSettings().value(QStringLiteral("recent")).toStringList() : QStringList();
    const QString folder = options_.recovery_folder.isEmpty() ? Recovery::usual_folder() : options_.recovery_folder;
    auto* page = new StartPage(recent, Recovery::left_behind(folder), options_.demo);
    connect(page, &StartPage::open_wanted, this, [this](const QString& path) { open(path); });
    connect(page, &StartPage::new_wanted, this, [this](const QString& key) {
        if (!may_leave())
            return;
        session_.document().set_job(new_job(key.toStdString()), {});
        show_work();
        show_station(0);
    });
    connect(page, &StartPage::recover_wanted, this, &MainWindow::recover);
    QWidget* old = pages_->widget(0);
    pages_->insertWidget(0, page);
    pages_->removeWidget(old);
    old->deleteLater();
    pages_->setCurrentIndex(0);
}

void MainWindow::show_work() { pages_->setCurrentIndex(1); }

void MainWindow::show_station(int index)
{
    show_work();
    stations_->setCurrentIndex(index);
    rail_[index]->setChecked(true);
    strip_->setVisible(index != 4); // the Run station is the strip grown to full size
}

void MainWindow::mark_stations()
{
    for (QLabel* m : marks_)
        m->clear();
    for (const Finding& f : session_.verdict().findings) {
        QLabel* mark = marks_[station_of(f)];
        if (f.severity == Severity::note || !mark->text().isEmpty())
            continue;
        const bool serious = f.severity == Severity::serious;
        mark->setText(QStringLiteral("<span style='color:%1'>%2</span>").arg((serious ? theme().protect : theme().caution).name(), serious ? QStringLiteral("■") : QStringLiteral("▲")));
        mark->setAccessibleName(serious ? tr("a serious finding") : tr("a caution"));
    }
}

void MainWindow::open_palette()
{
    QList<PaletteEntry> entries;
    for (QAction* a : all_actions_)
        if (a->isEnabled())
            entries.append({a->text(), a->shortcut().toString(QKeySequence::NativeText), [a] { a->trigger(); }});
    Document& d = session_.document();
    for (std::size_t i = 0; i < d.job().days.size(); ++i)
        entries.append({tr("Day: %1").arg(qs(d.job().days[i].name)), {}, [&d, i] { d.choose_day(i); }});
    for (std::size_t i = 0; i < d.job().variants.size(); ++i)
        entries.append({tr("Variant: %1").arg(qs(d.job().variants[i].name)), {}, [&d, i] { d.choose_variant(i); }});
    auto* palette = new Palette(entries, this);
    palette->setAttribute(Qt::WA_DeleteOnClose);
    palette->move(mapToGlobal(QPoint(width() / 2 - 230, 60)));
    palette->show();
}

bool MainWindow::may_leave()
{
    if (!session_.document().unsaved())
        return true;
    const Dialogs::Unsaved answer = dialogs_.unsaved(this);
    return answer == Dialogs::Unsaved::drop || (answer == Dialogs::Unsaved::save && save());
}

namespace {

QString notices_text(const OpenedJob& opened)
{
    QStringList out;
    for (const std::string& n : opened.notices)
        out << qs(n);
    return out.join(QStringLiteral("\n\n"));
}

} // namespace

bool MainWindow::open(const QString& wanted)
{
    const QString path = wanted.isEmpty() ? dialogs_.open_file(this) : wanted;
    if (path.isEmpty() || !may_leave())
        return false;
    auto opened = open_job_file(path.toStdString());
    if (!opened) {
        dialogs_.tell(this, qs(opened.error().text()));
        return false;
    }
    session_.document().set_job(std::move(opened->job), path, {false, opened->newer()});
    remember(path);
    show_station(2);
    if (!opened->notices.empty())
        dialogs_.tell(this, notices_text(*opened));
    return true;
}

void MainWindow::recover(const LeftBehind& left)
{
    auto opened = Recovery::open(left);
    if (!opened)
        return dialogs_.tell(this, qs(opened.error().text()));
    session_.document().set_job(std::move(opened->job), left.original, {true, opened->newer()});
    if (!opened->notices.empty())
        dialogs_.tell(this, notices_text(*opened));
    recovery_.write_now();
    QThreadPool::globalInstance()->waitForDone(); // the new copy stands before the old one goes
    Recovery::discard(left);
    show_station(2);
}

bool MainWindow::write(const QString& path)
{
    if (session_.document().newer() && QFileInfo(path) == QFileInfo(session_.document().path())) {
        dialogs_.tell(this, tr("This file is of a newer program and stays as it is. Save the job under another name."));
        return false;
    }
    const auto done = save_job(session_.document().job(), path.toStdString());
    if (!done) {
        dialogs_.tell(this, qs(done.error().text()));
        return false;
    }
    session_.document().saved_as(path);
    remember(path);
    return true;
}

// Jobs that ship with the program are opened, never written to.
bool MainWindow::is_demo(const QString& path) const
{
    return !options_.demo.isEmpty() && !path.isEmpty() && QFileInfo(path).absoluteFilePath().startsWith(QFileInfo(QFileInfo(options_.demo).absolutePath()).absolutePath() + QLatin1Char('/'));
}

void MainWindow::print_drawing()
{
    QPrinter printer(QPrinter::HighResolution);
    printer.setPageOrientation(QPageLayout::Landscape);
    printer.setDocName(qs(session_.document().job().title));
    if (dialogs_.printer(this, printer) && !loop_->view()->paint_onto(printer))
        dialogs_.tell(this, tr("The printer did not take the drawing. Look at its name and its paper, or save the drawing as PDF."));
}

bool MainWindow::save()
{
    const QString path = session_.document().path();
    return path.isEmpty() || is_demo(path) || session_.document().newer() ? save_as() : write(path);
}

bool MainWindow::save_as()
{
    QString suggestion = session_.document().path();
    if (suggestion.isEmpty() || is_demo(suggestion))
        suggestion = qs(session_.document().job().title) + QStringLiteral(".vrelay");
    const QString path = dialogs_.save_file(this, suggestion);
    return !path.isEmpty() && write(QFileInfo(path).suffix().isEmpty() ? path + QStringLiteral(".vrelay") : path);
}

void MainWindow::remember(const QString& path)
{
    if (!options_.remember || is_demo(path))
        return;
    QSettings settings;
    QStringList recent = settings.value(QStringLiteral("recent")).toStringList();
    recent.removeAll(path);
    recent.prepend(path);
    settings.setValue(QStringLiteral("recent"), recent.mid(0, 6));
}

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

void MainWindow::closeEvent(QCloseEvent* e) { may_leave() ? e->accept() : e->ignore(); }

void MainWindow::dragEnterEvent(QDragEnterEvent* e)
{
    if (e->mimeData()->hasUrls())
        e->acceptProposedAction();
}

void MainWindow::dropEvent(QDropEvent* e)
{
    for (const QUrl& url : e->mimeData()->urls()) {
        const QString path = url.toLocalFile();
        const QString ending = QFileInfo(path).suffix().toLower();
        if (ending == QLatin1String("vrelay") || ending == QLatin1String("json"))
            open(path);
        else
            days_->import_file(path);
    }
}

} // namespace vernal
