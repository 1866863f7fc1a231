#include "audit_sheet.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "core/setup/job_setup.h"
#include "core/units/in_units.h"

#include <QDate>
#include <QHBoxLayout>
#include <QLabel>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace vernal {

namespace {

QString of_measure(double x, SeasonMeasure m)
{
    switch (m) {
    case SeasonMeasure::first_start_h: return qs(clock_text(x * 3600));
    case SeasonMeasure::heat_per_sun: return QStringLiteral("%1 %").arg(100 * x, 0, 'f', 0);
    default: return QStringLiteral("%1 %2").arg(x, 0, 'f', 1).arg(QString::fromUtf8(season_measure(m).unit)).trimmed();
    }
}

QString heating_text(const FoundHeating& h, const Variant& v, const Units& u)
{
    QStringList parts;
    const auto points = [&](const Estimate& e) { return QObject::tr("%1 (%2 to %3, %n points)", nullptr, static_cast<int>(e.points)).arg(text(e.value, Quantity::temperature, u), text(e.low, Quantity::temperature, u), text(e.high, Quantity::temperature, u)); };
    if (h.on_c)
        parts << QObject::tr("on at %1").arg(points(*h.on_c));
    if (h.off_c)
        parts << QObject::tr("off at %1").arg(points(*h.off_c));
    for (const FoundHeating::Window& w : h.windows)
        parts << QObject::tr("on between %1 and %2").arg(qs(clock_text(w.from_h * 3600)), qs(clock_text(w.to_h * 3600)));
    return QObject::tr("%1 heats by the %2: %3.").arg(qs(v.unit.outputs[h.output].key), qs(v.probes[h.probe].name), parts.isEmpty() ? QObject::tr("it was not switched") : parts.join(QStringLiteral("; ")));
}

QString season_text(const SeasonTrend& t)
{
    const QString name = QObject::tr(season_measure(t.measure).name);
    if (t.step)
        return QObject::tr("%1: %2 before %3, %4 after.").arg(name, of_measure(t.step->before, t.measure), QDate(1970, 1, 1).addDays(t.step->day).toString(QStringLiteral("d MMMM yyyy")), of_measure(t.step->after, t.measure));
    const double times = t.measure == SeasonMeasure::first_start_h ? 60 : t.measure == SeasonMeasure::heat_per_sun ? 100
                                                                                                                   : 1;
    const QString unit = t.measure == SeasonMeasure::first_start_h ? QObject::tr("min") : t.measure == SeasonMeasure::heat_per_sun ? QStringLiteral("%")
                                                                                                                                   : QString::fromUtf8(season_measure(t.measure).unit);
    return QObject::tr("%1: %2 %3 each 30 days (%4 to %5), over %6 weeks.").arg(name).arg(times * t.per_30_days, 0, 'f', 1).arg(unit).arg(times * t.low, 0, 'f', 1).arg(times * t.high, 0, 'f', 1).arg(t.points);
}

} // namespace

AuditSheet::AuditSheet(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    setObjectName(QStringLiteral("auditSheet"));
    list_ = new QListWidget;
    list_->setObjectName(QStringLiteral("auditList"));
    list_->setAccessibleName(tr("What the log shows"));
    list_->setWordWrap(true);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    about_ = remark();
    about_->setObjectName(QStringLiteral("auditAbout"));
    take_ = new QPushButton(tr("Take these settings as a variant"));
    take_->setObjectName(QStringLiteral("takeFound"));
    take_->setToolTip(tr("A variant “as found” with the pair, the limit and the cut-out that the log shows, to be compared with the others"));
    auto* foot = new QHBoxLayout;
    foot->addWidget(take_);
    foot->addStretch(1);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(4);
    box->addWidget(list_, 1);
    box->addWidget(about_);
    box->addLayout(foot);
    connect(list_, &QListWidget::currentRowChanged, this, &AuditSheet::choose);
    connect(take_, &QPushButton::clicked, this, &AuditSheet::take_found);
    connect(&session_, &Session::outcome_changed, this, &AuditSheet::run);
    connect(&session_, &Session::units_changed, this, &AuditSheet::show_lines);
}

void AuditSheet::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    run();
}

