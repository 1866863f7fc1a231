#include "bench_station.h"

#include "at_loop_page.h"
#include "bench_parts.h"
#include "bench_recorder.h"
#include "drill_page.h"
#include "far_view.h"
#include "hand_panel.h"
#include "live_threads.h"
#include "procedure_panel.h"
#include "rig_view.h"
#include "unit_page.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "app/widgets/number_edit.h"
#include "app/wire/wire_page.h"
#include "core/wording/why.h"

#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QStackedWidget>
#include <QVBoxLayout>

#include <cmath>

namespace vernal {

BenchStation::BenchStation(Session& session, const Dialogs& dialogs, QWidget* parent) : QWidget(parent), session_(session), model_(new BenchModel(session, this))
{
    auto* rig = new QWidget;
    auto* row = new QHBoxLayout;
    row->setSpacing(10);
    auto* procedure = new ProcedurePanel(session, *model_);
    captured_ = wrapped_label("benchCaptured");
    captured_card_ = bench_card();
    auto* shown = new QVBoxLayout(captured_card_);
    shown->setContentsMargins(12, 6, 10, 8);
    shown->addWidget(captured_);
    captured_card_->hide();
    auto* left = new QWidget;
    left->setMinimumWidth(230);
    left->setMaximumWidth(360);
    auto* tests = new QVBoxLayout(left);
    tests->setContentsMargins(0, 0, 0, 0);
    tests->setSpacing(6);
    tests->addWidget(procedure, 1);
    tests->addWidget(captured_card_);
    row->addWidget(left, 30);
    row->addWidget(make_rig(), 48);
    row->addWidget(make_now(), 20);
    auto* record = new QFrame;
    record->setObjectName(QStringLiteral("card"));
    auto* in = new QVBoxLayout(record);
    in->setContentsMargins(8, 4, 8, 4);
    auto* recorder = new BenchRecorder(session, model_->recorded(), tr("minutes of the bench, now at the right"));
    in->addWidget(recorder);
    connect(model_, &BenchModel::remade, recorder, [this, recorder] { recorder->set_unit(model_->rig() ? std::optional(model_->rig()->variant()) : std::nullopt); });
    connect(model_, &BenchModel::ticked, recorder, [this, recorder] { recorder->set_now(model_->rig() ? model_->rig()->now_s() : 0); });
    record->setFixedHeight(190);
    auto* rig_box = new QVBoxLayout(rig);
    rig_box->setContentsMargins(0, 0, 0, 0);
    rig_box->setSpacing(8);
    rig_box->addLayout(row, 1);
    rig_box->addWidget(record);
    pages_ = new QStackedWidget;
    pages_->addWidget(rig);
    pages_->addWidget(new UnitPage(session, dialogs));
    auto* loop = new AtLoopPage(session, dialogs);
    pages_->addWidget(loop);
    pages_->addWidget(new DrillPage(session));
    wire_ = new WirePage(session, dialogs);
    pages_->addWidget(wire_);
    model_->set_wire(wire_->link());
    connect(loop, &AtLoopPage::far_wanted, this, &BenchStation::show_far);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(14, 10, 10, 8);
    box->setSpacing(8);
    box->addLayout(make_head());
    box->addWidget(pages_, 1);
    constexpr int least_px = 300; // a page that is not shown takes no height from the strip
    setMinimumHeight(least_px);
    for (auto signal : {&BenchModel::ticked, &BenchModel::remade})
        connect(model_, signal, this, &BenchStation::show_now);
    connect(&session, &Session::units_changed, this, &BenchStation::show_now);
    connect(&wire_->link(), &WireLink::changed, this, &BenchStation::show_wire);
}

QHBoxLayout* BenchStation::make_head()
{
    auto* head = new QHBoxLayout;
    head->addWidget(heading(tr("Bench"), "h1"));
    const std::array<std::array<QString, 3>, 5> pages{{{tr("Rig"), QStringLiteral("benchRig"), tr("The unit in the program, its probes in your hands")},
        {tr("Unit sheet"), QStringLiteral("benchUnit"), tr("The unit at hand as you describe it: wiring, keys, lamps")},
        {tr("At the loop"), QStringLiteral("benchLoop"), tr("What it should show now, which reading is wrong, what ails the pump")},
        {tr("Drills"), QStringLiteral("benchDrills"), tr("A hidden fault to be found in little time")},
        {tr("On the wire"), QStringLiteral("benchWire"), tr("A real unit, or a stand-in, by Modbus")}}};
    for (std::size_t i = 0; i < pages.size(); ++i) {
        auto* b = page_buttons_[i] = new QPushButton(pages[i][0]);
        b->setObjectName(pages[i][1]);
        b->setToolTip(pages[i][2]);
        b->setCheckable(true);
        b->setChecked(i == 0);
        head->addWidget(b);
        connect(b, &QPushButton::clicked, this, [this, i] { show_page(static_cast<Page>(i)); });
    }
    hint_ = remark(tr("drag a probe's wire into what it should feel"));
    hint_->setWordWrap(false);
    head->addWidget(hint_, 1);
    speed_row_ = new QWidget;
    auto* row = new QHBoxLayout(speed_row_);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(remark(tr("speed")));
    for (const int times : {1, 10, 60, 600}) {
        auto* b = new QPushButton(QStringLiteral("%1×").arg(times));
        b->setObjectName(QStringLiteral("speed%1").arg(times));
        b->setCheckable(true);
        b->setChecked(times == model_->speed());
        b->setAccessibleName(tr("%1 times the clock").arg(times));
        speeds_.push_back(b);
        row->addWidget(b);
        connect(b, &QPushButton::clicked, this, [this, b, times] { // each is reached by Tab
            for (QPushButton* other : speeds_)
                other->setChecked(other == b);
            model_->set_speed(times);
        });
    }
    head->addWidget(speed_row_);
    return head;
}

void BenchStation::show_page(Page page)
{
    const auto at = static_cast<std::size_t>(page);
    for (std::size_t i = 0; i < page_buttons_.size(); ++i)
        page_buttons_[i]->setChecked(i == at);
    speed_row_->setVisible(page == Page::rig);
    const std::array hints{tr("drag a probe's wire into what it should feel"), tr("the unit at hand as you describe it"), tr("sums of this hour, not a run: what is not known is in the bands"), tr("a hidden fault, the customer's words, and your time"), tr("read-only until it is armed")};
    hint_->setText(hints[at]);
    pages_->setCurrentIndex(static_cast<int>(at));
}

void BenchStation::wire_off()
{
    show_page(Page::wire); // where it is said what has come of it
    wire_->link().all_off();
}

// On every page it is seen that a unit is joined, or that it is lost.
void BenchStation::show_wire()
{
    QPushButton* b = page_buttons_[static_cast<std::size_t>(Page::wire)];
    const WireLink::State s = wire_->link().state();
    b->setText(s == WireLink::State::lost ? tr("■ Link lost") : s == WireLink::State::joined ? tr("● On the wire")
                                                                                             : tr("On the wire"));
}

void BenchStation::show_far()
{
    if (!far_)
        far_ = new FarView(session_, *model_, this);
    far_->show();
}

QWidget* BenchStation::make_rig()
{
    auto* card = new QFrame;
    card->setObjectName(QStringLiteral("card"));
    auto* in = new QVBoxLayout(card);
    in->setContentsMargins(4, 4, 4, 4);
    rig_view_ = new RigView(session_, *model_);
    in->addWidget(rig_view_, 1);
    in->addLayout(make_media());
    in->addLayout(make_supply());
    return card;
}

// What the media are at, and the unit's power.
QHBoxLayout* BenchStation::make_media()
{
    auto* row = new QHBoxLayout;
    row->setContentsMargins(10, 0, 10, 4);
    const auto medium = [&](const char* key, const char* label, Medium m, double low_c, double high_c, void (Rig::*set)(double)) {
        auto* edit = new NumberEdit(session_, NumberField{key, label, Quantity::temperature, low_c, high_c, ""});
        edit->setObjectName(QStringLiteral("rig.%1").arg(QLatin1String(key)));
        edit->setAccessibleName(tr(label));
        edit->setFixedWidth(70);
        row->addWidget(new QLabel(tr(label)));
        row->addWidget(edit);
        row->addSpacing(2);
        media_.emplace_back(edit, m);
        connect(edit, &NumberEdit::edited, this, [this, set](double c) {
            if (Rig* rig = model_->rig())
                (rig->*set)(c);
            model_->touched();
        });
    };
    medium("air", "Air", Medium::air, -20, 60, &Rig::set_air);
    medium("cup", "Cup", Medium::cup, 0, 95, &Rig::pour);
    medium("block", "Block", Medium::block, -30, 200, &Rig::set_block_at_once);
    power_ = new QCheckBox(tr("power"));
    power_->setObjectName(QStringLiteral("rig.power"));
    power_->setChecked(true);
    power_->setToolTip(tr("What feeds the unit; without it every output falls"));
    power_->setAccessibleName(tr("The unit has power"));
    connect(power_, &QCheckBox::clicked, this, [this](bool on) {
        if (Rig* rig = model_->rig())
            rig->set_powered(on);
        model_->touched();
    });
    row->addStretch(1);
    row->addWidget(power_);
    connect(model_, &BenchModel::remade, power_, [this] { power_->setChecked(true); });
    return row;
}

// What feeds it, what is wrong with it, and whether switching is heard.
QHBoxLayout* BenchStation::make_supply()
{
    auto* row = new QHBoxLayout;
    row->setContentsMargins(10, 0, 10, 4);
    supply_ = new NumberEdit(session_, NumberField{"supply", "Supply", Quantity::voltage, 0, 60, ""});
    supply_->setObjectName(QStringLiteral("rig.supply"));
    supply_->setAccessibleName(tr("Supply at the unit's terminals"));
    supply_->setFixedWidth(70);
    as_it_stands_ = new QPushButton(tr("as it stands"));
    as_it_stands_->setObjectName(QStringLiteral("rig.asItStands"));
    as_it_stands_->setToolTip(tr("The supply of the loop again"));
    sun_row_ = new QWidget;
    auto* sun = new QHBoxLayout(sun_row_);
    sun->setContentsMargins(0, 0, 0, 0);
    sun_ = new NumberEdit(session_, NumberField{"sun", "Sun on the panel", Quantity::irradiance, 0, 1400, ""});
    sun_->setObjectName(QStringLiteral("rig.sun"));
    sun_->setAccessibleName(tr("Sun on the panel"));
    sun_->setFixedWidth(90);
    sun->addWidget(new QLabel(tr("Panel's sun")));
    sun->addWidget(sun_);
    fault_ = new QComboBox;
    fault_->setObjectName(QStringLiteral("rig.fault"));
    fault_->setAccessibleName(tr("What is wrong with the unit"));
    fault_->setToolTip(tr("Puts something wrong into the unit on the bench, to see what a test makes of it; the job stays as it is"));
    fault_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    fault_->setMinimumContentsLength(12);
    sound_ = new QCheckBox(tr("sound"));
    sound_->setObjectName(QStringLiteral("rig.sound"));
    sound_->setToolTip(tr("A tone at each switching"));
    row->addWidget(new QLabel(tr("Supply")));
    row->addWidget(supply_);
    row->addWidget(as_it_stands_);
    row->addWidget(sun_row_);
    row->addStretch(1);
    row->addWidget(fault_, 1);
    row->addWidget(sound_);
    connect(supply_, &NumberEdit::edited, this, [this](double v) {
        if (Rig* rig = model_->rig())
            rig->set_supply(v);
        model_->touched();
    });
    connect(as_it_stands_, &QPushButton::clicked, this, [this] {
        if (Rig* rig = model_->rig())
            rig->set_supply({});
        model_->touched();
    });
    connect(sun_, &NumberEdit::edited, this, [this](double g) {
        if (Rig* rig = model_->rig())
            rig->set_panel_sun(g);
        model_->touched();
    });
    connect(fault_, &QComboBox::activated, this, [this](int i) { model_->put_fault(i - 1); });
    connect(model_, &BenchModel::remade, this, &BenchStation::offer_faults);
    connect(model_, &BenchModel::switched, this, [this] {
        if (sound_->isChecked())
            QApplication::beep();
    });
    return row;
}

void BenchStation::offer_faults()
{
    const QSignalBlocker quiet(fault_);
    fault_->clear();
    fault_->addItem(tr("nothing is wrong"));
    for (const BenchFault& f : model_->faults())
        fault_->addItem(qs(f.name));
    fault_->setCurrentIndex(model_->fault() + 1);
}

QWidget* BenchStation::make_now()
{
    auto* card = new QFrame;
    card->setObjectName(QStringLiteral("card"));
    auto* in = new QVBoxLayout(card);
    in->setContentsMargins(12, 8, 10, 8);
    in->setSpacing(6);
    in->addWidget(heading(tr("Now")));
    why_ = new QLabel;
    why_->setObjectName(QStringLiteral("benchWhy"));
    why_->setWordWrap(true);
    in->addWidget(why_);
    threads_ = new LiveThreads;
    in->addWidget(threads_);
    caution_ = new QLabel;
    caution_->setWordWrap(true);
    in->addWidget(caution_);
    in->addStretch(1);
    auto* hands = new QFrame;
    hands->setObjectName(QStringLiteral("card"));
    auto* held = new QVBoxLayout(hands);
    held->setContentsMargins(12, 6, 10, 6);
    held->addWidget(new HandPanel(session_, *model_, *rig_view_));
    auto* scroll = new QScrollArea;
    scroll->setWidget(card);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->viewport()->setAutoFillBackground(false);
    auto* column = new QWidget;
    column->setMinimumWidth(180);
    column->setMaximumWidth(250);
    auto* all = new QVBoxLayout(column);
    all->setContentsMargins(0, 0, 0, 0);
    all->setSpacing(6);
    all->addWidget(scroll, 1);
    all->addWidget(hands);
    return column;
}

void BenchStation::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    model_->look(true);
}

