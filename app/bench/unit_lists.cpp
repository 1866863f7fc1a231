// What the pages of a unit's sheet show.
#include "bench_parts.h"
#include "terminal_strip.h"
#include "unit_page.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>

#include <algorithm>

namespace vernal {
namespace {

void add_row(QTableWidget& t, const QStringList& cells, const QColor& ink)
{
    const int r = t.rowCount();
    t.insertRow(r);
    for (int c = 0; c < cells.size(); ++c) {
        auto* item = new QTableWidgetItem(cells[c]);
        item->setForeground(ink);
        t.setItem(r, c, item);
    }
}

} // namespace

void UnitPage::show_wiring()
{
    const auto lines = wiring_list(*sheet(), session_.document().variant());
    strip_->show_lines(lines);
    wiring_->setRowCount(0);
    for (const WiringLine& l : lines)
        add_row(*wiring_, {l.terminal.empty() ? tr("none") : qs(l.terminal), l.goes.empty() ? QStringLiteral("–") : qs(l.goes), qs(l.note)}, l.terminal.empty() ? theme().protect : l.goes.empty() ? theme().second_ink
                                                                                                                                                                                                   : theme().ink);
}

void UnitPage::show_keys()
{
    const UnitSheet& s = *sheet();
    fahrenheit_->setVisible(s.scale == SheetScale::either);
    const auto lines = key_list(s, session_.document().job(), session_.document().variant_index(), fahrenheit_->isChecked());
    keys_->setRowCount(0);
    int lacking = 0, nearest = 0;
    for (const KeyLine& l : lines) {
        lacking += l.is == KeyIs::lacking;
        nearest += l.is == KeyIs::nearest;
        const QColor ink = l.is == KeyIs::lacking ? theme().protect : l.is == KeyIs::nearest || l.is == KeyIs::no_such_setting ? theme().caution
                                                                                                                               : theme().ink;
        add_row(*keys_, {qs(l.name), qs(l.path), qs(l.keys), l.set.empty() ? tr("cannot be set") : qs(l.set), l.wanted == l.set ? QString() : qs(l.wanted), qs(l.note)}, ink);
    }
    keys_->resizeRowsToContents();
    key_words_->setText(lacking == 0 && nearest == 0 ? tr("All of this job can be set on it.") : tr("Rules it lacks: %1. Values only nearly: %2.").arg(lacking).arg(nearest));
    as_variant_->setEnabled(lacking > 0 || nearest > 0);
}

void UnitPage::show_presets()
{
    QStringList out;
    for (const WrongPreset& w : wrong_presets(*sheet(), session_.document().job(), session_.document().variant_index()))
        for (const Finding& f : w.found)
            out << QStringLiteral("<b>%1 %2</b>: %3. %4").arg(qs(w.name).toHtmlEscaped(), qs(w.value).toHtmlEscaped(), in_colour(f.severity == Severity::serious ? theme().protect : theme().caution, qs(f.title)), qs(f.reason).toHtmlEscaped());
    presets_->setText(out.isEmpty() ? tr("None of its presets does harm here.") : out.join(QStringLiteral("<br><br>")));
}

void UnitPage::lay_out_lamps()
{
    clear_layout(lamp_rows_);
    lamps_.clear();
    const UnitSheet* s = sheet();
    for (std::size_t i = 0; s && i < s->lamps.size(); ++i) {
        const std::string& name = s->lamps[i].lamp;
        if (std::any_of(lamps_.begin(), lamps_.end(), [&](const auto& l) { return l.first == name; }))
            continue;
        auto* box = new QComboBox;
        box->setObjectName(QStringLiteral("lamp.%1").arg(qs(name)));
        box->setAccessibleName(tr("Lamp %1").arg(qs(name)));
        box->addItems({tr("not looked at"), tr("dark"), tr("lit"), tr("blinks slowly"), tr("blinks fast"), tr("blinks twice")});
        const int row = static_cast<int>(lamps_.size());
        lamp_rows_->addWidget(new QLabel(qs(name)), row, 0);
        lamp_rows_->addWidget(box, row, 1);
        lamps_.emplace_back(name, box);
        connect(box, &QComboBox::activated, this, &UnitPage::show_lamps);
    }
    lamp_rows_->setColumnStretch(2, 1);
    show_lamps();
}

void UnitPage::show_lamps()
{
    const UnitSheet* s = sheet();
    std::vector<LampSeen> seen;
    for (const auto& [name, box] : lamps_)
        if (box->currentIndex() > 0)
            seen.push_back({name, static_cast<LampPattern>(box->currentIndex() - 1)});
    QStringList out;
    if (s)
        for (const LampReading& l : read_lamps(*s, seen))
            out << QStringLiteral("<b>%1</b>: %2. <span style='color:%4'>Next: %3.</span>").arg(qs(l.lamp).toHtmlEscaped(), qs(l.says).toHtmlEscaped(), qs(l.next).toHtmlEscaped(), theme().second_ink.name());
    lamp_words_->setText(!s || s->lamps.empty() ? tr("The sheet names no lamps.") : out.join(QStringLiteral("<br>")));
}

void UnitPage::show_replaced()
{
    const int old = instead_of_->currentIndex();
    replaced_->setRowCount(0);
    if (old < 0 || static_cast<std::size_t>(old) >= sheets_.size() || !sheet())
        return;
    const auto lines = replaced(sheets_[static_cast<std::size_t>(old)], *sheet(), session_.document().job(), session_.document().variant_index());
    for (const ReplacedLine& l : lines)
        add_row(*replaced_, {qs(l.what), qs(l.was), l.is.empty() ? tr("lost") : qs(l.is)}, l.is.empty() ? theme().protect : theme().ink);
    if (lines.empty())
        add_row(*replaced_, {tr("Nothing is lost"), {}, {}}, theme().second_ink);
}

} // namespace vernal
