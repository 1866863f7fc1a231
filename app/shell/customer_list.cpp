#include "customer_list.h"

#include "app/widgets/form.h"
#include "files/disk.h"
#include "files/ical.h"
#include "session.h"
#include "theme.h"

#include <QDateTime>
#include <QDir>
#include <QFileSystemWatcher>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QSettings>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>
#include <set>

namespace vernal {
namespace {

constexpr int path_role = Qt::UserRole;
constexpr int soon_ms = 300; // a save is several changes

QString row_text(const JobSummary& s, const std::string& today)
{
    QString out = s.customer.empty() ? qs(s.title) : qs(s.customer) + QStringLiteral(" · ") + qs(s.title);
    QStringList second;
    if (!s.error.empty())
        return out + QStringLiteral("\n▲ ") + qs(s.error);
    if (!s.place.empty())
        second << qs(s.place);
    second << (s.visits == 0 ? QObject::tr("no visit yet") : QObject::tr("last visit %1").arg(qs(date_words(s.last_visit))));
    if (!s.verdict.empty())
        second << QStringLiteral("▲ ") + qs(s.verdict);
    if (!s.due.empty()) {
        const std::string date = date_text(s.due.front().date);
        second << (date < today ? QStringLiteral("▲ ") : QString()) + QObject::tr("%1: %2").arg(qs(s.due.front().title), qs(date_words(date)));
    }
    return out + QLatin1Char('\n') + second.join(QStringLiteral(" · "));
}

} // namespace

CustomerList::CustomerList(const Dialogs& dialogs, bool remember, QWidget* parent) : QWidget(parent), dialogs_(dialogs), remember_(remember)
{
    choose_ = new QPushButton(tr("Folder of jobs …"));
    choose_->setObjectName(QStringLiteral("chooseFolder"));
    choose_->setToolTip(tr("Its job files are the list of customers"));
    calendar_ = new QPushButton(tr("All that is due, to the calendar …"));
    calendar_->setObjectName(QStringLiteral("folderCalendar"));
    find_ = new QLineEdit;
    find_->setObjectName(QStringLiteral("findCustomer"));
    find_->setAccessibleName(tr("Find a customer"));
    find_->setPlaceholderText(tr("Find: customer, place, note, part, finding"));
    find_->setMinimumHeight(36);
    list_ = new QListWidget;
    list_->setObjectName(QStringLiteral("customerList"));
    list_->setAccessibleName(tr("Customers"));
    list_->setUniformItemSizes(true);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list_->setTextElideMode(Qt::ElideRight);
    list_->setMinimumHeight(220);
    about_ = remark();
    about_->setObjectName(QStringLiteral("folderAbout"));
    watcher_ = new QFileSystemWatcher(this);
    soon_ = new QTimer(this);
    soon_->setSingleShot(true);
    auto* row = new QHBoxLayout;
    row->addWidget(choose_);
    row->addWidget(calendar_);
    row->addStretch(1);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(6);
    box->addLayout(row);
    box->addWidget(find_);
    box->addWidget(list_, 1);
    box->addWidget(about_);
    connect(choose_, &QPushButton::clicked, this, [this] {
        const QString folder = dialogs_.open_folder ? dialogs_.open_folder(this) : QString();
        if (!folder.isEmpty())
            show_folder(folder);
    });
    connect(calendar_, &QPushButton::clicked, this, &CustomerList::write_calendar);
    connect(find_, &QLineEdit::textChanged, this, &CustomerList::show_rows);
    connect(find_, &QLineEdit::returnPressed, this, [this] {
        if (list_->count() > 0)
            emit open_wanted(list_->item(std::max(0, list_->currentRow()))->data(path_role).toString());
    });
    connect(list_, &QListWidget::itemActivated, this, [this](QListWidgetItem* i) { emit open_wanted(i->data(path_role).toString()); });
    connect(watcher_, &QFileSystemWatcher::directoryChanged, soon_, [this] { soon_->start(soon_ms); });
    connect(watcher_, &QFileSystemWatcher::fileChanged, soon_, [this] { soon_->start(soon_ms); });
    connect(soon_, &QTimer::timeout, this, &CustomerList::read);
    show_folder(remember_ ? QSettings().value(QStringLiteral("folder")).toString() : QString());
}

void CustomerList::show_folder(const QString& folder)
{
    folder_ = folder;
    for (QWidget* w : std::initializer_list<QWidget*>{find_, list_, calendar_, about_})
        w->setVisible(!folder_.isEmpty());
    if (folder_.isEmpty())
        return;
    if (remember_)
        QSettings().setValue(QStringLiteral("folder"), folder_);
    read();
}

void CustomerList::read()
{
    const auto tell = [this](std::size_t done, std::size_t of) {
        worker_.tell([this, done, of] { about_->setText(tr("Reading %1 of %2 jobs …").arg(done).arg(of)); });
    };
    worker_.run([folder = folder_.toStdString(), today = QDate::currentDate().toString(Qt::ISODate).toStdString(), tell](const std::stop_token& stop) { return read_job_folder(folder, index_path(std::filesystem::weakly_canonical(folder)), today, tell, stop); },
        [this](Result<FolderRead> found) { take(std::move(found)); });
}

void CustomerList::take(Result<FolderRead> found)
{
    if (!found) {
        jobs_.clear();
        list_->clear();
        about_->setText(qs(found.error().text()));
    } else {
        jobs_ = std::move(found->jobs);
        show_rows();
        // A job that is written over in its place is seen at the file, a new one at its folder.
        if (!watcher_->files().isEmpty())
            watcher_->removePaths(watcher_->files());
        if (!watcher_->directories().isEmpty())
            watcher_->removePaths(watcher_->directories());
        std::set<QString> folders{folder_};
        QStringList watched;
        for (const JobSummary& s : jobs_) {
            const QString path = folder_ + QLatin1Char('/') + qs(s.file);
            watched << path;
            folders.insert(QFileInfo(path).absolutePath());
        }
        for (const QString& f : folders)
            watched << f;
        watcher_->addPaths(watched);
    }
    emit listed();
}

void CustomerList::show_rows()
{
    const std::string today = QDate::currentDate().toString(Qt::ISODate).toStdString();
    const QString at = list_->currentItem() ? list_->currentItem()->data(path_role).toString() : QString();
    list_->clear();
    std::size_t due = 0;
    for (const JobSummary* s : found_jobs(jobs_, find_->text().toStdString())) {
        auto* item = new QListWidgetItem(row_text(*s, today), list_);
        item->setSizeHint({0, 44});
        const QString path = folder_ + QLatin1Char('/') + qs(s->file);
        item->setData(path_role, path);
        item->setToolTip(path);
        if (path == at)
            list_->setCurrentItem(item);
        due += static_cast<std::size_t>(std::count_if(s->due.begin(), s->due.end(), [&](const DueNow& d) { return date_text(d.date) < today; }));
    }
    about_->setText(jobs_.empty() ? tr("There is no job in this folder yet. Save one into it.") : tr("%1 of %2 jobs; %3 things are due.").arg(list_->count()).arg(jobs_.size()).arg(due));
}

void CustomerList::write_calendar()
{
    const QString path = dialogs_.save_as(this, QStringLiteral("due.ics"), tr("Calendars (*.ics)"));
    if (path.isEmpty())
        return;
    std::vector<CalendarEntry> all;
    for (const JobSummary* s : found_jobs(jobs_, find_->text().toStdString()))
        for (const DueNow& d : s->due)
            all.push_back({d, s->title, s->customer, s->place});
    const auto done = write_file_atomically(path.toStdString(), due_calendar(all, QDateTime::currentDateTimeUtc().toString(QStringLiteral("yyyyMMddTHHmmssZ")).toStdString()));
    if (!done)
        dialogs_.tell(this, qs(done.error().text()));
}

} // namespace vernal
