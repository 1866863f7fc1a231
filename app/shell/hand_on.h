// Pictures and tables are handed on from where they stand: a menu on them, Ctrl+C, and
// commands for the keyboard.
#pragma once

#include "dialogs.h"

#include <QObject>

class QAbstractItemView;
class QTableView;

namespace vernal {

class Picture;

// As rows of cells, the headers first.
QList<QStringList> rows_of(const QTableView& table);

class HandOn : public QObject {
    Q_OBJECT
public:
    HandOn(QWidget& window, const Dialogs& dialogs);
    void save_picture_of(QWidget* page); // the largest that is seen on it
    void save_table_of(QWidget* page);
    void copy_table(const QTableView& table);

protected:
    bool eventFilter(QObject* o, QEvent* e) override;

private:
    bool menu_on(QWidget* w, const QPoint& at);
    bool copy_from(QWidget* w);
    void save_picture(QWidget* w);
    void save_table(const QTableView& table);
    QWidget& window_;
    const Dialogs& dialogs_;
};

} // namespace vernal
