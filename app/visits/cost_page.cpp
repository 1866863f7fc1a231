#include "cost_page.h"

#include "app/widgets/form.h"
#include "core/job/field_range.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include <cmath>

namespace vernal {

CostPage::CostPage(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    const auto line = [&](const char* name, const QString& label) {
        auto* e = new QLineEdit;
        e->setObjectName(QString::fromLatin1(name));
        e->setAccessibleName(label);
        e->setPlaceholderText(label);
        e->setMinimumWidth(44);
        e->setMinimumHeight(36);
        connect(e, &QLineEdit::editingFinished, this, &CostPage::keep_costs);
        return e;
    };
    money_ = line("costMoney", tr("Money"));
    energy_ = line("costEnergy", tr("a kWh"));
    hour_ = line("costHour", tr("an hour of work"));
    work_ = new QPushButton(tr("Work it out"));
    work_->setObjectName(QStringLiteral("costWork"));
    auto* back = new QPushButton(tr("Back to the page"));
    back->setProperty("look", QStringLiteral("quiet"));
    table_ = new QTableWidget(0, 6);
    table_->setObjectName(QStringLiteral("costTable"));
    table_->setAccessibleName(tr("Cost of heat"));
    table_->setHorizontalHeaderLabels({tr("Variant"), tr("Heat\nkWh a year"), tr("Pump\nkWh a year"), tr("Electricity\na year"), tr("Parts, work\na year"), tr("Each kWh\nof heat")});
    table_->verticalHeader()->hide();
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
    table_->setWordWrap(true);
    about_ = remark(tr("Twelve days, one a month, stand for the year; parts and minutes are those of the visits, spread over the years between the first and the last. A heat meter read on visits goes before the computed heat."));
    auto* head = new QHBoxLayout;
    head->addWidget(heading(tr("What a kilowatt-hour of heat costs")), 1);
    head->addWidget(back);
    auto* row = new QHBoxLayout;
    for (QLineEdit* e : {money_, energy_, hour_}) {
        auto* name = new QLabel(e->placeholderText());
        name->setBuddy(e);
        row->addWidget(name);
        row->addWidget(e, 1);
    }
    row->addWidget(work_);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(14, 10, 14, 10);
    box->addLayout(head);
    box->addLayout(row);
    box->addWidget(table_, 1);
    box->addWidget(about_);
    connect(work_, &QPushButton::clicked, this, &CostPage::work);
    connect(back, &QPushButton::clicked, this, &CostPage::left);
    connect(&session.document(), &Document::changed, this, &CostPage::refresh);
}

void CostPage::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    refresh();
}

void CostPage::refresh()
{
    const Costs& c = session_.document().job().logbook.costs;
    if (!money_->hasFocus())
        money_->setText(qs(c.money));
    if (!energy_->hasFocus())
        energy_->setText(c.energy_kwh > 0 ? QString::number(c.energy_kwh) : QString());
    if (!hour_->hasFocus())
        hour_->setText(c.work_h > 0 ? QString::number(c.work_h) : QString());
}

void CostPage::keep_costs()
{
    Costs c = session_.document().job().logbook.costs;
    c.money = money_->text().trimmed().toStdString();
    const auto number = [&](const QLineEdit& e, double& to) {
        if (e.text().trimmed().isEmpty())
            to = 0;
        else if (const auto v = parse(e.text().toStdString(), Quantity::number, Units::metric()); v && *v >= 0)
            to = *v;
        else
            about_->setText(tr("▲ “%1” is no price.").arg(e.text()));
    };
    number(*energy_, c.energy_kwh);
    number(*hour_, c.work_h);
    if (const auto beyond = beyond_range(c)) {
        about_->setText(QStringLiteral("▲ ") + qs(*beyond).toHtmlEscaped());
        return;
    }
    session_.document().edit(tr("Prices"), [&](Job& j) { j.logbook.costs = c; });
}

void CostPage::work()
{
    keep_costs();
    work_->setEnabled(false);
    about_->setText(tr("Running the year of each …"));
    worker_.run([job = session_.document().job()](const std::stop_token& stop) {
        std::vector<Row> out;
        for (const Variant& v : job.variants)
            out.emplace_back(v.name, heat_cost(job, v, stop));
        const Variant& first = job.variants.front();
        if (arrangement_of(first.loop).pumped()) {
            Variant other = first;
            other.loop.pump.power_w /= 2;
            other.loop.motor.current_a /= 2;
            out.emplace_back(first.name + ", a pump that takes half", heat_cost(job, other, stop));
        }
        if (arrangement_of(first.loop).has(Part::panel)) {
            Variant other = first;
            constexpr double larger = 1.5;
            other.loop.panel.isc_a *= larger;
            other.loop.panel.imp_a *= larger;
            out.emplace_back(first.name + ", a panel half as large again", heat_cost(job, other, stop));
        }
        return out; },
        [this](std::vector<Row> rows) { show_rows(rows); });
}

void CostPage::show_rows(const std::vector<Row>& rows)
{
    work_->setEnabled(true);
    const Costs& costs = session_.document().job().logbook.costs;
    table_->setRowCount(static_cast<int>(rows.size()));
    std::optional<HeatCost> first;
    for (int r = 0; r < static_cast<int>(rows.size()); ++r) {
        const auto& [name, cost] = rows[static_cast<std::size_t>(r)];
        const auto put = [&](int column, const QString& s) {
            auto* item = new QTableWidgetItem(s);
            item->setTextAlignment((column == 0 ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter);
            table_->setItem(r, column, item);
        };
        put(0, qs(name));
        if (!cost) {
            put(1, tr("cannot be run"));
            continue;
        }
        if (!first)
            first = cost;
        put(1, QString::number(cost->heat_kwh_a, 'f', 0));
        put(2, QString::number(cost->pump_kwh_a, 'f', 0));
        put(3, QString::number(cost->electricity_a, 'f', 2));
        put(4, QString::number(cost->parts_a + cost->work_a, 'f', 2));
        put(5, QStringLiteral("%1 %2").arg(cost->per_kwh(), 0, 'f', 3).arg(qs(costs.money)).trimmed());
    }
    about_->setText(first ? qs(rows.front().first + ": " + cost_text(*first, costs)) + (costs.energy_kwh <= 0 && costs.work_h <= 0 ? tr(". No price is stated yet.") : QString()) : tr("None of them can be run; look at Run."));
}

} // namespace vernal
