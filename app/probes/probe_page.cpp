#include "probe_page.h"

#include "app/shell/theme.h"
#include "app/widgets/sum_box.h"

#include <QHBoxLayout>
#include <QScrollArea>
#include <QVBoxLayout>

namespace vernal {

ProbePageView::ProbePageView(Session& session, const std::size_t& shown, QWidget* parent) : QWidget(parent), session_(session), shown_(shown) {}

void ProbePageView::bring_up_to_date()
{
    if (isVisible())
        refresh();
}

void ProbePageView::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    refresh();
}

void ProbePageView::edit(const QString& label, const std::function<void(Probe&)>& change, const QString& merge_key)
{
    session_.document().edit_variant(
        label, [&, i = index()](Variant& v) { change(v.probes[i]); }, merge_key.isEmpty() ? merge_key : merge_key + QString::number(index()));
}

void ProbePageView::set(const QString& label, const std::string& key, double to) { session_.document().set(label, "probe/" + probe().id + "/" + key, to); }

void ProbePageView::show_sums(QVBoxLayout& box, ProbePage page)
{
    const std::string now = variant().name + "/" + probe().key + "/" + signal_unit(probe().curve);
    if (now == sums_of_) {
        for (SumBox* sum : findChildren<SumBox*>())
            sum->refresh();
        return;
    }
    sums_of_ = now;
    clear_layout(&box);
    for (const FieldSum* sum : sums_on(page))
        box.addWidget(new SumBox(session_, *sum, Part::collector, index()));
}

QVBoxLayout* beside(QWidget& page, QWidget* main)
{
    auto* row = new QHBoxLayout(&page);
    row->setContentsMargins(0, 6, 0, 0);
    row->setSpacing(10);
    auto* frame = new QFrame;
    frame->setObjectName("card");
    auto* inside = new QVBoxLayout(frame);
    inside->setContentsMargins(4, 4, 4, 4);
    inside->addWidget(main);
    row->addWidget(frame, 1);
    auto* panel = new QFrame;
    panel->setObjectName("card");
    auto* column = new QVBoxLayout(panel);
    column->setSpacing(6);
    QScrollArea* side = side_scroll(panel, 304);
    side->setMinimumWidth(268); // in a small window it gives way to the main view
    row->addWidget(side);
    return column;
}

void style_axes(QCPAxisRect& rect)
{
    const Theme& t = theme();
    rect.setBackground(QBrush(t.card));
    for (QCPAxis* a : rect.axes()) {
        a->setTickLabelFont(text_font(13));
        a->setLabelFont(text_font(13));
        a->setLabelColor(t.second_ink);
        a->setTickLabelColor(t.second_ink);
        a->setBasePen(QPen(t.hairline));
        a->setTickPen(QPen(t.hairline));
        a->setSubTickPen(Qt::NoPen);
        const QColor line = t.glare ? QColor(0xBB, 0xBB, 0xBB) : t.hairline;
        a->grid()->setPen(QPen(line));
        a->grid()->setZeroLinePen(QPen(a->orientation() == Qt::Vertical ? t.second_ink : line));
        a->setNumberFormat(QStringLiteral("gb"));
        a->setNumberPrecision(6);
    }
}

void style_plot(QCustomPlot& plot)
{
    plot.setBackground(QBrush(theme().card));
    for (QCPAxisRect* r : plot.axisRects())
        style_axes(*r);
}

QCPAxisRect* plot_below(QCustomPlot& plot)
{
    auto* rect = new QCPAxisRect(&plot);
    plot.plotLayout()->addElement(1, 0, rect);
    plot.plotLayout()->setRowStretchFactor(1, 0.55);
    rect->axis(QCPAxis::atLeft)->ticker()->setTickCount(3); // it is low
    auto* group = new QCPMarginGroup(&plot);
    for (QCPAxisRect* r : {plot.axisRect(), rect})
        r->setMarginGroup(QCP::msLeft | QCP::msRight, group);
    QObject::connect(plot.xAxis, qOverload<const QCPRange&>(&QCPAxis::rangeChanged), rect->axis(QCPAxis::atBottom), qOverload<const QCPRange&>(&QCPAxis::setRange));
    for (QCPAxis* a : rect->axes())
        a->setLayer(QStringLiteral("grid"));
    return rect;
}

} // namespace vernal
