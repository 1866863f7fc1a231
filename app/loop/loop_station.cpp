#include "loop_station.h"

#include "app/shell/theme.h"
#include "app/widgets/sum_box.h"
#include "core/job/field_path.h"
#include "core/job/fields.h"
#include "core/plant/collector_kinds.h"
#include "core/plant/parts.h"
#include "core/setup/rejoin.h"
#include "part_photos.h"
#include "reserve_box.h"
#include "sheet.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QStandardItemModel>
#include <QVBoxLayout>

#include <algorithm>

namespace vernal {
namespace {

constexpr int panel_least_px = 330, panel_most_px = 420, head_px = 90, widest_name_px = 420; // head: margins too

} // namespace

LoopStation::LoopStation(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    auto* head = new QHBoxLayout;
    head->addWidget(heading(tr("Loop"), "h1"));
    auto* arrangement = new QComboBox;
    arrangement->setObjectName("arrangement");
    arrangement->setAccessibleName(tr("Arrangement"));
    for (const Arrangement& a : presets())
        arrangement->addItem(qs(a.title), qs(a.key));
    connect(arrangement, &QComboBox::activated, this, [this, arrangement](int i) { join(preset_answers(arrangement->itemData(i).toString().toStdString())); });
    arrangement->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    arrangement->setMaximumWidth(widest_name_px);
    head->addWidget(arrangement, 4);
    auto* questions = new QPushButton(tr("Questions"));
    questions->setObjectName("askLoop");
    questions->setToolTip(tr("What the loop is put together from"));
    connect(questions, &QPushButton::clicked, this, &LoopStation::show_answers);
    head->addWidget(questions);
    auto* valves = new QPushButton(tr("Valves"));
    valves->setObjectName("valveBoard");
    valves->setToolTip(tr("How the hand valves stand while it runs, is filled, flushed, drained …"));
    connect(valves, &QPushButton::clicked, this, [this] { show_valves(); });
    head->addWidget(valves);
    head->addStretch(1);
    auto* write = new QPushButton(tr("Save …"));
    write->setObjectName("saveDrawing");
    write->setToolTip(tr("Save the drawing, or the valve board, as a file"));
    connect(write, &QPushButton::clicked, this, &LoopStation::drawing_wanted);
    head->addWidget(write);
    auto* print = new QPushButton(tr("Print …"));
    print->setObjectName("printDrawing");
    connect(print, &QPushButton::clicked, this, &LoopStation::print_wanted);
    head->addWidget(print);
    view_ = new LoopView(session);
    view_->setToolTip(tr("Click a part to change it"));
    auto* frame = new QFrame;
    frame->setObjectName("card");
    auto* frame_box = new QVBoxLayout(frame);
    frame_box->setContentsMargins(4, 4, 4, 4);
    frame_box->addWidget(view_);
    auto* left = new QVBoxLayout;
    left->addLayout(head);
    left->addWidget(frame, 1);
    auto* box = new QHBoxLayout(this);
    box->setContentsMargins(14, 10, 10, 8);
    box->setSpacing(10);
    box->addLayout(left, 1);
    box->addWidget(make_panel());
    connect(view_, &LoopView::chosen, this, &LoopStation::show_part);
    connect(&session.document(), &Document::changed, this, &LoopStation::refresh);
    connect(&session.document(), &Document::view_changed, this, &LoopStation::refresh);
    // A loop without a name of its own stands in it by its answers.
    const auto set_combo = [this, arrangement] {
        const Arrangement& now = arrangement_of(session_.document().variant().loop);
        arrangement->setPlaceholderText(qs(now.title));
        arrangement->setCurrentIndex(now.key.empty() ? -1 : arrangement->findData(qs(now.key)));
        arrangement->setToolTip(qs(now.about));
    };
    connect(&session.document(), &Document::changed, this, set_combo);
    connect(&session.document(), &Document::view_changed, this, set_combo);
    set_combo();
    joined_ = session.document().variant().loop.answers;
    show_part(Part::collector);
}

// What can hurt stands above what scrolls.
QWidget* LoopStation::make_panel()
{
    auto* panel = new QFrame;
    panel->setObjectName("card");
    panel_ = panel;
    auto* column = new QVBoxLayout(panel);
    column->setContentsMargins(0, 8, 0, 4);
    column->setSpacing(4);
    title_ = heading({});
    title_->setIndent(16);
    caution_ = remark();
    caution_->setContentsMargins(16, 0, 8, 4);
    auto* rows = new QWidget;
    auto* inside = new QVBoxLayout(rows);
    inside->setContentsMargins(16, 0, 6, 0);
    inside->setSpacing(4);
    sheet_ = new FieldSheet(session_);
    report_ = new FieldSheet(session_);
    report_head_ = new QPushButton;
    report_head_->setObjectName("quiet");
    report_head_->setToolTip(tr("What only the collector's test report says; without one the kind's own values hold"));
    connect(report_head_, &QPushButton::clicked, this, [this] {
        report_open_ = !report_->isVisibleTo(report_->parentWidget());
        open_report(report_open_);
    });
    more_ = new FieldSheet(session_);
    more_->set_path("loop");
    extra_ = new QVBoxLayout;
    extra_->setContentsMargins(0, 4, 0, 4);
    extra_->setSpacing(4);
    inside->addWidget(sheet_);
    inside->addWidget(report_head_, 0, Qt::AlignLeft);
    inside->addWidget(report_);
    inside->addWidget(more_);
    inside->addLayout(extra_);
    inside->addStretch(1);
    auto* scroll = scroll_ = new QScrollArea;
    scroll->setWidget(rows);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    rows->setAutoFillBackground(false);
    column->addWidget(title_);
    column->addWidget(caution_);
    column->addWidget(scroll, 1);
    return panel;
}

// The drawing comes first where there is little room.
void LoopStation::resizeEvent(QResizeEvent* e)
{
    QWidget::resizeEvent(e);
    // What its height leaves of the width is the panel's.
    const int drawing = static_cast<int>((height() - head_px) * least_sheet_w / sheet_h);
    panel_->setFixedWidth(std::clamp(width() - drawing, panel_least_px, panel_most_px));
}

void LoopStation::join(const LoopAnswers& answers)
{
    if (!(session_.document().variant().loop.answers == answers))
        session_.document().edit_variant(tr("Put the loop together otherwise"), [answers](Variant& v) { v = rejoined(v, answers); });
}

void LoopStation::show_answers()
{
    empty_panel();
    title_->setText(tr("What it is put together from"));
    caution_->clear();
    answers_ = new AnswersSheet;
    answers_->set(session_.document().variant().loop.answers);
    connect(answers_, &AnswersSheet::answered, this, &LoopStation::join);
    extra_->addWidget(answers_);
    extra_->addWidget(remark(tr("What still applies stays: numbers that were set, probes, outputs and rules of what is still there.")));
}

void LoopStation::show_valves(ServiceState state)
{
    empty_panel();
    title_->setText(tr("Valve board"));
    valves_ = new ValveSheet(session_);
    connect(valves_, &ValveSheet::state_chosen, view_, [this](ServiceState s) {
        view_->show_board(s);
        show_caution();
    });
    connect(view_, &LoopView::valve_clicked, valves_, &ValveSheet::turn);
    extra_->addWidget(valves_);
    valves_->choose(state);
}

void LoopStation::empty_panel()
{
    sheet_->clear();
    report_->clear();
    report_head_->hide();
    more_->clear();
    clear_layout(extra_);
    answers_ = nullptr;
    if (valves_) {
        disconnect(view_, &LoopView::valve_clicked, valves_, nullptr);
        valves_ = nullptr;
        view_->show_board({});
    }
    refresh_fields_ = {};
    scroll_->verticalScrollBar()->setValue(0);
}

void LoopStation::show_part(Part part)
{
    part_ = arrangement_of(session_.document().variant().loop).has(part) ? part : Part::collector;
    empty_panel();
    sheet_->set_path(part_path(part_));
    report_->set_path(part_path(part_));
    const QString title = tr(part_text(part_).title);
    title_->setText(title);
    show_caution();
    if (part_ == Part::collector)
        add_kind();
    add_fields(title);
    if ((part_ == Part::collector || part_ == Part::collector_2) && uncovered(session_.document().variant().loop.answers.array))
        add_report_wind();
    if (part_ == Part::element)
        add_element_mode();
    if (part_ == Part::heater)
        add_heater_choices();
    if (part_ == Part::circulation)
        add_tempering();
    if (part_ == Part::battery)
        add_charging();
    if (part_ == Part::wiring && arrangement_of(session_.document().variant().loop).has(Part::panel))
        add_unit_feed();
    if ((part_ == Part::pump || part_ == Part::vessel) && arrangement_of(session_.document().variant().loop).carrier == Carrier::glycol)
        add_fluid();
    if (part_ == Part::cooler_valve)
        extra_->addWidget(remark(tr("It turns with its output: see the Rules. At rest the heat goes to the store.")));
    if (part_ == Part::valve)
        extra_->addWidget(remark(tr("It turns with its output: see the Rules. At rest the heat goes to the first store.")));
    if (QWidget* photos = part_photos(session_.document().job(), part_text(part_).title))
        extra_->addWidget(photos);
    add_sums();
    if (part_ == Part::element || part_ == Part::tank || part_ == Part::battery)
        extra_->addWidget(new ReserveBox(session_));
}

void LoopStation::show_caution()
{
    const QString what = valves_ ? qs(state_caution(arrangement_of(session_.document().variant().loop), valves_->state())) : tr(part_text(part_).caution);
    const QString now = QStringLiteral("<span style='color:%1'>▲ %2</span> %3").arg(theme().caution.name(), what.toHtmlEscaped(), tr("Follow the maker's manual and local codes."));
    if (now != caution_->text())
        caution_->setText(now);
}

// Of which kind the collectors are, and whence its values come. Another one fills them in anew.
void LoopStation::add_kind()
{
    const LoopQuestion& q = *find_question("array");
    QStringList names;
    for (const auto& a : q.answers)
        names << tr(a.text);
    QComboBox* kind = choice_row(*sheet_, QStringLiteral("loop.array"), tr("Kind"), names, [this, &q](int i) {
        LoopAnswers answers = session_.document().variant().loop.answers;
        q.set(answers, static_cast<std::size_t>(i));
        join(answers);
    });
    const LoopAnswers& now = session_.document().variant().loop.answers;
    auto* model = qobject_cast<QStandardItemModel*>(kind->model());
    for (int i = 0; i < kind->count(); ++i) {
        LoopAnswers with = now;
        q.set(with, static_cast<std::size_t>(i));
        const QString why = qs(cannot_combine(with));
        model->item(i)->setEnabled(why.isEmpty());
        kind->setItemData(i, why, Qt::ToolTipRole);
    }
    kind->setCurrentIndex(static_cast<int>(q.get(now)));
    sheet_->add_wide(remark(tr(collector_origin(now.array))));
}

void LoopStation::open_report(bool open)
{
    report_head_->setText((open ? QStringLiteral("▾ ") : QStringLiteral("▸ ")) + tr("From a test report"));
    report_->setVisible(open);
}

// Numbers and switches of the part.
void LoopStation::add_fields(const QString& title)
{
    with_part(session_.document().variant().loop, part_, [&](const auto& value) {
        const auto change = [this, title, part = part_](const std::string& key, double to) {
            session_.document().set(tr("Change %1").arg(title.toLower()), part_path(part) + "/" + key, to);
        };
        const auto rows = [&](FieldSheet& sheet, bool report) {
            return add_rows(sheet, session_, QStringLiteral("loop"), value, change, [this, report](const NumberField& f) {
                return has_field(arrangement_of(session_.document().variant().loop), part_, f.key) && from_report(part_, f.key) == report;
            });
        };
        const auto edits = rows(*sheet_, false), reported = rows(*report_, true);
        report_head_->setVisible(!reported.empty());
        const auto& found = session_.findings(); // what is said of a folded number must be seen
        open_report(report_open_ || std::any_of(reported.begin(), reported.end(), [&](const NumberEdit* e) {
            const std::string path = part_path(part_) + "/" + e->objectName().section('.', -1).toStdString();
            return std::any_of(found.begin(), found.end(), [&](const Finding& f) { return is_at(f, path); });
        }));
        const auto switches = add_switches(*sheet_, QStringLiteral("loop"), value, [this, part = part_](const SwitchField& f, bool on) {
            session_.document().set(tr(f.label), part_path(part) + "/" + f.key, on ? "true" : "false");
        });
        refresh_fields_ = [this, edits, reported, switches, part = part_] {
            with_part(session_.document().variant().loop, part, [&](const auto& x) {
                refresh_rows(edits, x);
                refresh_rows(reported, x);
                refresh_switches(switches, x);
            });
        };
    });
}

void LoopStation::add_element_mode()
{
    QComboBox* mode = choice_row(
        *sheet_, QStringLiteral("elementMode"), tr("Heats"), {tr("never"), tr("always, by its thermostat"), tr("in its windows")}, [this](int i) { session_.document().edit_variant(tr("When the element heats"), [i](Variant& v) { v.loop.element.mode = static_cast<ElementMode>(i); }); }, "mode");
    refresh_fields_ = [this, mode, before = refresh_fields_] {
        before();
        mode->setCurrentIndex(static_cast<int>(session_.document().variant().loop.element.mode));
    };
    refresh_fields_();
}

// A setting of the part that is one of a few.
void LoopStation::add_choice(const char* key, const QString& label, const QStringList& names, std::function<int(const Loop&)> now)
{
    QComboBox* box = choice_row(
        *sheet_, QStringLiteral("loop.%1").arg(QLatin1String(key)), label, names, [this, path = part_path(part_) + "/" + key, label](int i) {
            if (const auto setting = setting_at(session_.document().job(), session_.document().variant_index(), path))
                session_.document().set(tr("Change: %1").arg(label.toLower()), path, setting->choices[static_cast<std::size_t>(i)]);
        },
        key);
    refresh_fields_ = [this, box, now = std::move(now), before = refresh_fields_] {
        before();
        box->setCurrentIndex(now(session_.document().variant().loop));
    };
    refresh_fields_();
}

void LoopStation::add_heater_choices()
{
    add_choice("kind", tr("Kind"), {tr("storage"), tr("through-flow")}, [](const Loop& l) { return static_cast<int>(l.heater.kind); });
    add_choice("energy", tr("Heats with"), {tr("electricity"), tr("gas")}, [](const Loop& l) { return static_cast<int>(l.heater.energy); });
    add_choice("way", tr("Valves lead"), {tr("through tank and heater"), tr("past the heater"), tr("past the tank")}, [](const Loop& l) { return static_cast<int>(l.heater.way); });
}

// Two editions of ISO 9806 count the wind from another speed.
void LoopStation::add_report_wind()
{
    add_choice("wind_from", tr("Wind in the report"), {tr("from still air (ISO 9806:2013)"), tr("from 3 m/s (ISO 9806:2017)")}, [part = part_](const Loop& l) { return static_cast<int>((part == Part::collector ? l.collector : l.collector_2).wind_from); });
}

void LoopStation::add_tempering()
{
    add_choice("tempering", tr("Mixed down"), {tr("nowhere"), tr("before the circulation"), tr("at each tap")}, [](const Loop& l) { return static_cast<int>(l.circulation.tempering); });
}

void LoopStation::add_charging()
{
    add_choice("charging", tr("Panel to battery"), {tr("joined directly"), tr("at the panel's most power")}, [](const Loop& l) { return static_cast<int>(l.battery.charging); });
    add_choice("fault", tr("Charge controller"), {tr("sound"), tr("charges nothing"), tr("does not hold its limit")}, [](const Loop& l) { return static_cast<int>(l.battery.fault); });
}

void LoopStation::add_unit_feed()
{
    add_choice("unit_feed", tr("The unit lives on"), {tr("the mains"), tr("the panel"), tr("the battery"), tr("the load output"), tr("panel and mains, by diodes")}, [](const Loop& l) { return static_cast<int>(l.wiring.unit_feed); });
}

// What the closed loop is filled with.
void LoopStation::add_fluid()
{
    const auto change = [this](const std::string& key, double to) {
        session_.document().set(tr("Change the fluid"), "loop/" + key, to);
    };
    const auto edits = add_rows(*more_, session_, QStringLiteral("loop"), session_.document().variant().loop, change);
    refresh_fields_ = [this, edits, before = refresh_fields_] {
        before();
        refresh_rows(edits, session_.document().variant().loop);
    };
}

void LoopStation::add_sums()
{
    const auto sums = sums_at(part_, arrangement_of(session_.document().variant().loop));
    if (sums.empty())
        return;
    extra_->addWidget(heading(tr("Sums")));
    std::vector<SumBox*> boxes;
    for (const FieldSum* sum : sums) {
        boxes.push_back(new SumBox(session_, *sum, part_));
        extra_->addWidget(boxes.back());
    }
    refresh_fields_ = [boxes, before = refresh_fields_] {
        before();
        for (SumBox* b : boxes)
            b->refresh();
    };
}

void LoopStation::refresh()
{
    if (const LoopAnswers& now = session_.document().variant().loop.answers; !(now == joined_)) {
        joined_ = now;
        if (answers_)
            answers_->set(now);
        else if (!valves_)
            show_part(part_);
    }
    if (!answers_)
        show_caution();
    if (valves_)
        return valves_->refresh(); // in another theme
    if (refresh_fields_)
        refresh_fields_();
}

} // namespace vernal
