#include "start_page.h"

#include "app/widgets/form.h"
#include "files/job_file.h"

#include <QDir>
#include <QFileInfo>
#include <QGridLayout>
#include <QPushButton>
#include <QVBoxLayout>

namespace vernal {

StartPage::StartPage(const QStringList& recent, const QList<LeftBehind>& left, const QString& demo, QWidget* parent) : QWidget(parent)
{
    setObjectName("desk");
    auto* card = new QFrame;
    card->setObjectName("card");
    card->setFixedWidth(840);
    auto* box = new QVBoxLayout(card);
    box->setContentsMargins(34, 28, 34, 28);
    box->setSpacing(10);
    box->addWidget(heading(tr("Vernal Relay"), "h1"));
    auto* about = new QLabel(tr("See what a set of pump rules does to a solar loop, before you climb the roof."));
    about->setWordWrap(true);
    box->addWidget(about);
    const auto button = [&](const QString& label, const char* name, auto action) {
        auto* b = new QPushButton(label);
        b->setObjectName(QString::fromLatin1(name));
        b->setMinimumHeight(38);
        connect(b, &QPushButton::clicked, this, action);
        box->addWidget(b);
        return b;
    };
    for (const LeftBehind& l : left) {
        const QString name = l.original.isEmpty() ? tr("a job that was never saved") : QFileInfo(l.original).fileName();
        button(tr("Take up unsaved work: %1").arg(name), "act", [this, l] { emit recover_wanted(l); });
    }
    add_demos(box, demo);
    box->addSpacing(8);
    box->addWidget(heading(tr("New loop")));
    auto* grid = new QGridLayout;
    grid->setSpacing(6);
    for (const Arrangement& a : arrangements()) {
        auto* b = new QPushButton(QStringLiteral("%1\n%2").arg(QString::fromUtf8(a.title), QString::fromUtf8(a.about)));
        b->setObjectName("newLoop");
        b->setMinimumHeight(48);
        connect(b, &QPushButton::clicked, this, [this, key = QString::fromUtf8(a.key)] { emit new_wanted(key); });
        const int i = grid->count();
        grid->addWidget(b, i / 2, i % 2);
    }
    box->addLayout(grid);
    box->addSpacing(8);
    box->addWidget(heading(tr("Open")));
    button(tr("Open a job …"), "openJob", [this] { emit open_wanted({}); });
    for (const QString& path : recent)
        button(QFileInfo(path).fileName(), "recent", [this, path] { emit open_wanted(path); })->setToolTip(path);
    auto* outer = new QVBoxLayout(this);
    outer->addStretch(1);
    outer->addWidget(card, 0, Qt::AlignHCenter);
    outer->addStretch(2);
}

// The demo's loops, one beside the other; the first is the one to begin with.
void StartPage::add_demos(QVBoxLayout* box, const QString& demo)
{
    if (demo.isEmpty())
        return;
    box->addWidget(new QLabel(tr("Open the demo, Quillback Meadow Creamery:")));
    auto* row = new QHBoxLayout;
    QDir folder = QFileInfo(demo).absoluteDir();
    const QString first = folder.dirName();
    folder.cdUp();
    QStringList loops = folder.entryList(QDir::Dirs | QDir::NoDotAndDotDot, QDir::Name);
    loops.removeAll(first);
    loops.prepend(first);
    for (const QString& loop : loops) {
        const QString path = folder.filePath(loop + QStringLiteral("/job.json"));
        const auto job = open_job(path.toStdString());
        if (!job)
            continue;
        auto* b = new QPushButton(QString::fromStdString(job->title));
        b->setObjectName(loop == first ? QStringLiteral("act") : QString());
        b->setMinimumHeight(38);
        b->setProperty("demo", true);
        connect(b, &QPushButton::clicked, this, [this, path] { emit open_wanted(path); });
        row->addWidget(b);
    }
    box->addLayout(row);
}

} // namespace vernal
