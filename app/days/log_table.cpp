#include "log_table.h"

#include "app/shell/session.h"
#include "app/shell/theme.h"
#include "files/log_cells.h"

#include <QComboBox>
#include <QHeaderView>

#include <algorithm>

namespace vernal {
namespace {

// What a box of roles offers before the targets, in its order.
constexpr std::array fixed_roles{LogRole::left_out, LogRole::moment, LogRole::date, LogRole::clock};
constexpr int role_row = 0, unit_row = 1, first_row = 2, own_name = 4, first_target = 5;
const QStringList own_units{QString(), QStringLiteral("°C"), QStringLiteral("°F"), QStringLiteral("V"), QStringLiteral("A"), QStringLiteral("W"), QStringLiteral("kWh"), QStringLiteral("L/min"), QStringLiteral("bar"), QStringLiteral("%"), QStringLiteral("rpm")};

} // namespace

LogTable::LogTable(QWidget* parent) : QTableWidget(parent)
{
    setObjectName(QStringLiteral("logTable"));
    setAccessibleName(tr("First rows of the log"));
    setEditTriggers(NoEditTriggers);
    setSelectionMode(NoSelection);
    setHorizontalScrollMode(ScrollPerPixel);
    verticalHeader()->setDefaultSectionSize(26);
    verticalHeader()->setSectionResizeMode(QHeaderView::Fixed);
    verticalHeader()->setMinimumWidth(44);
}

QComboBox* LogTable::unit_box(int column) const { return qobject_cast<QComboBox*>(cellWidget(unit_row, column)); }

void LogTable::show(const LogLayout& layout, const std::vector<std::vector<std::string>>& rows, const std::vector<LogTarget>& targets)
{
    layout_ = layout;
    targets_ = targets;
    const bool headed = layout.header_line > 0 && !rows.empty();
    const auto shown = rows.size() - (headed ? 1 : 0);
    clear();
    setColumnCount(static_cast<int>(layout.columns.size()));
    setRowCount(first_row + static_cast<int>(shown));
    QStringList names, lines{tr("is"), tr("in")};
    for (std::size_t c = 0; c < layout.columns.size(); ++c) {
        names << (layout.columns[c].header.empty() ? tr("column %1").arg(c + 1) : qs(layout.columns[c].header));
        add_column(static_cast<int>(c));
        for (std::size_t r = 0; r < shown; ++r) {
            const auto& row = rows[r + (headed ? 1 : 0)];
            auto* item = new QTableWidgetItem(c < row.size() ? qs(row[c]) : QString());
            item->setFont(text_font(13));
            setItem(first_row + static_cast<int>(r), static_cast<int>(c), item);
        }
    }
    for (std::size_t r = 0; r < shown; ++r)
        lines << QString::number(layout.first_line + static_cast<int>(r));
    setHorizontalHeaderLabels(names);
    setVerticalHeaderLabels(lines);
    setRowHeight(role_row, 34);
    setRowHeight(unit_row, 34);
    for (int c = 0; c < columnCount(); ++c)
        setColumnWidth(c, std::clamp(sizeHintForColumn(c) - 16, 112, 180));
}

void LogTable::add_column(int column)
{
    const LogColumn& c = layout_.columns[static_cast<std::size_t>(column)];
    auto* role = new QComboBox;
    role->setObjectName(QStringLiteral("role%1").arg(column));
    role->setAccessibleName(tr("What column %1 is").arg(column + 1));
    role->addItems({tr("left out"), tr("date and time"), tr("day"), tr("time of day"), tr("kept as it is")});
    for (const LogTarget& t : targets_)
        role->addItem(qs(t.label));
    role->insertSeparator(first_target);
    int at = static_cast<int>(std::find(fixed_roles.begin(), fixed_roles.end(), c.role) - fixed_roles.begin());
    if (c.role == LogRole::value) {
        const auto t = std::find_if(targets_.begin(), targets_.end(), [&](const LogTarget& x) { return x.name == c.name; });
        at = t == targets_.end() ? own_name : first_target + 1 + static_cast<int>(t - targets_.begin());
    }
    role->setCurrentIndex(at);
    role->view()->setMinimumWidth(190);
    auto* unit = new QComboBox;
    unit->setObjectName(QStringLiteral("unit%1").arg(column));
    unit->setAccessibleName(tr("Unit of column %1").arg(column + 1));
    setCellWidget(role_row, column, role);
    setCellWidget(unit_row, column, unit);
    offer_units(column);
    connect(role, &QComboBox::activated, this, [this, column](int index) { choose(column, index); });
    connect(unit, &QComboBox::activated, this, [this, column] {
        layout_.columns[static_cast<std::size_t>(column)].unit = unit_box(column)->currentText().toStdString();
        emit edited();
    });
}

void LogTable::offer_units(int column)
{
    const LogColumn& c = layout_.columns[static_cast<std::size_t>(column)];
    QComboBox* box = unit_box(column);
    box->clear();
    box->setEnabled(c.role == LogRole::value);
    if (c.role != LogRole::value)
        return;
    const auto t = std::find_if(targets_.begin(), targets_.end(), [&](const LogTarget& x) { return x.name == c.name; });
    if (t == targets_.end())
        box->addItems(own_units);
    else
        for (const char* unit : units_for(t->kind))
            box->addItem(QString::fromUtf8(unit));
    if (box->findText(qs(c.unit)) < 0)
        box->addItem(qs(c.unit));
    box->setCurrentIndex(box->findText(qs(c.unit)));
}

void LogTable::choose(int column, int index)
{
    LogColumn& c = layout_.columns[static_cast<std::size_t>(column)];
    if (index < own_name) {
        c.role = fixed_roles[static_cast<std::size_t>(index)];
        if (c.role == LogRole::moment) // there is one
            for (std::size_t i = 0; i < layout_.columns.size(); ++i)
                if (static_cast<int>(i) != column && layout_.columns[i].role != LogRole::value && layout_.columns[i].role != LogRole::left_out) {
                    layout_.columns[i].role = LogRole::left_out;
                    qobject_cast<QComboBox*>(cellWidget(role_row, static_cast<int>(i)))->setCurrentIndex(0);
                }
        c.name.clear();
        c.unit.clear();
    } else {
        c.role = LogRole::value;
        const CellHeader parts = header_parts(c.header);
        if (index == own_name) {
            c.name = c.header.empty() ? "column " + std::to_string(column + 1) : parts.name;
            c.unit = cell_unit(parts.unit) ? parts.unit : "";
        } else {
            const LogTarget& t = targets_[static_cast<std::size_t>(index - first_target - 1)];
            const auto& units = units_for(t.kind);
            c.name = t.name;
            c.unit = std::find(units.begin(), units.end(), parts.unit) != units.end() ? parts.unit : units.front();
        }
    }
    offer_units(column);
    emit edited();
}

} // namespace vernal
