#include "probe_budget_page.h"

#include "app/shell/theme.h"

#include <QComboBox>
#include <QPainter>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>
#include <numeric>

namespace vernal {
namespace {

constexpr double margin_left = 92, margin_right = 24, row_px = 58, top_px = 34, cause_px = 26;
constexpr NumberField budget_store{"store_c", "Store", Quantity::temperature, 0, 120, "Errors grow with temperature: look at a cold and a hot tank"};
constexpr NumberField air_field{"air_c", "Air outdoors", Quantity::temperature, -40, 60, ""};

} // namespace

BudgetChart::BudgetChart(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    setObjectName("budgetChart");
    setAccessibleName(tr("Set and real switching points"));
    setMinimumSize(180, 260);
}

void BudgetChart::set(const std::optional<RealPoints>& points)
{
    points_ = points;
    if (points_) {
        low_k_ = 0;
        high_k_ = 1;
        for (const Budget* b : {&points_->on, &points_->off}) {
            low_k_ = std::min({low_k_, b->real_k() - b->worst_k, b->set_k});
            high_k_ = std::max({high_k_, b->real_k() + b->worst_k, b->set_k});
        }
        const double room = 0.08 * (high_k_ - low_k_);
        low_k_ -= room;
        high_k_ += room;
    }
    update();
}

double BudgetChart::x_of(double k) const { return margin_left + (k - low_k_) / (high_k_ - low_k_) * (width() - margin_left - margin_right); }

void BudgetChart::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    p.fillRect(rect(), theme().card);
    if (!points_) {
        p.setPen(theme().second_ink);
        p.drawText(rect(), Qt::AlignCenter, tr("No difference rule: add one at the Rules station."));
        return;
    }
    paint_axis(p);
    paint_point(p, points_->on, top_px + 22, tr("Start"), theme().accent);
    paint_point(p, points_->off, top_px + 22 + row_px, tr("Stop"), theme().start);
    paint_causes(p, top_px + 2 * row_px + 46);
}

void BudgetChart::paint_axis(QPainter& p) const
{
    const Theme& t = theme();
    const Units& u = session_.units();
    const double bottom = top_px + 2 * row_px + 8;
    const double span = to_display(high_k_ - low_k_, Quantity::difference, u);
    const double step = span > 24 ? 4 : span > 12 ? 2
                                    : span > 5    ? 1
                                                  : 0.5;
    p.setFont(text_font(13));
    for (double shown = std::ceil(to_display(low_k_, Quantity::difference, u) / step) * step; shown <= to_display(high_k_, Quantity::difference, u); shown += step) {
        const double x = x_of(from_display(shown, Quantity::difference, u));
        const bool zero = std::fabs(shown) < 1e-9;
        p.setPen(QPen(zero ? t.second_ink : t.hairline, zero ? 1.6 : 1));
        p.drawLine(QPointF(x, top_px - 6), QPointF(x, bottom));
        p.setPen(t.second_ink);
        p.drawText(QRectF(x - 26, bottom + 2, 52, 18), Qt::AlignCenter, QString::number(shown, 'f', step < 1 ? 1 : 0).replace('-', QStringLiteral("−")));
    }
    p.setFont(text_font(13));
    const auto& probes = session_.document().variant().probes;
    p.drawText(QRectF(6, 4, width() - 12, 18), Qt::AlignLeft, tr("real difference, %1 above %2, %3").arg(qs(probes[points_->source].name), qs(probes[points_->store].name).toLower(), qs(unit_name(Quantity::difference, u))));
}

// Open mark and line: set. Filled diamond: where it really is, as far as the
// errors are known; thick bar ± root of squares, thin line ± worst.
void BudgetChart::paint_point(QPainter& p, const Budget& b, double y, const QString& name, const QColor& colour) const
{
    const Theme& t = theme();
    p.setFont(text_font(14, true));
    p.setPen(colour);
    p.drawText(QRectF(6, y - 12, margin_left - 12, 24), Qt::AlignLeft | Qt::AlignVCenter, name);
    const double real = x_of(b.real_k());
    p.setPen(QPen(colour, 2));
    p.drawLine(QPointF(x_of(b.real_k() - b.worst_k), y), QPointF(x_of(b.real_k() + b.worst_k), y));
    for (double end : {-b.worst_k, b.worst_k})
        p.drawLine(QPointF(x_of(b.real_k() + end), y - 7), QPointF(x_of(b.real_k() + end), y + 7));
    QColor fill = colour;
    fill.setAlpha(70);
    p.setBrush(fill);
    p.drawRect(QRectF(QPointF(x_of(b.real_k() - b.rss_k), y - 8), QPointF(x_of(b.real_k() + b.rss_k), y + 8)));
    p.setBrush(colour);
    p.drawPolygon(QPolygonF{{QPointF(real, y - 7), QPointF(real + 7, y), QPointF(real, y + 7), QPointF(real - 7, y)}});
    const double set = x_of(b.set_k);
    p.setPen(QPen(t.ink, 2, Qt::DotLine));
    p.drawLine(QPointF(set, y - 20), QPointF(set, y + 20));
    p.setFont(text_font(13));
    p.setPen(t.ink);
    const QString words = tr("set %1").arg(text(b.set_k, Quantity::difference, session_.units()));
    const double wide = p.fontMetrics().horizontalAdvance(words) + 8;
    const QRectF box(std::min(set - wide / 2, width() - wide - 4.0), y + 19, wide, 18);
    p.fillRect(box, t.card);
    p.drawText(box, Qt::AlignCenter, words);
}

