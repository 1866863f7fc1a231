// Title, customer and place of a job. Nothing is changed before it is taken; then it is one edit.
#pragma once

#include "app/widgets/number_edit.h"

#include <QDialog>

class QCheckBox;
class QComboBox;
class QLabel;
class QStringListModel;

namespace vernal {

class JobSheet : public QDialog {
    Q_OBJECT
public:
    // remember: the place taken, for new loops.
    JobSheet(Session& session, bool remember, QWidget* parent = nullptr);

private:
    void find(const QString& typed); // offers the listed places that begin so
    void go_to(const QString& listed);
    void take();
    void show_clock();
    Session& session_;
    bool remember_;
    QLineEdit *title_, *customer_, *place_;
    NumberEdit *latitude_, *longitude_, *altitude_, *ahead_;
    QComboBox* zone_;
    QCheckBox* summer_;
    QLabel *clock_, *trouble_;
    QStringListModel* offered_;
};

// Where new loops lie: the place taken last; none was: empty.
std::optional<Site> remembered_site();

} // namespace vernal
