#include "wire_now.h"

#include "app/bench/bench_parts.h"
#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "core/units/exact_text.h"

#include <QCheckBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include <cmath>

namespace vernal {
namespace {

constexpr std::array mode_words{"OFF", "AUTO", "ON"};

QString name_of(const MapRegister& r, const Variant& v)
{
    switch (r.is) {
    case RegisterIs::supply: return WireNow::tr("Supply");
    case RegisterIs::live: return WireNow::tr("%1 is").arg(qs(r.of));
    case RegisterIs::speed: return WireNow::tr("%1, speed").arg(qs(r.of));
    case RegisterIs::watt: return WireNow::tr("%1, power").arg(qs(r.of));
    case RegisterIs::mode: return WireNow::tr("%1, switch").arg(qs(r.of));
    default: break;
    }
    for (const Probe& p : v.probes)
        if (p.key == r.of)
            return qs(r.of) + QLatin1Char(' ') + QString::fromUtf8(place_names[static_cast<std::size_t>(p.place)]);
    return qs(r.of);
}

QString value_text(const RegisterMap& map, const MapRegister& r, const WireImage& image, const Units& u)
{
    const auto raw = image.raw(map, r);
    if (!raw)
        return QStringLiteral("–");
    if (r.is == RegisterIs::live)
        return *raw != 0 ? WireNow::tr("on") : WireNow::tr("off");
    if (r.is == RegisterIs::mode) {
        const auto m = mode_of(r, *raw);
        return m ? QLatin1String(mode_words[static_cast<std::size_t>(*m)]) : WireNow::tr("unknown");
    }
    const double x = value_of(map, r, image, quantity_of(r));
    return std::isnan(x) ? WireNow::tr("no reading") : text(x, quantity_of(r), u);
}

} // namespace

WireNow::WireNow(Session& session, WireLink& link, QWidget* parent) : QWidget(parent), session_(session), link_(link)
{
    table_ = bench_table("wireReadings", tr("What the unit reads and does"), {tr("Now"), tr("Value"), tr("Number"), tr("Register")}, 0);
    nothing_ = remark(tr("Join a unit: then stand here what it reads and does and its switches, beside it how it is set against the variant in hand, and its log can be taken over.\n\nNo unit at hand? Start a stand-in: it answers as this variant's unit would, and can be made to fail."));
    arm_ = new QCheckBox(tr("Armed: it can be written to"));
    arm_->setObjectName(QStringLiteral("wireArm"));
    off_ = new QPushButton(tr("All outputs OFF   F9"));
    off_->setObjectName(QStringLiteral("wireAllOff"));
    off_->setToolTip(tr("At once, armed or not. Leaving returns them to AUTO."));
    off_->setMinimumHeight(38);
    caution_ = wrapped_label("wireCaution");
    switches_ = new QGridLayout;
    switches_->setContentsMargins(0, 0, 0, 0);
    auto* keys = new QHBoxLayout;
    keys->addWidget(arm_, 1);
    keys->addWidget(off_);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(6);
    box->addWidget(heading(tr("What it reads and does")));
    box->addWidget(nothing_);
    box->addWidget(table_, 1);
    rest_ = new QWidget;
    box->addWidget(rest_, 1);
    box->addLayout(switches_);
    box->addLayout(keys);
    box->addWidget(caution_);
    connect(arm_, &QCheckBox::clicked, this, [this](bool on) { link_.arm(on); });
    connect(off_, &QPushButton::clicked, &link_, &WireLink::all_off);
    connect(&link, &WireLink::changed, this, &WireNow::show_now);
    connect(&session, &Session::units_changed, this, &WireNow::show_now);
    show_now();
}

// Where there is little room the raw number goes first: it stands in what is written all the same.
void WireNow::resizeEvent(QResizeEvent* e)
{
    QWidget::resizeEvent(e);
    constexpr int wide_px = 430, number = 2;
    table_->setColumnHidden(number, width() < wide_px);
}

void WireNow::lay_out()
{
    laid_out_ = link_.map();
    clear_layout(switches_);
    rows_.clear();
    int rows = 0;
    for (const MapRegister& r : laid_out_.registers) {
        rows += !of_rule(r.is);
        if (r.is != RegisterIs::mode)
            continue;
        Switch s{r.of, new QLabel, {}};
        const int row = static_cast<int>(rows_.size());
        switches_->addWidget(new QLabel(tr("Switch of %1").arg(qs(r.of))), row, 0);
        switches_->addWidget(s.stands, row, 1);
        for (std::size_t m = 0; m < mode_words.size(); ++m) {
            auto* b = s.to[m] = new QPushButton(QLatin1String(mode_words[m]));
            b->setObjectName(QStringLiteral("wire.%1.%2").arg(qs(r.of), QLatin1String(mode_words[m])));
            b->setAccessibleName(tr("Switch of %1 to %2").arg(qs(r.of), QLatin1String(mode_words[m])));
            switches_->addWidget(b, row, static_cast<int>(m) + 2);
            connect(b, &QPushButton::clicked, this, [this, of = r.of, m] {
                if (const auto w = mode_write(link_.map(), link_.image(), of, static_cast<Mode>(m)))
                    emit asked({*w});
            });
        }
        switches_->setColumnStretch(1, 1);
        rows_.push_back(s);
    }
    table_->setRowCount(rows);
    for (int row = 0; row < rows; ++row)
        for (int c = 0; c < table_->columnCount(); ++c)
            table_->setItem(row, c, new QTableWidgetItem);
}

void WireNow::fill_row(int row, const MapRegister& r)
{
    const auto raw = link_.image().raw(laid_out_, r);
    const QString cells[] = {name_of(r, session_.document().variant()), value_text(laid_out_, r, link_.image(), session_.units()), raw ? qs(exact_text(*raw)) : QStringLiteral("–"), QStringLiteral("%1 %2").arg(QLatin1String(table_keys[static_cast<std::size_t>(r.table)])).arg(r.address)};
    for (int c = 0; c < table_->columnCount(); ++c)
        if (QTableWidgetItem* item = table_->item(row, c); item->text() != cells[c])
            item->setText(cells[c]);
    const bool stale = link_.state() != WireLink::State::joined;
    table_->item(row, 1)->setForeground(stale ? theme().second_ink : theme().ink);
}

void WireNow::show_now()
{
    const bool apart = link_.state() == WireLink::State::apart, joined = link_.state() == WireLink::State::joined;
    if (!(laid_out_ == link_.map()) || (rows_.empty() && !link_.map().registers.empty()))
        lay_out();
    nothing_->setVisible(apart);
    table_->setVisible(!apart);
    rest_->setVisible(apart);
    int row = 0;
    for (const MapRegister& r : laid_out_.registers)
        if (!of_rule(r.is) && !apart)
            fill_row(row++, r);
    for (const Switch& s : rows_) {
        std::optional<Mode> stands;
        for (const MapRegister& r : laid_out_.registers)
            if (const auto raw = link_.image().raw(laid_out_, r); r.is == RegisterIs::mode && r.of == s.output && raw)
                stands = mode_of(r, *raw);
        const bool ours = link_.forced().count(s.output) != 0;
        s.stands->setText(!stands ? QStringLiteral("–") : QLatin1String(mode_words[static_cast<std::size_t>(*stands)]) + (ours ? tr(", put there from here") : QString()));
        for (std::size_t m = 0; m < s.to.size(); ++m)
            s.to[m]->setEnabled(joined && link_.armed() && stands != static_cast<Mode>(m));
    }
    for (int i = 0; i < switches_->count(); ++i)
        if (QWidget* w = switches_->itemAt(i)->widget())
            w->setVisible(!apart);
    arm_->setEnabled(joined);
    arm_->setChecked(link_.armed());
    off_->setEnabled(joined);
    arm_->setVisible(!apart);
    off_->setVisible(!apart);
    caution_->setVisible(!apart);
    caution_->setText(link_.armed() ? in_colour(theme().caution, tr("Armed. A pump, a valve or an element moves by what is written: somebody stands at it. A switch over the wire is no isolation: before hands go to it, its supply is cut and locked by whoever is licensed for it.")) : tr("Read-only. Nothing is written until it is armed, except by the key for all outputs."));
}

} // namespace vernal
