#include "year_sheet.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "core/job/job_check.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLocale>
#include <QProgressBar>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include <cmath>
#include <string_view>

namespace vernal {
namespace {

struct YearColumn {
    const char* title;
    Quantity quantity;
    double (*value)(const YearMonth& m);
};

const std::vector<YearColumn>& year_columns()
{
    static const std::vector<YearColumn> table{
        {"to store", Quantity::energy, [](const YearMonth& m) { return m.heat_j; }},
        {"backup", Quantity::energy, [](const YearMonth& m) { return m.backup_j; }},
        {"sun", Quantity::ratio, [](const YearMonth& m) { return m.solar_share(); }},
        {"collected", Quantity::ratio, [](const YearMonth& m) { return m.collected_share(); }},
        {"pump", Quantity::electricity, [](const YearMonth& m) { return m.pump_energy_j; }},
        {"starts", Quantity::count, [](const YearMonth& m) { return static_cast<double>(m.starts); }},
        {"collector", Quantity::temperature, [](const YearMonth& m) { return m.hottest_collector_c; }},
        {"store", Quantity::temperature, [](const YearMonth& m) { return m.hottest_store_c; }},
        {"least air", Quantity::temperature, [](const YearMonth& m) { return m.coldest_air_c; }},
        {"too hot", Quantity::hours, [](const YearMonth& m) { return m.above_limit_s / 3600; }},
        {"frost", Quantity::hours, [](const YearMonth& m) { return m.freezing_s / 3600; }},
    };
    return table;
}

// Three figures of it: the unit stands in the head.
QString short_number(double inside, Quantity q, const Units& u)
{
    if (!std::isfinite(inside))
        return QStringLiteral("–");
    const double x = to_display(inside, q, u);
    const int places = q == Quantity::count || std::fabs(x) >= 100 ? 0 : std::fabs(x) >= 10 || q == Quantity::temperature || q == Quantity::hours ? 1
                                                                                                                                                  : 2;
    QString out = QString::number(x, 'f', std::min(places, std::max(1, decimals(q, u))));
    if (places == 0)
        for (qsizetype at = out.size() - 3; at > (x < 0 ? 1 : 0); at -= 3)
            out.insert(at, QChar(0x202f));
    return out.replace(QLatin1Char('-'), QStringLiteral("−"));
}

QString month_name(int month) { return month == 0 ? QObject::tr("year") : QLocale::c().standaloneMonthName(month, QLocale::ShortFormat); }

QString date_name(const YearDay& d) { return QStringLiteral("%1 %2").arg(d.day).arg(month_name(d.month)); }

} // namespace

YearSheet::YearSheet(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    about_ = remark();
    about_->setObjectName("yearAbout");
    run_ = new QPushButton(tr("Run a year"));
    run_->setObjectName("runYear");
    stop_ = new QPushButton(tr("Stop"));
    stop_->setObjectName("stopYear");
    stop_->hide();
    bar_ = new QProgressBar;
    bar_->setObjectName("yearProgress");
    bar_->setTextVisible(false);
    bar_->hide();
    table_ = new QTableWidget;
    table_->setObjectName("yearTable");
    table_->setAccessibleName(tr("The year by months"));
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setColumnCount(static_cast<int>(year_columns().size()));
    table_->verticalHeader()->setDefaultSectionSize(24);
    table_->verticalHeader()->setMinimumWidth(48);
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    constexpr std::size_t long_title = 9; // letters that an even share of the width cuts off
    for (std::size_t c = 0; c < year_columns().size(); ++c)
        if (std::string_view(year_columns()[c].title).size() >= long_title)
            table_->horizontalHeader()->setSectionResizeMode(static_cast<int>(c), QHeaderView::ResizeToContents);
    look_words_ = remark(tr("Worth a look, and one click from the shelf:"));
    look_ = new QHBoxLayout;
    look_->setSpacing(4);
    auto* row = new QHBoxLayout;
    row->addWidget(run_);
    row->addWidget(stop_);
    row->addWidget(bar_, 1);
    row->addStretch(1);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->addWidget(about_);
    box->addLayout(row);
    box->addWidget(table_, 1);
    box->addWidget(look_words_);
    box->addLayout(look_);
    connect(run_, &QPushButton::clicked, this, &YearSheet::run);
    connect(stop_, &QPushButton::clicked, this, [this] { worker_.stop(); });
    connect(&session.document(), &Document::changed, this, &YearSheet::refresh);
    connect(&session.document(), &Document::view_changed, this, &YearSheet::refresh);
    connect(&session, &Session::units_changed, this, &YearSheet::fill);
    fill();
}

void YearSheet::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    refresh();
}

