#include "jobs_page.h"

#include "app/findings/finding_mark.h"
#include "app/loop/answers_sheet.h"
#include "app/loop/loop_picture.h"
#include "app/widgets/form.h"
#include "files/job_file.h"
#include "theme.h"

#include <QButtonGroup>
#include <QDir>
#include <QFileInfo>
#include <QGridLayout>
#include <QLabel>
#include <QPainter>
#include <QScrollArea>
#include <QStackedWidget>
#include <QStyleOptionButton>
#include <QStylePainter>
#include <QVBoxLayout>

namespace vernal {
namespace {

constexpr int beside_px = 104, above_px = 128, asked_px = 340; // width of a drawing
constexpr int pad_px = 8, line_px = 19;
constexpr int title_px = 42; // below a drawing: two lines
constexpr int most_width_px = 1240;

// Of what was kept of a job; a job of an older program's has the name of a preset.
QPixmap picture(const QString& kept, int width, double ratio)
{
    if (const Arrangement* a = find_preset(kept.toStdString()))
        return loop_picture(*a, width, ratio);
    const auto answers = answers_of_text(kept.toStdString());
    return answers ? loop_picture(arrangement_of(*answers), width, ratio) : QPixmap();
}

} // namespace

JobTile::JobTile(const QPixmap& picture, const QString& title, const QStringList& lines, QWidget* parent) : QPushButton(parent), picture_(picture), title_(title), lines_(lines)
{
    setProperty("look", QStringLiteral("newLoop"));
    setAccessibleName(title + QStringLiteral(". ") + lines.join(QStringLiteral(". ")));
    setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
}

void JobTile::add_mark(int severity, const QString& finding)
{
    severity_ = severity;
    finding_ = finding;
    setAccessibleDescription(finding);
}

QSize JobTile::sizeHint() const
{
    const QSize p = picture_.deviceIndependentSize().toSize();
    if (lines_.isEmpty())
        return {p.width() + 2 * pad_px, p.height() + title_px + pad_px};
    const int rows = 1 + static_cast<int>(lines_.size()) + (severity_ >= 0 ? 1 : 0);
    return {280, std::max(p.height(), rows * line_px) + 2 * pad_px};
}

void JobTile::paintEvent(QPaintEvent*)
{
    QStylePainter p(this);
    QStyleOptionButton o;
    initStyleOption(&o);
    o.text.clear();
    p.drawControl(QStyle::CE_PushButton, o);
    const Theme& t = theme();
    const QSize size = picture_.deviceIndependentSize().toSize();
    if (lines_.isEmpty()) {
        p.drawPixmap((width() - size.width()) / 2, pad_px, picture_);
        p.setPen(isEnabled() ? t.ink : t.air);
        p.setFont(text_font(13));
        return p.drawText(QRect(6, height() - title_px, width() - 12, title_px - 4), Qt::AlignCenter | Qt::TextWordWrap, title_);
    }
    p.drawPixmap(pad_px, (height() - size.height()) / 2, picture_);
    const int x = pad_px + beside_px + 12, room = width() - x - pad_px;
    int y = (height() - (sizeHint().height() - 2 * pad_px)) / 2;
    const auto line = [&](const QString& s, const QColor& colour, bool bold) {
        p.setPen(isEnabled() ? colour : t.air);
        p.setFont(text_font(bold ? 14 : 13, bold));
        p.drawText(QRect(x, y, room, line_px), Qt::AlignVCenter | Qt::AlignLeft, p.fontMetrics().elidedText(s, Qt::ElideRight, room));
        y += line_px;
    };
    line(title_, t.ink, true);
    for (const QString& s : lines_)
        line(s, t.second_ink, false);
    if (severity_ >= 0) {
        const SeverityMark m = mark_of(static_cast<Severity>(severity_));
        line(QString::fromUtf8(m.sign) + QLatin1Char(' ') + finding_, m.colour, false);
    }
}

JobsPage::JobsPage(const QList<KnownJob>& jobs, const QList<LeftBehind>& left, const QString& demo, QWidget* customers, QWidget* parent) : QWidget(parent)
{
    auto* inside = new QWidget;
    auto* columns = new QHBoxLayout(inside);
    columns->setContentsMargins(34, 22, 34, 22);
    columns->setSpacing(34);
    columns->addStretch(1);
    columns->addWidget(make_jobs(jobs, left, demo, customers), 20);
    columns->addWidget(make_new(), 20);
    columns->addStretch(1);
    for (int i : {1, 2})
        columns->itemAt(i)->widget()->setMaximumWidth(most_width_px / 2);
    auto* scroll = new QScrollArea;
    scroll->setWidget(inside);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* outer = new QVBoxLayout(this);
    outer->setContentsMargins(0, 0, 0, 0);
    outer->addWidget(scroll);
}

QWidget* JobsPage::make_jobs(const QList<KnownJob>& jobs, const QList<LeftBehind>& left, const QString& demo, QWidget* customers)
{
    auto* column = new QWidget;
    auto* box = new QVBoxLayout(column);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(6);
    box->addWidget(heading(tr("Jobs"), "h1"));
    box->addWidget(remark(tr("See what a set of pump rules does to a solar loop, before you climb the roof.")));
    for (const LeftBehind& l : left) {
        const QString name = l.original.isEmpty() ? tr("a job that was never saved") : QFileInfo(l.original).fileName();
        auto* b = new QPushButton(tr("Take up unsaved work: %1").arg(name));
        b->setObjectName(QStringLiteral("act"));
        connect(b, &QPushButton::clicked, this, [this, l] { emit recover_wanted(l); });
        box->addWidget(b);
    }
    for (const KnownJob& job : jobs)
        add_known(*box, job);
    auto* open = new QPushButton(tr("Open a job …"));
    open->setObjectName(QStringLiteral("openJob"));
    open->setToolTip(tr("Or drop a job or a log on the window"));
    connect(open, &QPushButton::clicked, this, [this] { emit open_wanted({}); });
    auto* row = new QHBoxLayout;
    row->addWidget(open);
    row->addWidget(remark(tr("or drop a job on the window")), 1);
    box->addLayout(row);
    if (customers)
        box->addWidget(customers);
    add_demos(*box, demo);
    box->addStretch(1);
    return column;
}

void JobsPage::add_known(QVBoxLayout& box, const KnownJob& job)
{
    const QFileInfo file(job.path);
    QStringList lines;
    if (!job.site.isEmpty())
        lines << job.site;
    lines << (file.exists() ? job.opened.isValid() ? tr("%1, opened %2").arg(file.fileName(), job.opened.toString(QStringLiteral("d MMM yyyy, HH:mm"))) : file.fileName() : tr("%1 is not there any more").arg(job.path));
    auto* tile = new JobTile(picture(job.arrangement, beside_px, devicePixelRatioF()), job.title.isEmpty() ? file.completeBaseName() : job.title, lines);
    tile->setObjectName(QStringLiteral("recent"));
    tile->setToolTip(job.path);
    tile->setEnabled(file.exists());
    if (job.severity >= 0)
        tile->add_mark(job.severity, job.finding);
    connect(tile, &QPushButton::clicked, this, [this, path = job.path] { emit open_wanted(path); });
    box.addWidget(tile);
}

// The demo's loops; the first is the one to begin with.
void JobsPage::add_demos(QVBoxLayout& box, const QString& demo)
{
    if (demo.isEmpty())
        return;
    box.addSpacing(8);
    box.addWidget(heading(tr("The demo")));
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
        const Arrangement& a = arrangement_of(job->variants.front().loop);
        auto* tile = new JobTile(loop_picture(a, beside_px, devicePixelRatioF()), QString::fromStdString(job->title), {QString::fromStdString(job->site.name), QString::fromStdString(a.about)});
        tile->setProperty("demo", true);
        connect(tile, &QPushButton::clicked, this, [this, path] { emit open_wanted(path); });
        box.addWidget(tile);
    }
}

