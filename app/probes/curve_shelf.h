// The curves a person can choose from: the shipped ones and their own file.
#pragma once

#include "core/probe/identify.h"

#include <QObject>
#include <QString>

namespace vernal {

class CurveShelf : public QObject {
    Q_OBJECT
public:
    explicit CurveShelf(const QString& own_file, QObject* parent = nullptr);
    const CurveBook& book() const { return book_; }
    QString trouble() const { return trouble_; } // why the own file is not in use; empty: it is, or there is none
    QString own_file() const { return own_file_; }
    // The reason where it cannot be kept; empty: kept.
    QString keep(NamedCurve curve);
    // Entry with just this curve; −1: none.
    int find(const ProbeCurve& curve) const;
    // A short name: of the entry with this law, whatever its range, else of the law itself.
    QString title(const ProbeCurve& curve) const;

signals:
    void changed();

private:
    void load();
    QString own_file_, trouble_;
    CurveBook book_;
};

} // namespace vernal
