#include "curve_shelf.h"

#include "files/curve_file.h"

#include <algorithm>

namespace vernal {

CurveShelf::CurveShelf(const QString& own_file, QObject* parent) : QObject(parent), own_file_(own_file) { load(); }

void CurveShelf::load()
{
    const auto all = all_curves(own_file_.toStdString());
    book_ = all ? *all : shipped_curves();
    trouble_ = all ? QString() : QString::fromStdString(all.error().text());
}

QString CurveShelf::keep(NamedCurve curve)
{
    const auto done = add_own_curve(curve, own_file_.toStdString());
    if (!done)
        return QString::fromStdString(done.error().text());
    load();
    emit changed();
    return {};
}

int CurveShelf::find(const ProbeCurve& curve) const
{
    const auto it = std::find_if(book_.begin(), book_.end(), [&](const NamedCurve& c) { return c.curve == curve; });
    return it == book_.end() ? -1 : static_cast<int>(it - book_.begin());
}

QString CurveShelf::title(const ProbeCurve& curve) const
{
    for (const NamedCurve& c : book_)
        if (c.curve.law == curve.law)
            return QString::fromStdString(c.name);
    if (const auto* beta = std::get_if<NtcBetaCurve>(&curve.law))
        return tr("NTC %1 kΩ, B %2").arg(beta->r25_ohm / 1000, 0, 'g', 3).arg(beta->beta_k, 0, 'f', 0);
    static const QString kinds[] = {tr("Platinum"), tr("NTC"), tr("NTC, three terms"), tr("By table"), tr("Polynomial"), tr("Straight signal")};
    return kinds[curve.law.index()];
}

} // namespace vernal
