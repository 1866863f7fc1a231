#include "import_page.h"

#include "known_layouts.h"
#include "log_picture.h"
#include "log_table.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "core/job/trace_edit.h"

#include <QComboBox>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QListWidget>
#include <QProgressBar>
#include <QPushButton>
#include <QScrollArea>
#include <QSpinBox>
#include <QVBoxLayout>

#include <cmath>

namespace vernal {
namespace {

constexpr int bar_steps = 1000;
constexpr std::size_t rows_in_table = 8, rows_in_picture = 4000;
constexpr std::array<double, 3> word_values{NAN, 1, 0}; // as the box of a word offers them

QComboBox* box(const char* name, const QString& called, const QStringList& items)
{
    auto* b = new QComboBox;
    b->setObjectName(QString::fromLatin1(name));
    b->setAccessibleName(called);
    b->addItems(items);
    b->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    return b;
}

QSpinBox* line_number(const char* name, const QString& called, int least, const QString& none)
{
    auto* b = new QSpinBox;
    b->setObjectName(QString::fromLatin1(name));
    b->setAccessibleName(called);
    b->setRange(least, 1000);
    b->setSpecialValueText(none);
    b->setMinimumHeight(32);
    b->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    return b;
}

} // namespace

ImportPage::ImportPage(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    setObjectName(QStringLiteral("importPage"));
    title_ = heading({}, "h1");
    table_ = new LogTable;
    table_->setMinimumHeight(34 * 2 + 26 * 2 + 32);
    table_->setMaximumHeight(34 * 2 + 26 * static_cast<int>(rows_in_table) + 50);
    picture_ = new LogPicture;
    troubles_ = new QListWidget;
    troubles_->setObjectName(QStringLiteral("logTroubles"));
    troubles_->setAccessibleName(tr("Rows and cells that were not taken"));
    troubles_->setMaximumHeight(90);
    said_ = remark();
    said_->setObjectName(QStringLiteral("logSaid"));
    take_ = new QPushButton(tr("Take it in"));
    take_->setObjectName(QStringLiteral("takeLog"));
    take_->setProperty("look", "act");
    again_ = new QPushButton(tr("Guess again"));
    again_->setObjectName(QStringLiteral("guessLog"));
    again_->setToolTip(tr("Forgets what was chosen here and for this header before"));
    leave_ = new QPushButton(tr("Leave it"));
    leave_->setObjectName(QStringLiteral("leaveLog"));
    bar_ = new QProgressBar;
    bar_->setObjectName(QStringLiteral("logProgress"));
    bar_->setRange(0, bar_steps);
    auto* buttons = new QHBoxLayout;
    buttons->addWidget(take_);
    buttons->addWidget(again_);
    buttons->addWidget(leave_);
    buttons->addWidget(bar_, 1);
    buttons->addStretch(1);
    auto* middle = new QVBoxLayout;
    middle->addWidget(title_);
    middle->addWidget(table_);
    middle->addWidget(picture_, 1);
    middle->addWidget(troubles_);
    middle->addWidget(said_);
    middle->addLayout(buttons);
    auto* panel = new QFrame;
    panel->setObjectName("card");
    auto* side = new QVBoxLayout(panel);
    side->setSpacing(4);
    side->addWidget(heading(tr("How it is written")));
    auto* sheet = new FieldSheet(session_);
    build_controls(*sheet);
    side->addWidget(sheet);
    side->addWidget(heading(tr("Words in place of numbers")));
    words_ = new FieldSheet(session_);
    side->addWidget(words_);
    side->addStretch(1);
    auto* page = new QHBoxLayout(this);
    page->setContentsMargins(14, 10, 10, 8);
    page->setSpacing(10);
    page->addLayout(middle, 1);
    page->addWidget(side_scroll(panel, 372));
    connect(table_, &LogTable::edited, this, [this] {
        layout_ = table_->layout();
        look();
    });
    connect(take_, &QPushButton::clicked, this, &ImportPage::run);
    connect(again_, &QPushButton::clicked, this, [this] {
        guess();
        known_ = false;
        show_layout();
    });
    connect(leave_, &QPushButton::clicked, this, [this] {
        if (runs())
            worker_.stop();
        else
            emit left();
    });
    show_running();
}

void ImportPage::build_controls(FieldSheet& sheet)
{
    delimiter_ = box("logDelimiter", tr("Between cells"), {tr("comma"), tr("semicolon"), tr("tab"), tr("bar |"), tr("blanks")});
    decimal_ = box("logDecimal", tr("Decimals after"), {tr("a point"), tr("a comma")});
    header_ = line_number("logHeader", tr("Names are in line"), 0, tr("none"));
    first_ = line_number("logFirst", tr("Readings from line"), 1, {});
    form_ = box("logForm", tr("Time is written as"), {tr("year, month, day"), tr("day, month, year"), tr("month, day, year"), tr("seconds"), tr("minutes"), tr("hours"), tr("days of a spreadsheet"), tr("seconds since 1970, UTC"), tr("milliseconds since 1970, UTC")});
    clock_ = box("logClock", tr("Its clock shows"), {tr("the time there"), tr("the time there, no summer time"), tr("UTC")});
    sheet.add(tr("Between cells"), delimiter_);
    sheet.add(tr("Decimals after"), decimal_);
    sheet.add(tr("Names in line"), header_);
    sheet.add(tr("Readings from line"), first_);
    sheet.add(tr("Time is"), form_);
    sheet.add(tr("Its clock shows"), clock_);
    connect(delimiter_, &QComboBox::activated, this, [this](int i) { change([i](LogLayout& l) { l.delimiter = log_delimiters[static_cast<std::size_t>(i)]; }, true); });
    connect(decimal_, &QComboBox::activated, this, [this](int i) { change([i](LogLayout& l) { l.decimal_comma = i == 1; }, false); });
    connect(header_, &QSpinBox::valueChanged, this, [this](int line) { change([line](LogLayout& l) { l.header_line = line; l.first_line = std::max(l.first_line, line + 1); }, true); });
    connect(first_, &QSpinBox::valueChanged, this, [this](int line) { change([line](LogLayout& l) { l.first_line = line; }, false); });
    connect(form_, &QComboBox::activated, this, [this](int i) { change([i](LogLayout& l) { l.form = static_cast<TimeForm>(i); }, false); });
    connect(clock_, &QComboBox::activated, this, [this](int i) { change([i](LogLayout& l) { l.clock = static_cast<LogClock>(i); }, false); });
}

void ImportPage::open(std::vector<LogText> files)
{
    files_ = std::move(files);
    targets_ = log_targets(session_.document().variant());
    title_->setText(files_.size() == 1 ? tr("Import %1").arg(qs(files_.front().name)) : tr("Import %1 and %n more", nullptr, static_cast<int>(files_.size()) - 1).arg(qs(files_.front().name)));
    guess();
    if (const auto before = known_layout(layout_)) {
        layout_ = *before;
        known_ = true;
    } else {
        known_ = false;
    }
    show_layout();
    take_->setFocus();
}

void ImportPage::guess() { layout_ = guess_layout(files_.front().text, targets_, session_.units().fahrenheit); }

void ImportPage::show_layout()
{
    const QSignalBlocker quiet_header(header_), quiet_first(first_);
    delimiter_->setCurrentIndex(static_cast<int>(std::find(log_delimiters.begin(), log_delimiters.end(), layout_.delimiter) - log_delimiters.begin()));
    decimal_->setCurrentIndex(layout_.decimal_comma ? 1 : 0);
    header_->setValue(layout_.header_line);
    first_->setValue(layout_.first_line);
    form_->setCurrentIndex(static_cast<int>(layout_.form));
    clock_->setCurrentIndex(static_cast<int>(layout_.clock));
    table_->show(layout_, first_rows(files_.front().text, layout_, rows_in_table + (layout_.header_line > 0 ? 1 : 0)), targets_);
    add_word_rows();
    look();
}

void ImportPage::add_word_rows()
{
    words_->clear();
    for (std::size_t i = 0; i < layout_.words.size(); ++i) {
        auto* b = box("logWord", tr("What “%1” says").arg(qs(layout_.words[i].first)), {tr("no reading"), tr("on"), tr("off")});
        const double value = layout_.words[i].second;
        b->setCurrentIndex(std::isnan(value) ? 0 : value != 0 ? 1
                                                              : 2);
        words_->add(QStringLiteral("“%1”").arg(qs(layout_.words[i].first)), b);
        connect(b, &QComboBox::activated, this, [this, i](int chosen) {
            layout_.words[i].second = word_values[static_cast<std::size_t>(chosen)];
            table_->show(layout_, first_rows(files_.front().text, layout_, rows_in_table + (layout_.header_line > 0 ? 1 : 0)), targets_);
            look();
        });
    }
    if (layout_.words.empty())
        words_->add_wide(remark(tr("There are none.")));
}

void ImportPage::change(const std::function<void(LogLayout&)>& how, bool columns_too)
{
    how(layout_);
    if (columns_too)
        guess_columns(layout_, files_.front().text, targets_, session_.units().fahrenheit);
    show_layout();
}

// The first rows as they would be taken.
void ImportPage::look()
{
    asked_ = false;
    const auto log = read_log(files_.front().text, files_.front().name, layout_, targets_, session_.document().job().site.place, {{}, {}, rows_in_picture});
    take_->setEnabled(static_cast<bool>(log) && !runs());
    if (!log) {
        picture_->show_nothing();
        troubles_->clear();
        troubles_->hide();
        said_->setText(QStringLiteral("<span style='color:%1'>■</span> %2").arg(theme().protect.name(), qs(log.error().text()).toHtmlEscaped()));
        return;
    }
    picture_->show(log->trace);
    const std::size_t rows = log->trace.time_s.size();
    const QString begins = log->trace.start.empty() ? tr("no date") : tr("from %1").arg(qs(log->trace.start).replace(QLatin1Char('T'), QLatin1Char(' ')));
    QStringList said{rows < rows_in_picture ? tr("%1 rows %2, one each %3.").arg(rows).arg(begins, text(log->trace.interval_s(), Quantity::duration, session_.units())) : tr("The first %1 rows %2, one each %3.").arg(rows).arg(begins, text(log->trace.interval_s(), Quantity::duration, session_.units()))};
    for (const std::string& n : log->trace.notes)
        said << qs(n) + QLatin1Char('.');
    if (known_)
        said << tr("Read as the last log with these names was.");
    said_->setText(said.join(QLatin1Char(' ')));
    list_troubles(*log, {});
}

void ImportPage::list_troubles(const ImportedLog& log, const QString& of)
{
    troubles_->clear();
    for (const LogTrouble& t : log.troubles)
        troubles_->addItem(of + (t.to_line > t.line ? tr("lines %1 to %2: %3").arg(t.line).arg(t.to_line).arg(qs(t.what)) : tr("line %1: %2").arg(t.line).arg(qs(t.what))));
    if (log.more_troubles > 0)
        troubles_->addItem(tr("and %1 more").arg(log.more_troubles));
    troubles_->setVisible(!log.troubles.empty());
}

// A further file of another header is read as it looks itself.
LogLayout ImportPage::layout_for(const LogText& file) const
{
    LogLayout own = guess_layout(file.text, targets_, session_.units().fahrenheit);
    if (layout_key(own) != layout_key(layout_))
        return known_layout(own).value_or(own);
    LogLayout same = layout_;
    if (&file != &files_.front()) {
        same.header_line = own.header_line;
        same.first_line = own.first_line;
    }
    return same;
}

ImportPage::Read ImportPage::read_all(const std::vector<LogText>& files, const std::vector<LogLayout>& layouts, const std::vector<LogTarget>& targets, const Place& place, const std::function<void(double)>& progress, const std::stop_token& stop)
{
    Read out{Error{}, 0, {}, {}};
    std::vector<Trace> logs;
    for (std::size_t i = 0; i < files.size(); ++i) {
        const LogWatch watch{[&](double share) { progress((static_cast<double>(i) + share) / static_cast<double>(files.size())); }, stop, 0};
        auto log = read_log(files[i].text, files[i].name, layouts[i], targets, place, watch);
        if (!log || log->stopped) {
            out.trace = log ? Error{"stopped; nothing was changed", "", ""} : Error{log.error().what, files[i].name, log.error().remedy};
            return out;
        }
        out.troubles += log->troubles.size() + log->more_troubles;
        if (!log->troubles.empty() && out.first_trouble.empty())
            out.first_trouble = files[i].name + ", line " + std::to_string(log->troubles.front().line) + ": " + log->troubles.front().what;
        if (log->drops_many())
            out.dropped += (out.dropped.empty() ? "" : ". ") + files[i].name + ": " + log->trace.notes.front();
        logs.push_back(std::move(log->trace));
    }
    const auto notes = logs.front().notes;
    out.trace = logs.size() == 1 ? Result<Trace>(std::move(logs.front())) : join(logs);
    if (out.trace && logs.size() > 1)
        out.trace->notes.insert(out.trace->notes.begin(), notes.begin(), notes.end());
    return out;
}

void ImportPage::run()
{
    std::vector<LogLayout> layouts;
    for (const LogText& f : files_)
        layouts.push_back(&f == &files_.front() ? layout_ : layout_for(f));
    worker_.run(
        [this, layouts, files = files_, targets = targets_, place = session_.document().job().site.place](const std::stop_token& stop) {
            int shown = -1;
            const auto progress = [&](double share) {
                if (const int now = static_cast<int>(bar_steps * share); now != std::exchange(shown, now))
                    worker_.tell([this, now] { bar_->setValue(now); });
            };
            return read_all(files, layouts, targets, place, progress, stop);
        },
        [this](Read read) { take(std::move(read)); });
    show_running();
}

void ImportPage::show_running()
{
    bar_->setValue(0);
    bar_->setVisible(runs());
    take_->setEnabled(!runs());
    again_->setEnabled(!runs());
    leave_->setText(runs() ? tr("Stop") : tr("Leave it"));
}

void ImportPage::take(Read read)
{
    show_running();
    if (!read.trace) {
        said_->setText(QStringLiteral("<span style='color:%1'>■</span> %2").arg(theme().protect.name(), qs(read.trace.error().text()).toHtmlEscaped()));
        return;
    }
    if (!read.dropped.empty() && !std::exchange(asked_, true)) {
        said_->setText(QStringLiteral("<span style='color:%1'>▲</span> %2. %3").arg(theme().caution.name(), qs(read.dropped).toHtmlEscaped(), tr("Press “%1” again to import the other rows.").arg(take_->text())));
        return;
    }
    keep_layout(layout_);
    const QString name = qs(files_.front().name), said = read.troubles == 0 ? QString() : tr("%n places could not be read; the first: %1.", nullptr, static_cast<int>(read.troubles)).arg(qs(read.first_trouble).toHtmlEscaped());
    files_.clear();
    emit taken(std::make_shared<const Trace>(std::move(*read.trace)), name, said);
}

void ImportPage::keyPressEvent(QKeyEvent* e)
{
    if (e->key() == Qt::Key_Escape)
        return leave_->click();
    QWidget::keyPressEvent(e);
}

} // namespace vernal
