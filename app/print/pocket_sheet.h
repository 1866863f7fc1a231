// The pocket chart as one printed page.
#pragma once

#include "core/wording/pocket_chart.h"

#include <QString>

class QPagedPaintDevice;

namespace vernal {

// Fills one page. False: the device cannot be painted on.
bool paint_pocket_chart(QPagedPaintDevice& device, const PocketChart& chart, const QString& title);

// .pdf or .csv by the name's ending. The reason where it cannot be written; empty: done.
QString write_pocket_chart(const QString& path, const PocketChart& chart, const QString& title);

} // namespace vernal
