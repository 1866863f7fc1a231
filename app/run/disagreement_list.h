// Where a log and the rules differ, in words; a chosen one moves the cursor.
#pragma once

#include "app/shell/session.h"

#include <QAbstractTableModel>
#include <QTableView>

namespace vernal {

// Words are made for the rows that are seen: a log may have tens of thousands.
class DisagreementModel : public QAbstractTableModel {
    Q_OBJECT
public:
    explicit DisagreementModel(Session& session, QObject* parent = nullptr);
    void refresh();
    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex&) const override { return 3; }
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    Session& session_;
    std::shared_ptr<const Outcome> of_; // a replay; null: there is none
};

class DisagreementList : public QTableView {
    Q_OBJECT
public:
    explicit DisagreementList(Session& session, QWidget* parent = nullptr);
    void refresh() { model_->refresh(); }

protected:
    void currentChanged(const QModelIndex& now, const QModelIndex& before) override;

private:
    Session& session_;
    DisagreementModel* model_;
};

} // namespace vernal