QWidget* JobsPage::make_new()
{
    auto* column = new QWidget;
    auto* box = new QVBoxLayout(column);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(6);
    box->addWidget(heading(tr("New loop"), "h1"));
    box->addWidget(remark(tr("It brings its parts, probes and rules; everything can be changed.")));
    auto* pages = new QStackedWidget;
    pages->addWidget(make_usual());
    pages->addWidget(make_asked());
    auto* ways = new QHBoxLayout;
    ways->setSpacing(0);
    auto* group = new QButtonGroup(this);
    for (const auto& [name, words] : {std::pair{"usualLoops", tr("Usual loops")}, {"askedLoop", tr("By questions")}}) {
        auto* b = new QPushButton(words);
        b->setObjectName(QString::fromUtf8(name));
        b->setCheckable(true);
        b->setProperty("look", QStringLiteral("choice"));
        group->addButton(b, static_cast<int>(group->buttons().size()));
        ways->addWidget(b);
    }
    ways->addStretch(1);
    group->button(0)->setChecked(true);
    connect(group, &QButtonGroup::idClicked, pages, &QStackedWidget::setCurrentIndex);
    box->addLayout(ways);
    box->addWidget(pages, 1);
    return column;
}

QWidget* JobsPage::make_usual()
{
    auto* page = new QWidget;
    auto* box = new QVBoxLayout(page);
    box->setContentsMargins(0, 0, 0, 0);
    auto* grid = new QGridLayout;
    grid->setSpacing(6);
    constexpr int across = 4;
    for (const Arrangement& a : presets()) {
        auto* tile = new JobTile(loop_picture(a, above_px, devicePixelRatioF()), QString::fromStdString(a.title), {});
        tile->setObjectName(QStringLiteral("newLoop"));
        tile->setToolTip(QString::fromStdString(a.about));
        tile->setAccessibleDescription(tile->toolTip());
        connect(tile, &QPushButton::clicked, this, [this, answers = a.answers] { emit new_wanted(answers); });
        const int i = grid->count();
        grid->addWidget(tile, i / across, i % across);
    }
    box->addLayout(grid);
    box->addStretch(1);
    return page;
}

