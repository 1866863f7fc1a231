#include "probe_health_page.h"

#include "app/shell/theme.h"
#include "core/sums/probe_health.h"

#include <QComboBox>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>
#include <array>

namespace vernal {
namespace {

// Of a condition's rows only the one that says more about it is shown.
constexpr std::array row_of_condition{-1, -1, -1, 0, 1, 2, -1};

} // namespace

ProbeHealthPage::ProbeHealthPage(Session& session, const MeterBar& meter, const std::size_t& shown) : ProbePageView(session, shown), meter_(meter)
{
    signs_ = new QLabel;
    signs_->setObjectName("faultSigns");
    signs_->setWordWrap(true);
    signs_->setTextFormat(Qt::RichText);
    signs_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    signs_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    signs_->setMargin(8);
    auto* scroll = new QScrollArea;
    scroll->setWidget(signs_);
    scroll->setWidgetResizable(true);
    signs_->setAutoFillBackground(false);
    auto* column = beside(*this, scroll);
    column->addWidget(heading(tr("This probe is")));
    sheet_ = new FieldSheet(session);
    condition_ = choice_row(
        *sheet_, QStringLiteral("condition"), tr("Condition"), {tr("sound"), tr("open"), tr("shorted"), tr("stuck"), tr("drifted"), tr("in the sun"), tr("swapped")}, [this](int i) { edit(tr("A probe's condition"), [i](Probe& p) { p.condition.kind = static_cast<ConditionKind>(i); }); }, "kind");
    condition_rows_ = add_rows(*sheet_, session_, QStringLiteral("condition"), Condition{}, [this](const std::string& key, double to) { set(tr("A probe's condition"), "condition/" + key, to); });
    column->addWidget(sheet_);
    condition_note_ = remark();
    column->addWidget(condition_note_);
    for_a_while_ = new QPushButton(tr("Only for a while on this day"));
    for_a_while_->setObjectName(QStringLiteral("forAWhile"));
    for_a_while_->setProperty("look", "quiet");
    for_a_while_->setToolTip(tr("Becomes a fault painted on the marked stretch of the day, or an hour from the cursor on; the probe itself is sound"));
    connect(for_a_while_, &QPushButton::clicked, this, &ProbeHealthPage::paint_for_a_while);
    column->addWidget(for_a_while_, 0, Qt::AlignLeft);
    column->addWidget(heading(tr("Tests on the spot")));
    sums_ = new QVBoxLayout;
    column->addLayout(sums_);
    column->addStretch(1);
}

// A row a trouble; those that are set, or that the meter's reading fits, are marked
// and stand first.
QString ProbeHealthPage::signs() const
{
    const Theme& t = theme();
    QString s = QStringLiteral("<table cellspacing='0' cellpadding='5' width='100%'><tr>");
    for (const QString& head : {tr("trouble"), tr("at the meter, disconnected"), tr("in a trace"), tr("proof")})
        s += QStringLiteral("<td><span style='color:%1'>%2</span></td>").arg(t.second_ink.name(), head);
    const auto& answer = meter_.answer();
    const auto is_set = [&](const FaultSign& f) { return f.kind == probe().condition.kind && f.kind != ConditionKind::sound; };
    const auto does_fit = [&](const FaultSign& f) { return answer && f.kind != ConditionKind::sound && std::count(answer->likely.begin(), answer->likely.end(), f.kind) > 0; };
    auto all = fault_signs(variant(), index(), session_.units());
    std::stable_partition(all.begin(), all.end(), [&](const FaultSign& f) { return is_set(f) || does_fit(f); });
    for (const FaultSign& f : all) {
        const bool set = is_set(f), fits = does_fit(f);
        const QColor ground = set ? t.protect_ground : fits ? t.start_ground
                                                            : t.card;
        QString title = QStringLiteral("<b>%1</b>").arg(qs(f.title).toHtmlEscaped());
        if (set)
            title += QStringLiteral("<br><span style='color:%1'>■ %2</span>").arg(t.protect.name(), tr("set here"));
        if (fits)
            title += QStringLiteral("<br><span style='color:%1'>◆ %2</span>").arg(t.start.name(), tr("fits the meter"));
        s += QStringLiteral("</tr><tr bgcolor='%1'><td width='15%'>%2</td>").arg(ground.name(), title);
        for (const std::string& cell : {f.at_meter, f.in_trace, f.check})
            s += QStringLiteral("<td width='28%'>%1</td>").arg(qs(cell).toHtmlEscaped());
    }
    return s + QStringLiteral("</tr></table>");
}

void ProbeHealthPage::paint_for_a_while()
{
    Document& d = session_.document();
    const Probe p = probe();
    const auto m = session_.marked();
    const double from_h = m ? m->from_s / 3600 : session_.cursor_s() / 3600, to_h = m ? m->to_s / 3600 : from_h + 1, begin_h = session_.faults_begin_s() / 3600;
    std::vector<Fault> faults = faults_of(p.condition, p.key, d.variant(), std::max(0.0, from_h - begin_h), std::max(0.0, to_h - begin_h));
    d.edit(tr("A probe's condition, for a while"), [&, v = d.variant_index(), day = d.day_index(), i = index()](Job& j) {
        if (p.condition.kind == ConditionKind::swapped)
            for (Probe& other : j.variants[v].probes)
                other.condition.kind = other.condition.kind == ConditionKind::swapped ? ConditionKind::sound : other.condition.kind;
        j.variants[v].probes[i].condition.kind = ConditionKind::sound;
        j.days[day].faults.insert(j.days[day].faults.end(), faults.begin(), faults.end());
    });
}

void ProbeHealthPage::refresh()
{
    const Probe& p = probe();
    sheet_->set_path("probe/" + p.id + "/condition");
    signs_->setText(signs());
    condition_->setCurrentIndex(static_cast<int>(p.condition.kind));
    refresh_rows(condition_rows_, p.condition);
    for_a_while_->setVisible(p.condition.kind != ConditionKind::sound && !faults_of(p.condition, p.key, session_.document().variant(), 0, 1).empty());
    for (std::size_t i = 0; i < condition_rows_.size(); ++i)
        show_row(condition_rows_[i], row_of_condition[static_cast<std::size_t>(p.condition.kind)] == static_cast<int>(i));
    condition_note_->setText(p.condition.kind == ConditionKind::sound     ? tr("Choose a trouble to see on the day strip what it does, and what the rules make of it.")
                             : p.condition.kind == ConditionKind::swapped ? tr("Say the same of the other one: two swapped probes change places.")
                                                                          : tr("The day strip shows what the unit reads. Findings tells what follows."));
    if (p.correction.in_kelvin() != 0)
        condition_note_->setText(condition_note_->text() + QLatin1Char('\n') + tr("Correction stored: %1.").arg(text(p.correction.in_kelvin(), Quantity::small_difference, session_.units())));
    show_sums(*sums_, ProbePage::measure);
}

} // namespace vernal
