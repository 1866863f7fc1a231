#include "disagreement_list.h"

#include "core/units/instant_text.h"
#include "core/wording/disagreement.h"

#include <QHeaderView>

namespace vernal {

DisagreementModel::DisagreementModel(Session& session, QObject* parent) : QAbstractTableModel(parent), session_(session) {}

void DisagreementModel::refresh()
{
    beginResetModel();
    const auto& o = session_.outcome();
    of_ = o && o->is_replay() ? o : nullptr;
    endResetModel();
}

int DisagreementModel::rowCount(const QModelIndex& parent) const { return of_ && !parent.isValid() ? static_cast<int>(of_->replay->disagreements.size()) : 0; }

QVariant DisagreementModel::data(const QModelIndex& index, int role) const
{
    if (!of_ || (role != Qt::DisplayRole && role != Qt::ToolTipRole && role != Qt::AccessibleTextRole))
        return {};
    const Disagreement& d = of_->replay->disagreements[static_cast<std::size_t>(index.row())];
    switch (index.column()) {
    case 0: return qs(instant_text(d.from_s + of_->start_s()));
    case 1: return text(d.to_s - d.from_s, d.to_s - d.from_s < 600 ? Quantity::duration : Quantity::minutes, session_.units());
    default: return qs(disagreement_text(of_->variant, *of_->replay, d, session_.units()));
    }
}

QVariant DisagreementModel::headerData(int section, Qt::Orientation orientation, int role) const
{
    if (orientation == Qt::Vertical)
        return {};
    if (role == Qt::TextAlignmentRole)
        return static_cast<int>(Qt::AlignLeft | Qt::AlignVCenter);
    if (role != Qt::DisplayRole)
        return {};
    return section == 0 ? tr("from") : section == 1 ? tr("for")
                                                    : tr("what differs");
}

DisagreementList::DisagreementList(Session& session, QWidget* parent) : QTableView(parent), session_(session), model_(new DisagreementModel(session, this))
{
    setObjectName("disagreements");
    setAccessibleName(tr("Where the log and the rules differ"));
    setModel(model_);
    setSelectionBehavior(QAbstractItemView::SelectRows);
    setSelectionMode(QAbstractItemView::SingleSelection);
    setShowGrid(false);
    setTabKeyNavigation(false);
    setWordWrap(false);
    verticalHeader()->hide();
    verticalHeader()->setDefaultSectionSize(32);
    verticalHeader()->setSectionResizeMode(QHeaderView::Fixed);
    horizontalHeader()->setStretchLastSection(true);
    horizontalHeader()->resizeSection(0, 64);
    horizontalHeader()->resizeSection(1, 80);
}

void DisagreementList::currentChanged(const QModelIndex& now, const QModelIndex& before)
{
    QTableView::currentChanged(now, before);
    const auto& o = session_.outcome();
    if (now.isValid() && o && o->is_replay() && static_cast<std::size_t>(now.row()) < o->replay->disagreements.size())
        session_.set_cursor(o->replay->disagreements[static_cast<std::size_t>(now.row())].from_s + o->start_s());
}

} // namespace vernal
