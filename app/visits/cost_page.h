// What heat costs, of each variant and of another pump or a larger panel.
#pragma once

#include "app/shell/session.h"
#include "app/widgets/worker.h"
#include "core/visit/costs.h"

#include <QWidget>

class QLabel;
class QLineEdit;
class QPushButton;
class QTableWidget;

namespace vernal {

class CostPage : public QWidget {
    Q_OBJECT
public:
    explicit CostPage(Session& session, QWidget* parent = nullptr);
    bool runs() const { return worker_.runs(); }

signals:
    void left();

protected:
    void showEvent(QShowEvent* e) override;

private:
    using Row = std::pair<std::string, std::optional<HeatCost>>;
    void refresh();
    void keep_costs();
    void work();
    void show_rows(const std::vector<Row>& rows);
    Session& session_;
    QLineEdit *money_, *energy_, *hour_;
    QTableWidget* table_;
    QLabel* about_;
    QPushButton* work_;
    Worker worker_{*this}; // last
};

} // namespace vernal
