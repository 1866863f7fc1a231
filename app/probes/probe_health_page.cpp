#include "probe_health_page.h"

#include "app/shell/theme.h"
#include "core/sums/probe_health.h"

#include <QComboBox>
#include <QScrollArea>
#include <QVBoxLayout>

#include <array>

namespace vernal {
namespace {

// Of a condition's rows only the one that says more about it is shown.
constexpr std::array row_of_condition{-1, -1, -1, 0, 1, 2, -1};

} // namespace

ProbeHealthPage::ProbeHealthPage(Session& session, const std::size_t& shown) : ProbePageView(session, shown)
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
    auto* column = beside(*this, scroll);
    column->addWidget(heading(tr("This probe is")));
    auto* grid = new QGridLayout;
    condition_ = choice_row(*grid, QStringLiteral("condition"), tr("Condition"), {tr("sound"), tr("open"), tr("shorted"), tr("stuck"), tr("drifted"), tr("in the sun"), tr("swapped")}, [this](int i) { edit(tr("A probe's condition"), [i](Probe& p) { p.condition.kind = static_cast<ConditionKind>(i); }); });
    condition_rows_ = add_rows(*grid, session_, QStringLiteral("condition"), Condition{}, [this](const std::string& key, double to) { set(tr("A probe's condition"), "condition/" + key, to); });
    column->addLayout(grid);
    condition_note_ = remark();
    column->addWidget(condition_note_);
    column->addWidget(heading(tr("Tests on the spot")));
    sums_ = new QVBoxLayout;
    column->addLayout(sums_);
    column->addStretch(1);
}

void ProbeHealthPage::refresh()
{
    const Probe& p = probe();
    QString s = QStringLiteral("<table cellspacing='0' cellpadding='6' width='100%'>");
    const auto line = [](const QString& what, const std::string& says) { return QStringLiteral("<br><span style='color:%1'>%2</span> %3").arg(theme().second_ink.name(), what, qs(says).toHtmlEscaped()); };
    for (const FaultSign& f : fault_signs(variant(), index(), session_.units())) {
        const bool here = f.kind == p.condition.kind && f.kind != ConditionKind::sound;
        s += QStringLiteral("<tr%1>").arg(here ? QStringLiteral(" bgcolor='%1'").arg(theme().protect_ground.name()) : QString());
        s += QStringLiteral("<td><b>%1</b>").arg((here ? QStringLiteral("■ ") : QString()) + qs(f.title));
        s += line(tr("At the meter, disconnected:"), f.at_meter) + line(tr("In a trace:"), f.in_trace) + line(tr("Proof:"), f.check) + QStringLiteral("</td></tr>");
    }
    signs_->setText(s + QStringLiteral("</table>"));
    condition_->setCurrentIndex(static_cast<int>(p.condition.kind));
    refresh_rows(condition_rows_, p.condition);
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