void AuditSheet::run()
{
    const Document& d = session_.document();
    constexpr std::size_t beside_rows = 200000; // so many are audited before anyone asks: the map shows what was found
    auto log = d.day().kind == DayKind::recorded ? trace_of(d.job(), d.variant(), d.day()) : nullptr;
    if (!log || (!isVisible() && log->time_s.size() > beside_rows)) {
        worker_.drop(); // it belongs to another day
        audit_.reset();
        return session_.set_audit(nullptr);
    }
    const bool same = audit_ && of_ == d.variant() && log_ && log_->time_s == log->time_s && (d.day().faults.empty() ? log_ == log : false);
    if (same)
        return session_.set_audit(audit_);
    session_.set_audit(nullptr);
    of_ = d.variant();
    log_ = log;
    take_->setEnabled(false);
    worker_.run([job = d.job(), v = of_, log](const std::stop_token& stop) { return vernal::audit(job, v, *log, stop); }, [this](Result<Audit> found) { take(std::move(found)); });
}

void AuditSheet::take(Result<Audit> found)
{
    if (!found) {
        audit_.reset();
        list_->clear();
        about_->setText(qs(found.error().text()));
    } else {
        audit_ = std::make_shared<const Audit>(std::move(*found));
        session_.set_audit(audit_);
        show_lines();
    }
    emit finished();
}

std::string AuditSheet::found_text(const FoundSettings& f) const
{
    const Units& u = session_.units();
    const auto estimate = [&](const Estimate& e, Quantity q) { return to_text(e.value, q, u) + " (" + to_text(e.low, q, u) + " to " + to_text(e.high, q, u) + ", " + std::to_string(e.points) + (e.points == 1 ? " point)" : " points)"); };
    std::string out = of_.unit.outputs[f.output].key + ", " + of_.probes[f.source].name + " against " + of_.probes[f.store].name + ": ";
    std::vector<std::string> parts;
    if (f.on_k)
        parts.push_back("starts at " + estimate(*f.on_k, Quantity::difference));
    if (f.off_k)
        parts.push_back("stops at " + estimate(*f.off_k, Quantity::difference));
    if (f.limit_c)
        parts.push_back("obeys a limit of " + estimate(*f.limit_c, Quantity::temperature) + " at the " + of_.probes[f.limit_probe].name);
    if (f.cut_out_c)
        parts.push_back("cuts out at " + estimate(*f.cut_out_c, Quantity::temperature));
    if (f.min_run_s)
        parts.push_back("runs at least " + estimate(*f.min_run_s, Quantity::duration));
    if (f.min_rest_s)
        parts.push_back("rests at least " + estimate(*f.min_rest_s, Quantity::duration));
    if (f.pair == FoundSettings::Pair::moves)
        parts.push_back("its pair moves with the store's temperature");
    if (f.speeds)
        parts.push_back(speeds_text(*f.speeds));
    if (f.no_latch)
        parts.push_back("it has no latch");
    if (parts.empty())
        return out + "too few switchings show its settings";
    for (std::size_t i = 0; i < parts.size(); ++i)
        out += (i ? "; " : "") + parts[i];
    return out + ".";
}

void AuditSheet::show_lines()
{
    if (!audit_)
        return;
    const QSignalBlocker quiet(list_);
    list_->clear();
    trouble_.clear();
    const auto put = [&](const QString& text, std::size_t trouble) {
        auto* item = new QListWidgetItem(text);
        list_->addItem(item);
        trouble_.push_back(trouble);
    };
    for (std::size_t i = 0; i < audit_->troubles.size(); ++i) {
        const AuditTrouble& t = audit_->troubles[i];
        put(QStringLiteral("%1 %2").arg(t.serious ? QStringLiteral("■") : QStringLiteral("●"), qs(in_units(t.what, session_.units()))), i);
    }
    for (const FoundSettings& f : audit_->found)
        put(qs(found_text(f)), audit_->troubles.size());
    for (const FoundHeating& h : audit_->heating)
        put(heating_text(h, of_, session_.units()), audit_->troubles.size());
    for (const SeasonTrend& t : audit_->seasons.trends)
        if (t.step || t.claimed)
            put(season_text(t), audit_->troubles.size());
    list_costliest();
    double heat = 0, pump = 0;
    for (const CostedDisagreement& d : audit_->disagreements) {
        heat += d.heat_j;
        pump += d.pump_j;
    }
    QStringList said;
    if (audit_->troubles.empty())
        said << tr("No trouble shows.");
    if (heat > 0 || pump > 0)
        said << tr("Where it differs from the rules: %1 of heat, %2 of pump energy.").arg(text(heat, Quantity::energy, session_.units()), text(pump, Quantity::electricity, session_.units()));
    if (!audit_->no_replay.empty())
        said << tr("The rules could not be replayed: %1").arg(qs(audit_->no_replay));
    about_->setText(said.join(QLatin1Char(' ')));
    about_->setVisible(!said.isEmpty());
    take_->setEnabled(std::any_of(audit_->found.begin(), audit_->found.end(), [](const FoundSettings& f) { return f.on_k || f.off_k || f.limit_c || f.cut_out_c; }));
}

