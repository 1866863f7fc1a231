#include "pocket_sheet.h"

#include "app/shell/theme.h"
#include "files/disk.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QPainter>
#include <QPdfWriter>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

QString tr(const char* s) { return QCoreApplication::translate("PocketSheet", s); }

// Drawn in points of a page 540 wide; the painter is scaled to the paper.
constexpr double page_w = 540, head_h = 64, foot_h = 34;

class ChartSheet {
public:
    ChartSheet(QPainter& p, const PocketChart& chart, double height) : p_(p), chart_(chart), rows_per_side_((chart.rows.size() + 1) / 2)
    {
        row_h_ = std::min(17.0, (height - head_h - foot_h - heading_h()) / static_cast<double>(std::max<std::size_t>(1, rows_per_side_)));
    }

    void paint(const QString& title, double height)
    {
        p_.setPen(Qt::black);
        p_.setFont(text_font(17, true));
        p_.drawText(QRectF(0, 0, page_w, 24), Qt::AlignLeft, tr("Pocket chart: %1").arg(title));
        p_.setFont(text_font(9));
        p_.drawText(QRectF(0, 26, page_w, 34), Qt::AlignLeft | Qt::TextWordWrap, tr("Disconnect the probe from the unit before measuring: its input reads in parallel. Allow for the meter's own error. Bold rows are round °F."));
        side(0, 0, std::min(rows_per_side_, chart_.rows.size()));
        side(page_w / 2 + 8, rows_per_side_, chart_.rows.size());
        p_.setFont(text_font(9));
        p_.drawText(QRectF(0, height - foot_h + 8, page_w, foot_h), Qt::AlignLeft | Qt::TextWordWrap, legend());
    }

private:
    double heading_h() const { return 20; }
    double column_w() const { return (page_w / 2 - 8 - 2 * 46) / static_cast<double>(std::max<std::size_t>(1, chart_.columns.size())); }

    // Columns carry letters; the foot says which probes they are.
    QString legend() const
    {
        QStringList out;
        for (std::size_t i = 0; i < chart_.columns.size(); ++i)
            out << QStringLiteral("%1: %2 (%3)").arg(QChar(static_cast<char16_t>(u'A' + i)), QString::fromStdString(chart_.columns[i].title), QString::fromStdString(curve_text(chart_.columns[i].curve)));
        return out.join(QStringLiteral("    "));
    }

    void cell(double x, double y, double w, const QString& s) { p_.drawText(QRectF(x, y, w - 4, row_h_), Qt::AlignRight | Qt::AlignVCenter, s); }

    void side(double x, std::size_t from, std::size_t to)
    {
        double y = head_h;
        p_.setFont(text_font(9, true));
        cell(x, y, 46, QStringLiteral("°C"));
        cell(x + 46, y, 46, QStringLiteral("°F"));
        for (std::size_t c = 0; c < chart_.columns.size(); ++c)
            cell(x + 92 + static_cast<double>(c) * column_w(), y, column_w(), QStringLiteral("%1, %2").arg(QChar(static_cast<char16_t>(u'A' + c))).arg(QString::fromStdString(chart_.columns[c].unit)));
        y += heading_h();
        for (std::size_t i = from; i < to; ++i, y += row_h_)
            row(x, y, chart_.rows[i]);
    }

    void row(double x, double y, const PocketRow& r)
    {
        const double f = Temperature::celsius(r.temp_c).in_fahrenheit();
        const bool round_f = std::fabs(f / 10 - std::round(f / 10)) < 1e-6;
        p_.setPen(QPen(QColor(0xC8, 0xC8, 0xC8), 0.4));
        p_.drawLine(QPointF(x, y + row_h_), QPointF(x + page_w / 2 - 8, y + row_h_));
        p_.setPen(Qt::black);
        p_.setFont(text_font(std::min(10.0, row_h_ * 0.72), round_f));
        const auto number = [](double v) { return QString::number(v, 'f', std::fabs(v - std::round(v)) < 0.05 ? 0 : 1).replace('-', QStringLiteral("−")); };
        cell(x, y, 46, number(r.temp_c));
        cell(x + 46, y, 46, number(f));
        for (std::size_t c = 0; c < r.signal.size(); ++c)
            cell(x + 92 + static_cast<double>(c) * column_w(), y, column_w(), QString::fromStdString(signal_text(r.signal[c])));
    }

    QPainter& p_;
    const PocketChart& chart_;
    std::size_t rows_per_side_;
    double row_h_ = 12;
};

} // namespace

bool paint_pocket_chart(QPagedPaintDevice& device, const PocketChart& chart, const QString& title)
{
    QPainter p;
    if (!p.begin(&device))
        return false;
    const double scale = device.width() / page_w, height = device.height() / scale;
    p.scale(scale, scale);
    ChartSheet(p, chart, height).paint(title, height);
    return p.end();
}

QString write_pocket_chart(const QString& path, const PocketChart& chart, const QString& title)
{
    const QString ending = QFileInfo(path).suffix().toLower();
    if (ending == QLatin1String("csv")) {
        const auto done = write_file_atomically(path.toStdString(), pocket_csv(chart));
        return done ? QString() : QString::fromStdString(done.error().text());
    }
    if (ending != QLatin1String("pdf"))
        return tr("Give the chart a name that ends in .pdf or .csv.");
    if (!QFileInfo(QFileInfo(path).path()).isWritable())
        return tr("The chart could not be written to %1. Choose a folder you may write to.").arg(path);
    QPdfWriter pdf(path);
    pdf.setTitle(title);
    return paint_pocket_chart(pdf, chart, title) ? QString() : tr("The chart could not be written to %1.").arg(path);
}

} // namespace vernal