void BenchStation::hideEvent(QHideEvent* e)
{
    QWidget::hideEvent(e);
    model_->look(false);
}

void BenchStation::show_now()
{
    Rig* rig = model_->rig();
    if (!rig || !isVisible())
        return;
    for (const auto& [edit, medium] : media_)
        edit->set_value(rig->medium_c(medium));
    supply_->set_value(rig->supply_v());
    as_it_stands_->setEnabled(rig->supply_by_hand() || rig->panel_sun());
    sun_row_->setVisible(rig->has_panel());
    if (rig->panel_sun())
        sun_->set_value(*rig->panel_sun());
    power_->setChecked(rig->powered());
    const Simulation& s = rig->simulation();
    QStringList said;
    for (std::size_t o = 0; o < rig->outputs(); ++o) {
        const WhyText w = why(rig->variant(), s.program(), s.inputs(), s.engine(), rig->decision(o), o, session_.units());
        said << QStringLiteral("<b>%1</b> %2").arg(qs(w.headline).toHtmlEscaped(), qs(w.margin).toHtmlEscaped());
    }
    const QString why = said.join(QStringLiteral("<br>"));
    if (why_->text() != why)
        why_->setText(why);
    threads_->show_rig(*rig);
    const QString caution = QStringLiteral("<span style='color:%1'>%2</span>").arg(theme().caution.name(), tr("On a real unit: isolate and prove dead before a cover comes off; mains is a licensed person's work; a pump must not run dry. The maker's manual and local codes hold."));
    if (caution_->text() != caution)
        caution_->setText(caution);
    QStringList rows;
    if (const ProcedureRun* run = model_->run())
        for (const StepResult& r : run->result().steps)
            for (const CapturedValue& c : r.captured) {
                constexpr std::size_t most_passes = 3; // more of them are a card: each is shown
                QStringList values;
                if (c.passes.size() > most_passes)
                    for (const double x : c.passes)
                        values << qs(captured_text(c.what, x, session_.units()));
                else
                    values << qs(captured_text(c.what, c.mean(), session_.units()));
                rows << QStringLiteral("%1 <b>%2</b>%3").arg(qs(c.name).toHtmlEscaped(), values.join(QStringLiteral(", ")), c.passes.size() > 1 && values.size() == 1 ? tr(" (%n passes)", nullptr, static_cast<int>(c.passes.size())) : QString());
            }
    const QString captured = rows.isEmpty() ? QString() : tr("<b>Captured</b><br>") + rows.join(QStringLiteral("<br>"));
    if (captured_->text() != captured)
        captured_->setText(captured);
    captured_card_->setVisible(!captured.isEmpty());
}

} // namespace vernal