// The drawing grows beside the answers.
QWidget* JobsPage::make_asked()
{
    auto* page = new QWidget;
    auto* box = new QVBoxLayout(page);
    box->setContentsMargins(0, 0, 0, 0);
    auto* sheet = new AnswersSheet;
    auto* drawing = new QLabel;
    drawing->setObjectName(QStringLiteral("askedDrawing"));
    drawing->setAlignment(Qt::AlignCenter);
    auto* title = heading({});
    auto* about = remark();
    auto* begin = new QPushButton(tr("Begin this loop"));
    begin->setObjectName(QStringLiteral("beginLoop"));
    const auto show = [this, drawing, title, about](const LoopAnswers& answers) {
        const Arrangement& a = arrangement_of(answers);
        drawing->setPixmap(loop_picture(a, asked_px, devicePixelRatioF()));
        drawing->setAccessibleName(QString::fromStdString(a.title));
        title->setText(QString::fromStdString(a.title));
        about->setText(QString::fromStdString(a.about));
    };
    connect(sheet, &AnswersSheet::answered, this, show);
    connect(begin, &QPushButton::clicked, this, [this, sheet] { emit new_wanted(sheet->answers()); });
    show(sheet->answers());
    auto* head = new QHBoxLayout;
    head->addWidget(title, 1);
    head->addWidget(begin);
    box->addLayout(head);
    box->addWidget(sheet);
    box->addWidget(drawing);
    box->addWidget(about);
    box->addStretch(1);
    return page;
}

} // namespace vernal
