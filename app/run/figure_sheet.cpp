#include "figure_sheet.h"

#include "app/shell/theme.h"
#include "core/wording/figure_table.h"

#include <QHeaderView>

#include <cmath>

namespace vernal {
namespace {

constexpr int row_px = 24, column_px = 95;

struct Line {
    QString label, mine, other;
    int better = 0; // 1: mine, 2: the other
};

std::vector<Line> lines(const Figures& mine, const Figures* other, const Units& units)
{
    std::vector<Line> out;
    for (const Figure* row : figure_rows()) {
        Line l{QObject::tr(row->label), qs(figure_text(*row, mine, units)), other ? qs(figure_text(*row, *other, units)) : QString()};
        if (l.mine.isEmpty() && l.other.isEmpty())
            continue;
        // What reads the same is the same.
        if (other && l.mine != l.other && row->better != Better::neither) {
            const double a = row->value(mine), b = row->value(*other);
            if (std::isfinite(a) && std::isfinite(b))
                l.better = (a > b) == (row->better == Better::more) ? 1 : 2;
        }
        out.push_back(l);
    }
    return out;
}

} // namespace

FigureSheet::FigureSheet(Session& session, QWidget* parent) : QTableWidget(parent), session_(session)
{
    setObjectName("figures");
    setAccessibleName(tr("Figures of the variants"));
    verticalHeader()->hide();
    verticalHeader()->setDefaultSectionSize(row_px);
    verticalHeader()->setMinimumSectionSize(row_px);
    setEditTriggers(QAbstractItemView::NoEditTriggers);
    setShowGrid(false);
    setFocusPolicy(Qt::StrongFocus);
    setTabKeyNavigation(false);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
}

void FigureSheet::resizeEvent(QResizeEvent* e)
{
    QTableWidget::resizeEvent(e);
    refresh();
}

void FigureSheet::refresh()
{
    const auto& o = session_.outcome();
    clear();
    setRowCount(0);
    if (!o || !o->figures())
        return;
    const Verdict& verdict = session_.verdict();
    const Figures* other = verdict.baseline_figures ? &*verdict.baseline_figures : nullptr;
    Figures now = *o->figures();
    if (verdict.id == o->id)
        now.possible_j = verdict.possible_j;
    const auto all = lines(now, other, session_.units());
    const int each = other ? 3 : 2;
    blocks_ = width() >= 2 * each * column_px ? 2 : 1;
    const int rows = (static_cast<int>(all.size()) + blocks_ - 1) / blocks_;
    setColumnCount(each * blocks_);
    setRowCount(rows);
    QStringList heads;
    for (int b = 0; b < blocks_; ++b) {
        heads << tr("figure") << qs(o->variant.name);
        if (other)
            heads << qs(verdict.baseline_name);
    }
    setHorizontalHeaderLabels(heads);
    for (int i = 0; i < static_cast<int>(all.size()); ++i) {
        const Line& l = all[static_cast<std::size_t>(i)];
        const int row = i % rows, first = i / rows * each;
        setItem(row, first, new QTableWidgetItem(l.label));
        for (int c = 1; c < each; ++c) {
            const bool better = l.better == c;
            auto* item = new QTableWidgetItem((better ? QStringLiteral("✓ ") : QString()) + (c == 1 ? l.mine : l.other));
            item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            item->setFont(text_font(13, better));
            if (better) {
                item->setForeground(theme().accent);
                item->setToolTip(tr("the better of the two"));
            }
            setItem(row, first + c, item);
        }
    }
    for (int c = 0; c < columnCount(); ++c) {
        horizontalHeaderItem(c)->setTextAlignment((c % each == 0 ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter);
        // Values have their whole width, names share what is left.
        horizontalHeader()->setSectionResizeMode(c, c % each == 0 ? QHeaderView::Stretch : QHeaderView::ResizeToContents);
    }
}

} // namespace vernal
