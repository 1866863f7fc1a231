#include "strip.h"

#include "app/widgets/cursor_clock.h"
#include "app/widgets/elided.h"
#include "core/units/instant_text.h"
#include "core/wording/why.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>

namespace vernal {
namespace {

constexpr int head_px = 34, normal_px = 208, tall_px = 400;

QString with_sign(double v, const QString& size) { return (v < 0 ? QStringLiteral("−") : QStringLiteral("+")) + size; }

} // namespace

QString figures_line(const Outcome& o, const Units& u)
{
    if (o.error)
        return qs(o.error->text());
    const QString dot = QStringLiteral("  ·  ");
    if (o.is_replay()) {
        const ReplayResult& r = *o.replay;
        return QObject::tr("replay: decisions, not heat") + dot + QObject::tr("%1 starts by the rules, %2 in the log").arg(r.by_rules[0].starts).arg(r.recorded[0].starts) + dot +
               QObject::tr("%1 disagreements, %2").arg(r.disagreements.size()).arg(text(r.disagree_s, Quantity::minutes, u));
    }
    const Figures& f = o.coupled.figures;
    if (!arrangement_of(o.variant.loop).pumped()) // no pump, no starts
        return QObject::tr("%1 to store").arg(text(f.heat.to_store, Quantity::energy, u)) + dot + QObject::tr("%1 backup").arg(text(f.heat.backup(), Quantity::energy, u)) + dot + QObject::tr("store up to %1").arg(text(f.highest_store_c, Quantity::temperature, u));
    return QObject::tr("%1 to store").arg(text(f.heat.to_store, Quantity::energy, u)) + dot + QObject::tr("%1 pump").arg(text(f.pump_energy_j, Quantity::electricity, u)) + dot +
           (f.starts() == 1 ? QObject::tr("1 start") : QObject::tr("%1 starts").arg(f.starts())) + dot + QObject::tr("first %1").arg(qs(instant_text(f.pumps[0].first_start_s)));
}

QString against_line(const Outcome& o, const Verdict& v, const Units& u)
{
    if (!v.baseline_figures || !o.figures())
        return {};
    const double heat = o.figures()->heat.to_store - v.baseline_figures->heat.to_store;
    if (!arrangement_of(o.variant.loop).pumped())
        return QObject::tr("against “%1”: %2").arg(qs(v.baseline_name), with_sign(heat, text(std::fabs(heat), Quantity::energy, u)));
    const int starts = o.figures()->starts() - v.baseline_figures->starts();
    return QObject::tr("against “%1”: %2, %3").arg(qs(v.baseline_name), with_sign(heat, text(std::fabs(heat), Quantity::energy, u)), with_sign(starts, QObject::tr("%1 starts").arg(std::abs(starts))));
}

Strip::Strip(Session& session, QWidget* parent) : QFrame(parent), session_(session)
{
    setObjectName("strip");
    auto* head = new QHBoxLayout;
    day_ = new QComboBox;
    day_->setObjectName("stripDay");
    day_->setAccessibleName(tr("Day"));
    figures_ = new Elided; // words give way before controls do
    figures_->setObjectName("stripFigures");
    against_ = new Elided;
    against_->setObjectName("good");
    idle_ = new QLabel;
    idle_->setObjectName("stripIdle");
    idle_->hide();
    clock_ = new CursorClock(session);
    head->setContentsMargins(0, 0, 0, 0);
    head->setSpacing(8);
    head->addWidget(day_);
    head->addWidget(clock_);
    head->addWidget(idle_);
    head->addWidget(figures_, 1);
    head->addWidget(against_);
    auto* heights = new QHBoxLayout;
    heights->setSpacing(0);
    for (const auto& [sign, name, h] : {std::tuple("▁", tr("Lanes only"), Height::lanes), std::tuple("▄", tr("Usual height"), Height::normal), std::tuple("█", tr("Tall"), Height::tall)}) {
        auto* b = new QPushButton(QString::fromUtf8(sign));
        b->setObjectName("quiet");
        b->setCheckable(true);
        b->setFixedSize(28, 32);
        b->setAccessibleName(tr("Day strip: %1").arg(name));
        b->setToolTip(name + tr("  (F3 for the next)"));
        connect(b, &QPushButton::clicked, this, [this, wanted = h] { emit height_wanted(wanted); });
        heights->addWidget(b);
        heights_.append(b);
    }
    head->addLayout(heights);
    chart_ = new DayChart(session, false);
    setProperty("pane", true);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(12, 1, 6, 1);
    box->setSpacing(0);
    box->addLayout(head);
    box->addWidget(chart_, 1);
    show_height(Height::normal);
    connect(day_, &QComboBox::activated, this, [this](int i) { session_.document().choose_day(static_cast<std::size_t>(i)); });
    connect(&session_.document(), &Document::changed, this, &Strip::show_days);
    connect(&session_.document(), &Document::view_changed, this, &Strip::show_days);
    for (auto signal : {&Session::outcome_changed, &Session::verdict_changed, &Session::units_changed})
        connect(&session_, signal, this, &Strip::show_figures);
    show_days();
}

void Strip::show_height(Height h)
{
    height_ = h;
    for (qsizetype i = 0; i < heights_.size(); ++i)
        heights_[i]->setChecked(i == static_cast<qsizetype>(h));
    chart_->show_lanes_only(h == Height::lanes);
}

int Strip::wanted_px(Height h) const
{
    return h == Height::lanes ? head_px + chart_->lanes_height() + 6 : h == Height::normal ? normal_px
                                                                                           : tall_px;
}

void Strip::show_days()
{
    const auto& days = session_.document().job().days;
    bool same = static_cast<std::size_t>(day_->count()) == days.size();
    for (std::size_t i = 0; same && i < days.size(); ++i)
        same = day_->itemText(static_cast<int>(i)) == qs(days[i].name);
    if (!same) {
        day_->clear();
        for (const Day& d : days)
            day_->addItem(qs(d.name));
    }
    day_->setCurrentIndex(static_cast<int>(session_.document().day_index()));
}

void Strip::show_figures()
{
    const auto& o = session_.outcome();
    if (!o)
        return;
    figures_->setText(figures_line(*o, session_.units()));
    figures_->setToolTip(figures_->text());
    against_->setText(against_line(*o, session_.verdict(), session_.units()));
    QStringList idle;
    for (const OutOfAction& rule : o->out_of_action)
        idle << qs(out_of_action_text(o->variant.unit, rule));
    idle_->setText(idle.size() == 1 ? tr("out of action: %1").arg(qs(kind_of(o->variant.unit.rules[o->out_of_action[0].rule]).title)) : tr("%n rules out of action", nullptr, static_cast<int>(idle.size())));
    idle_->setToolTip(idle.join('\n'));
    idle_->setAccessibleDescription(idle_->toolTip());
    idle_->setVisible(!idle.isEmpty());
}

} // namespace vernal
