#include "probe_lead_page.h"

#include "app/shell/theme.h"
#include "core/probe/lead.h"
#include "core/wording/placing.h"

#include <QComboBox>
#include <QScrollArea>
#include <QVBoxLayout>

#include <cmath>

namespace vernal {

ProbeLeadPage::ProbeLeadPage(Session& session, const std::size_t& shown) : ProbePageView(session, shown)
{
    auto* left = new QWidget;
    auto* rows = new QVBoxLayout(left);
    rows->setContentsMargins(4, 2, 4, 2);
    view_ = new LoopView(session);
    view_->setObjectName("placeView");
    view_->setMinimumSize(160, 120);
    rows->addWidget(view_, 1);
    guide_ = new QLabel;
    guide_->setObjectName("placing");
    guide_->setWordWrap(true);
    guide_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    auto* words = new QScrollArea;
    words->setWidget(guide_);
    words->setWidgetResizable(true);
    words->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    rows->addWidget(words, 1);
    auto* column = beside(*this, left);
    column->addWidget(heading(tr("Lead")));
    lead_sheet_ = new FieldSheet(session);
    lead_ = add_rows(*lead_sheet_, session_, QStringLiteral("lead"), Lead{}, [this](const std::string& key, double to) { set(tr("Change the lead"), "lead/" + key, to); });
    strands_ = choice_row(*lead_sheet_, QStringLiteral("strands"), tr("Conductor"), {tr("drawn"), tr("class 1 or 2"), tr("class 5, fine")}, [this](int i) { edit(tr("Change the lead"), [i](Probe& p) { p.lead.strands = static_cast<Strands>(i); }); });
    strands_->setToolTip(tr("Drawn: by gauge or section, plain copper (ASTM B258). Classes: IEC 60228, 1 solid, 2 stranded, 5 fine strands"));
    column->addWidget(lead_sheet_);
    switches_ = add_switches(*lead_sheet_, QStringLiteral("lead"), Lead{}, [this](const SwitchField& f, bool on) { edit(tr("Change the lead"), [&](Probe& p) { set_switch(p.lead, f.key, on); }); });
    errors_ = new QLabel;
    errors_->setObjectName("leadErrors");
    errors_->setWordWrap(true);
    column->addWidget(errors_);
    sums_ = new QVBoxLayout;
    column->addLayout(sums_);
    column->addWidget(heading(tr("Place")));
    place_sheet_ = new FieldSheet(session);
    probe_ = add_rows(*place_sheet_, session_, QStringLiteral("probe"), Probe{}, [this](const std::string& key, double to) { set(tr("Change a probe"), key, to); });
    column->addWidget(place_sheet_);
    column->addWidget(heading(tr("Wiring")));
    for (const char* sentence : wiring_guide())
        column->addWidget(remark(QStringLiteral("· ") + tr(sentence)));
    column->addStretch(1);
}

void ProbeLeadPage::refresh()
{
    const Probe& p = probe();
    const Units& u = session_.units();
    lead_sheet_->set_path("probe/" + p.id + "/lead");
    place_sheet_->set_path("probe/" + p.id);
    view_->point_at(index());
    const PlacingGuide g = placing_guide(arrangement_of(variant().loop), p.place);
    guide_->setText(tr("<span style='color:%6'>▲ %5 Follow the maker's manual and local codes, and use a licensed tradesperson where the law asks for one.</span><br><b>%1, %2.</b> %3<br><b>Not:</b> %4")
                        .arg(qs(p.key), qs(p.name).toHtmlEscaped(), qs(g.where), qs(g.mistake), qs(g.caution), theme().caution.name()));
    refresh_rows(lead_, p.lead);
    refresh_rows(probe_, p);
    refresh_switches(switches_, p.lead);
    strands_->setCurrentIndex(static_cast<int>(p.lead.strands));
    QStringList lines;
    for (double t : {0.0, 50.0, 100.0, 150.0})
        if (t <= p.curve.max_c)
            if (const double error = lead_error_k(p.curve, p.lead, t); std::isfinite(error))
                lines << tr("%1 at %2").arg(text(error, Quantity::small_difference, u), text(t, Quantity::temperature, u));
    const double ohm = lead_ohm(p.lead);
    errors_->setText(p.lead.length_m <= 0 && p.lead.leak_ohm <= 0 ? tr("No lead stated: nothing is added.") : tr("Adds %1. Reads off by %2.").arg(text(ohm, Quantity::resistance, u), lines.join(QStringLiteral(", "))));
    show_sums(*sums_, ProbePage::lead);
}

} // namespace vernal