void YearSheet::run()
{
    const Document& d = session_.document();
    asked_ = {d.job(), d.variant_index(), d.day_index()};
    bar_->setRange(0, 0);
    worker_.run(
        [this, asked = asked_](const std::stop_token& stop) {
            return run_year(
                asked.job, asked.job.variants[asked.variant], asked.job.days[asked.day], [&](std::size_t done, std::size_t of) {
                    if (done % 10 == 0)
                        worker_.tell([this, done, of] {
                            bar_->setRange(0, static_cast<int>(of));
                            bar_->setValue(static_cast<int>(done));
                        });
                },
                stop);
        },
        [this](const Result<Year>& year) { take(year); });
    refresh();
}

void YearSheet::take(const Result<Year>& year)
{
    year_ = year && !year->cancelled ? std::make_shared<const Year>(*year) : nullptr;
    fill();
    if (!year)
        about_->setText(qs(year.error().text()));
    else if (year->cancelled)
        about_->setText(tr("Stopped. Nothing was changed."));
    emit finished();
}

void YearSheet::refresh()
{
    run_->setEnabled(!runs() && session_.document().day().kind == DayKind::generated);
    stop_->setVisible(runs());
    bar_->setVisible(runs());
    if (!isVisible())
        return;
    const Document& d = session_.document();
    if (runs())
        return about_->setText(tr("365 days, one after the other …"));
    if (d.day().kind != DayKind::generated)
        return about_->setText(tr("Choose a generated day: a year takes its draws, its cold water and its weather file."));
    if (!year_)
        return about_->setText(tr("365 days from 1 January with the draws and the cold water of “%1”; with its weather file where it has a year of it, else with made-up skies between the job's coldest and warmest day.").arg(qs(d.day().name).toHtmlEscaped()));
    const Variant& v = asked_.job.variants[asked_.variant];
    const bool now = asked_.job.variants == d.job().variants && asked_.job.site == d.job().site && asked_.variant == d.variant_index();
    about_->setText(tr("%1, drawn as on “%2”, %3.").arg(qs(v.name).toHtmlEscaped(), qs(asked_.job.days[asked_.day].name).toHtmlEscaped(), year_->measured ? tr("weather of %1").arg(qs(asked_.job.days[asked_.day].trace).toHtmlEscaped()) : tr("made-up weather")) + (now ? QString() : QLatin1Char(' ') + tr("The job has changed since: run it again.")));
}

void YearSheet::fill()
{
    QStringList titles, months;
    for (const YearColumn& c : year_columns())
        titles << tr(c.title) + QLatin1Char('\n') + qs(unit_name(c.quantity, session_.units()));
    table_->setHorizontalHeaderLabels(titles);
    std::vector<YearMonth> rows;
    if (year_) {
        rows = {year_->whole};
        rows.insert(rows.end(), year_->months.begin(), year_->months.end());
    }
    table_->setRowCount(static_cast<int>(rows.size()));
    for (std::size_t r = 0; r < rows.size(); ++r) {
        months << month_name(rows[r].month);
        for (std::size_t c = 0; c < year_columns().size(); ++c) {
            auto* item = new QTableWidgetItem(short_number(year_columns()[c].value(rows[r]), year_columns()[c].quantity, session_.units()));
            item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            if (rows[r].month == 0)
                item->setFont(text_font(14, true));
            table_->setItem(static_cast<int>(r), static_cast<int>(c), item);
        }
    }
    table_->setVerticalHeaderLabels(months);
    table_->setVisible(year_ != nullptr);
    list_days();
    refresh();
}

void YearSheet::list_days()
{
    clear_layout(look_);
    look_words_->setVisible(year_ != nullptr);
    if (!year_)
        return;
    for (const WorthALook& w : worth_a_look(*year_)) {
        auto* b = new QPushButton(QStringLiteral("%1\n%2").arg(date_name(year_->days[w.day]), tr(w.title)));
        b->setObjectName(QStringLiteral("look_%1").arg(QString::fromLatin1(w.key)));
        b->setToolTip(tr("Puts this day on the shelf and shows it"));
        connect(b, &QPushButton::clicked, this, [this, day = w.day] { put_on_shelf(day); });
        look_->addWidget(b);
    }
    look_->addStretch(1);
}

void YearSheet::put_on_shelf(std::size_t day)
{
    Day d = day_of_year_run(asked_.job, asked_.job.days[asked_.day], *year_, day);
    d.id.clear();
    session_.document().edit(tr("Put a day of the year on the shelf"), [&](Job& j) {
        d.name = free_name(j.days, date_name(year_->days[day]).toStdString());
        j.days.push_back(d);
    });
    session_.document().choose_day(session_.document().job().days.size() - 1);
}

} // namespace vernal