// Where the unit did otherwise than the rules, those that cost most heat or last longest.
void AuditSheet::list_costliest()
{
    constexpr std::size_t most = 4;
    constexpr double least_s = 300;
    std::vector<std::size_t> order;
    for (std::size_t i = 0; i < audit_->disagreements.size(); ++i)
        if (audit_->disagreements[i].length_s >= least_s)
            order.push_back(i);
    const auto weight = [&](std::size_t i) { return std::pair(std::fabs(audit_->disagreements[i].heat_j), audit_->disagreements[i].length_s); };
    std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return weight(a) > weight(b); });
    for (std::size_t k = 0; k < std::min(most, order.size()); ++k) {
        const CostedDisagreement& d = audit_->disagreements[order[k]];
        const QString did = d.what.recorded_on ? tr("ran where the rules rest") : tr("rested where the rules run");
        QStringList cost;
        if (d.heat_j != 0)
            cost << text(d.heat_j, Quantity::energy, session_.units());
        if (d.pump_j > 0)
            cost << tr("%1 of pump energy").arg(text(d.pump_j, Quantity::electricity, session_.units()));
        list_->addItem(tr("%1, for %2: %3 %4%5; likely %6.").arg(session_.time_text(d.what.from_s), text(d.length_s, Quantity::minutes, session_.units()), qs(of_.unit.outputs[d.what.output].key), did, cost.isEmpty() ? QString() : tr(" (%1)").arg(cost.join(QStringLiteral(", "))), qs(d.cause)));
        trouble_.push_back(audit_->troubles.size() + 1 + order[k]);
    }
}

// The first of the evidence is marked, and the cursor goes there.
void AuditSheet::choose(int row)
{
    if (!audit_ || row < 0 || static_cast<std::size_t>(row) >= trouble_.size())
        return;
    if (const std::size_t i = trouble_[static_cast<std::size_t>(row)]; i > audit_->troubles.size()) {
        const Disagreement& d = audit_->disagreements[i - audit_->troubles.size() - 1].what;
        session_.mark(Session::Marked{d.from_s, d.to_s});
        return session_.set_cursor(d.from_s);
    }
    if (trouble_[static_cast<std::size_t>(row)] >= audit_->troubles.size())
        return;
    const AuditTrouble& t = audit_->troubles[trouble_[static_cast<std::size_t>(row)]];
    const auto longest = std::max_element(t.evidence.begin(), t.evidence.end(), [](const TroubleStretch& a, const TroubleStretch& b) { return a.to_s - a.from_s < b.to_s - b.from_s; });
    session_.mark(Session::Marked{longest->from_s, longest->to_s});
    session_.set_cursor(longest->from_s);
    QString looks;
    if (const TroubleKind* kind = find_trouble(t.key); kind && *kind->looks_like != 0) {
        QStringList names;
        for (const QString& key : QString::fromUtf8(kind->looks_like).split(QLatin1Char(' ')))
            if (const TroubleKind* other = find_trouble(key.toStdString()))
                names << tr(other->name).toLower();
        looks = tr(" Looks alike: %1.").arg(names.join(QStringLiteral(", ")));
    }
    about_->setText(tr("<b>%1 to %2, sure to %3 %.</b> %4 <b>%5</b>%6").arg(session_.time_text(t.from_s), session_.time_text(t.to_s)).arg(std::lround(100 * t.sure)).arg(qs(in_units(t.reason, session_.units())).toHtmlEscaped(), qs(in_units(t.test, session_.units())).toHtmlEscaped(), looks.toHtmlEscaped()));
    about_->show();
}

void AuditSheet::take_found()
{
    if (!audit_)
        return;
    Document& d = session_.document();
    d.edit(tr("Take what was found"), [&](Job& j) { j.variants.push_back(with_found(j, of_, audit_->found)); });
    d.choose_variant(d.job().variants.size() - 1);
}

} // namespace vernal
