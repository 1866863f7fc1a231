// The first page: the demo, a new loop, recent files, work left behind.
#pragma once

#include "recovery.h"

#include <QWidget>

class QVBoxLayout;

namespace vernal {

class StartPage : public QWidget {
    Q_OBJECT
public:
    StartPage(const QStringList& recent, const QList<LeftBehind>& left, const QString& demo, QWidget* parent = nullptr);

signals:
    void open_wanted(const QString& path); // empty: ask
    void new_wanted(const QString& arrangement);
    void recover_wanted(const vernal::LeftBehind& left);

private:
    void add_demos(QVBoxLayout* box, const QString& demo);
};

} // namespace vernal