void BudgetChart::paint_causes(QPainter& p, double top) const
{
    const Theme& t = theme();
    const Budget& b = points_->on;
    std::array<std::size_t, error_causes> order{};
    std::iota(order.begin(), order.end(), std::size_t{0});
    const auto size = [&](std::size_t i) { return std::fabs(b.lines[i].known_k()) + b.lines[i].worst_k(); };
    std::stable_sort(order.begin(), order.end(), [&](std::size_t i, std::size_t k) { return size(i) > size(k); });
    const double most = std::max(1e-6, size(order.front())), wide = (width() - margin_left - margin_right) * 0.42;
    p.setFont(text_font(13, true));
    p.setPen(t.second_ink);
    p.drawText(QPointF(6, top), tr("Where it comes from, at the start"));
    double y = top + 12;
    for (std::size_t i : order) {
        if (y + cause_px > height())
            return;
        const BudgetLine& l = b.lines[i];
        p.setFont(text_font(13));
        p.setPen(size(i) > 0 ? t.ink : t.second_ink);
        p.drawText(QRectF(6, y, margin_left, cause_px), Qt::AlignLeft | Qt::AlignVCenter, tr(cause_text(static_cast<ErrorCause>(i))));
        const double known = std::fabs(l.known_k()) / most * wide, unknown = l.worst_k() / most * wide;
        p.setPen(Qt::NoPen);
        p.setBrush(t.caution);
        p.drawRect(QRectF(margin_left + 12, y + 7, known, cause_px - 14));
        p.setBrush(QBrush(t.accent, Qt::Dense5Pattern));
        p.drawRect(QRectF(margin_left + 12 + known, y + 7, unknown, cause_px - 14));
        QStringList words;
        if (l.known_k() != 0)
            words << tr("reads %1 off").arg(text(l.known_k(), Quantity::small_difference, session_.units()));
        if (l.worst_k() != 0)
            words << tr("± %1").arg(text(l.worst_k(), Quantity::small_difference, session_.units()));
        p.setPen(size(i) > 0 ? t.ink : t.second_ink);
        p.drawText(QRectF(margin_left + 20 + known + unknown, y, 240, cause_px), Qt::AlignLeft | Qt::AlignVCenter, words.isEmpty() ? tr("none, or not stated") : words.join(QStringLiteral(", ")));
        y += cause_px;
    }
}

ProbeBudgetPage::ProbeBudgetPage(Session& session, const std::size_t& shown) : ProbePageView(session, shown)
{
    chart_ = new BudgetChart(session);
    auto* column = beside(*this, chart_);
    column->addWidget(heading(tr("Drawn up for")));
    auto* sheet = new FieldSheet(session);
    rule_ = choice_row(*sheet, QStringLiteral("budgetRule"), tr("Rule"), {}, [this](int) { refresh(); });
    store_ = new NumberEdit(session_, budget_store);
    air_ = new NumberEdit(session_, air_field);
    for (const auto& [name, edit, value, field] : {std::tuple{"budget.store", store_, 40.0, &budget_store}, {"budget.air", air_, 15.0, &air_field}}) {
        edit->setObjectName(QLatin1String(name));
        edit->set_value(value);
        edit->stand_in_row();
        sheet->add(QString::fromUtf8(field->label), edit);
        connect(edit, &NumberEdit::edited, this, [this] { refresh(); });
    }
    column->addWidget(sheet);
    words_ = new QLabel;
    words_->setObjectName("budgetWords");
    words_->setWordWrap(true);
    words_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    column->addWidget(words_);
    column->addWidget(remark(tr("The dotted line is what is set. The diamond is the real difference there, as far as the errors are known. Bar: root of the sum of squares. Thin line: all at their worst, the same way at once.")));
    column->addStretch(1);
}

std::size_t ProbeBudgetPage::rule() const
{
    const int i = rule_->currentIndex();
    return i >= 0 && static_cast<std::size_t>(i) < rules_.size() ? rules_[static_cast<std::size_t>(i)] : variant().unit.rules.size();
}

void ProbeBudgetPage::refresh()
{
    const int before = rule_->currentIndex();
    rule_->clear();
    rules_.clear();
    for (std::size_t i = 0; i < variant().unit.rules.size(); ++i)
        if (const auto d = difference_of(variant().unit, variant().unit.rules[i])) {
            rules_.push_back(i);
            rule_->addItem(tr("%1: %2 − %3").arg(qs(variant().unit.rules[i].output), qs(d->source), qs(d->store)));
        }
    rule_->setCurrentIndex(std::clamp(before, rules_.empty() ? -1 : 0, static_cast<int>(rules_.size()) - 1));
    const auto points = real_points(variant(), rule(), {store_->value(), air_->value()});
    chart_->set(points);
    const Units& u = session_.units();
    const auto line = [&](const QString& what, const Budget& b) {
        return tr("%1 set to %2: really %3 ± %4, at worst ± %5.").arg(what, text(b.set_k, Quantity::difference, u), text(b.real_k(), Quantity::small_difference, u), text(b.rss_k, Quantity::small_difference, u), text(b.worst_k, Quantity::small_difference, u));
    };
    words_->setText(points ? line(tr("Start"), points->on) + QStringLiteral("\n\n") + line(tr("Stop"), points->off) : QString());
}

} // namespace vernal
