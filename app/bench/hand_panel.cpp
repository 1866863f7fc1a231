#include "hand_panel.h"

#include "rig_view.h"

#include "app/widgets/form.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

#include <cmath>

namespace vernal {
namespace {

// A straight signal has no resistor in its place.
bool takes_resistor(const ProbeCurve& curve) { return std::string(signal_unit(curve)) == "Ω"; }

} // namespace

HandPanel::HandPanel(Session& session, BenchModel& model, RigView& view, QWidget* parent) : QWidget(parent), session_(session), model_(model), view_(view)
{
    which_ = heading(tr("Probe"));
    ohm_ = new NumberEdit(session, NumberField{"ohm", "Resistor", Quantity::resistance, 0.1, 1e7, ""});
    diode_ = new NumberEdit(session, NumberField{"diode", "Diode", Quantity::signal_voltage, 0.01, 5, ""});
    lead_ = new QComboBox;
    lead_->addItems({tr("sound"), tr("broken"), tr("shorted"), tr("wet")});
    contact_ = new QCheckBox(tr("contact open"));
    contact_->setToolTip(tr("A thermostat or flow switch in the probe's lead"));
    shade_ = new QCheckBox(tr("shaded"));
    shade_->setToolTip(tr("Keeps the sun off a probe that feels it"));
    const std::array<std::pair<QWidget*, const char*>, 5> named{{{ohm_, "rig.ohm"}, {diode_, "rig.diode"}, {lead_, "rig.lead"}, {contact_, "rig.contact"}, {shade_, "rig.shade"}}};
    for (const auto& [w, name] : named)
        w->setObjectName(QLatin1String(name));
    ohm_->setAccessibleName(tr("Resistor in place of the chosen probe"));
    diode_->setAccessibleName(tr("Diode in its place, by its forward voltage"));
    lead_->setAccessibleName(tr("Lead of the chosen probe"));
    diode_->setToolTip(tr("In place of the probe, by its forward voltage at the input's own current"));
    auto* form = new QFormLayout;
    form->setContentsMargins(0, 0, 0, 0);
    form->setSpacing(4);
    form->addRow(tr("Resistor"), ohm_);
    form->addRow(tr("Diode"), diode_);
    form->addRow(tr("Lead"), lead_);
    bypasses_ = new QHBoxLayout;
    lead_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    for (NumberEdit* e : {ohm_, diode_})
        e->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
    connect(&session, &Session::units_changed, diode_, [this] { // no diode has a voltage until one is typed
        diode_->clear();
        diode_->setModified(false);
    });
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(4);
    box->addWidget(which_);
    box->addLayout(form);
    auto* both = new QHBoxLayout;
    both->addWidget(contact_);
    both->addWidget(shade_);
    both->addStretch(1);
    box->addLayout(both);
    box->addLayout(bypasses_);
    const auto act = [this](auto&& what) {
        return [this, what](auto x) {
            Rig* rig = model_.rig();
            if (rig && view_.chosen() < rig->probes())
                what(*rig, view_.chosen(), x);
            model_.touched();
        };
    };
    connect(ohm_, &NumberEdit::edited, this, act([](Rig& rig, std::size_t p, double ohm) { rig.put_resistor(p, ohm); }));
    connect(diode_, &NumberEdit::edited, this, act([](Rig& rig, std::size_t p, double volt) { rig.put_diode(p, volt); }));
    connect(lead_, &QComboBox::activated, this, act([](Rig& rig, std::size_t p, int i) { rig.set_lead(p, static_cast<LeadState>(i)); }));
    connect(contact_, &QCheckBox::clicked, this, act([](Rig& rig, std::size_t p, bool on) { rig.open_contact(p, on); }));
    connect(shade_, &QCheckBox::clicked, this, act([](Rig& rig, std::size_t p, bool on) { rig.shade(p, on); }));
    connect(&model, &BenchModel::remade, this, &HandPanel::lay_out_bypasses);
    connect(&model, &BenchModel::ticked, this, &HandPanel::refresh);
}

void HandPanel::lay_out_bypasses()
{
    clear_layout(bypasses_);
    bypass_.clear();
    Rig* rig = model_.rig();
    bypasses_->addWidget(new QLabel(tr("Bypass")));
    for (std::size_t o = 0; rig && o < rig->outputs(); ++o) {
        const QString key = qs(rig->variant().unit.outputs[o].key);
        auto* box = new QCheckBox(key);
        box->setAccessibleName(tr("Bypass of %1 closed").arg(key));
        box->setObjectName(QStringLiteral("rig.bypass.%1").arg(key));
        box->setToolTip(tr("Feeds what %1 drives past the unit: it defeats every protection").arg(key));
        connect(box, &QCheckBox::clicked, this, [this, o](bool on) {
            if (Rig* r = model_.rig())
                r->set_bypass(o, on);
            model_.touched();
        });
        bypass_.push_back(box);
        bypasses_->addWidget(box);
    }
    bypasses_->addStretch(1);
    refresh();
}

void HandPanel::refresh()
{
    Rig* rig = model_.rig();
    if (!rig || !isVisible())
        return;
    const std::size_t p = view_.chosen();
    const bool reads = p < rig->probes() && reads_temperature(rig->variant().probes[p]);
    const QString which = p < rig->probes() ? tr("Wire of %1").arg(qs(rig->variant().probes[p].key)) : QString();
    if (which_->text() != which)
        which_->setText(which);
    for (QWidget* w : {static_cast<QWidget*>(ohm_), static_cast<QWidget*>(diode_), static_cast<QWidget*>(lead_), static_cast<QWidget*>(contact_), static_cast<QWidget*>(shade_)})
        w->setEnabled(reads);
    if (reads) {
        const double ohm = rig->signal(p);
        ohm_->setEnabled(takes_resistor(rig->variant().probes[p].curve));
        diode_->setEnabled(ohm_->isEnabled());
        if (std::isfinite(ohm))
            ohm_->set_value(ohm);
        lead_->setCurrentIndex(static_cast<int>(rig->lead(p)));
        contact_->setChecked(rig->contact_open(p));
        shade_->setChecked(rig->shaded(p));
    }
    for (std::size_t o = 0; o < bypass_.size() && o < rig->outputs(); ++o)
        bypass_[o]->setChecked(rig->bypassed(o));
}

} // namespace vernal
