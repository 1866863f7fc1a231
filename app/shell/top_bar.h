// Job, variants, one chip for all units, undo, when it was saved, and the field that
// finds or does anything.
#pragma once

#include "session.h"

#include <QFrame>

class QAction;
class QHBoxLayout;
class QLabel;
class QPushButton;

namespace vernal {

class TopBar : public QFrame {
    Q_OBJECT
public:
    // save: what its time stands on; sheet: asks for title and place; others: buttons of their own.
    TopBar(Session& session, QAction* save, QAction* sheet, const QList<QAction*>& others, QWidget* parent = nullptr);

signals:
    void palette_wanted();

protected:
    void resizeEvent(QResizeEvent* e) override;

private:
    void refresh();
    void show_site();
    void show_saved();
    void show_units();
    void make_units();
    void show_variants();
    void variant_menu(QPushButton* b, std::size_t index, const QPoint& at);
    Session& session_;
    QLabel* title_;
    QPushButton* site_;
    QHBoxLayout* variants_;
    QString shown_; // names and choice of the variant buttons now there
    QPushButton *units_, *saved_;
};

} // namespace vernal
