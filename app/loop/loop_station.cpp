#include "loop_station.h"

#include "app/shell/theme.h"
#include "app/widgets/sum_box.h"
#include "core/job/field_path.h"
#include "core/job/fields.h"
#include "core/plant/parts.h"
#include "reserve_box.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

namespace vernal {
namespace {

// Another arrangement brings its own probes and rules; what the old and the new
// loop have in common stays as it was.
void change_arrangement(Variant& v, const std::string& key)
{
    Variant fresh = new_job(key).variants.front();
    const Arrangement &from = *find_arrangement(v.loop.arrangement), &to = *find_arrangement(key);
    if (from.carrier != Carrier::air && to.carrier != Carrier::air && from.has(Part::tank) && to.has(Part::tank))
        for (Part part : to.parts)
            if (from.has(part))
                with_part(fresh.loop, part, [&]<class T>(T& mine) {
                    with_part(v.loop, part, [&]<class U>(U& old) {
                        if constexpr (std::same_as<T, U>)
                            mine = old;
                    });
                });
    fresh.name = v.name;
    v = std::move(fresh);
}

} // namespace

LoopStation::LoopStation(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    auto* head = new QHBoxLayout;
    head->addWidget(heading(tr("Loop"), "h1"));
    auto* arrangement = new QComboBox;
    arrangement->setObjectName("arrangement");
    arrangement->setAccessibleName(tr("Arrangement"));
    for (const Arrangement& a : arrangements())
        arrangement->addItem(QString::fromUtf8(a.title), QString::fromUtf8(a.key));
    connect(arrangement, &QComboBox::activated, this, [this, arrangement](int i) {
        session_.document().edit_variant(tr("Choose the arrangement"), [key = arrangement->itemData(i).toString().toStdString()](Variant& v) {
            if (v.loop.arrangement != key)
                change_arrangement(v, key);
        });
    });
    head->addWidget(arrangement);
    head->addStretch(1);
    auto* write = new QPushButton(tr("Save the drawing …"));
    write->setObjectName("saveDrawing");
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
    auto* panel = new QFrame;
    panel->setObjectName("card");
    auto* column = new QVBoxLayout(panel);
    title_ = heading({});
    grid_ = new QGridLayout;
    extra_ = new QVBoxLayout;
    column->addWidget(title_);
    column->addLayout(grid_);
    column->addLayout(extra_);
    column->addStretch(1);
    auto* box = new QHBoxLayout(this);
    box->setContentsMargins(14, 10, 10, 8);
    box->setSpacing(10);
    box->addLayout(left, 1);
    box->addWidget(side_scroll(panel, 300));
    connect(view_, &LoopView::chosen, this, &LoopStation::show_part);
    connect(&session.document(), &Document::changed, this, &LoopStation::refresh);
    connect(&session.document(), &Document::view_changed, this, &LoopStation::refresh);
    const auto set_combo = [this, arrangement] { arrangement->setCurrentIndex(arrangement->findData(qs(session_.document().variant().loop.arrangement))); };
    connect(&session.document(), &Document::changed, this, set_combo);
    connect(&session.document(), &Document::view_changed, this, set_combo);
    set_combo();
    arrangement_ = qs(session.document().variant().loop.arrangement);
    show_part(Part::collector);
}

void LoopStation::show_part(Part part)
{
    part_ = find_arrangement(session_.document().variant().loop.arrangement)->has(part) ? part : Part::collector;
    clear_layout(grid_);
    clear_layout(extra_);
    refresh_fields_ = {};
    const QString title = tr(part_text(part_).title);
    title_->setText(title);
    add_fields(title);
    if (part_ == Part::element)
        add_element_mode();
    if ((part_ == Part::pump || part_ == Part::vessel) && find_arrangement(session_.document().variant().loop.arrangement)->carrier == Carrier::glycol)
        add_fluid();
    if (part_ == Part::valve)
        extra_->addWidget(words(tr("It turns with its output: see the Rules. At rest the heat goes to the first store.")));
    add_sums();
    if (part_ == Part::element || part_ == Part::tank || part_ == Part::battery)
        extra_->addWidget(new ReserveBox(session_));
    add_safety(part_);
}

// Numbers and switches of the part.
void LoopStation::add_fields(const QString& title)
{
    with_part(session_.document().variant().loop, part_, [&](const auto& value) {
        const auto edits = add_rows(*grid_, session_, QStringLiteral("loop"), value, [this, title, part = part_](const std::string& key, double to) {
            session_.document().set(tr("Change %1").arg(title.toLower()), part_path(part) + "/" + key, to);
        });
        const auto switches = add_switches(*extra_, QStringLiteral("loop"), value, [this, part = part_](const SwitchField& f, bool on) {
            session_.document().set(tr(f.label), part_path(part) + "/" + f.key, on ? "true" : "false");
        });
        refresh_fields_ = [this, edits, switches, part = part_] {
            with_part(session_.document().variant().loop, part, [&](const auto& x) {
                refresh_rows(edits, x);
                refresh_switches(switches, x);
            });
        };
    });
}

void LoopStation::add_element_mode()
{
    auto* mode = new QComboBox;
    mode->setObjectName("elementMode");
    mode->setAccessibleName(tr("When the element heats"));
    mode->addItems({tr("switched off"), tr("always, by its thermostat"), tr("in its windows")});
    extra_->addWidget(mode);
    connect(mode, &QComboBox::activated, this, [this](int i) { session_.document().edit_variant(tr("When the element heats"), [i](Variant& v) { v.loop.element.mode = static_cast<ElementMode>(i); }); });
    refresh_fields_ = [this, mode, before = refresh_fields_] {
        before();
        mode->setCurrentIndex(static_cast<int>(session_.document().variant().loop.element.mode));
    };
    refresh_fields_();
}

// What the closed loop is filled with.
void LoopStation::add_fluid()
{
    auto* sub = new QGridLayout;
    extra_->addLayout(sub);
    const auto change = [this](const std::string& key, double to) {
        session_.document().set(tr("Change the fluid"), "loop/" + key, to);
    };
    const auto edits = add_rows(*sub, session_, QStringLiteral("loop"), session_.document().variant().loop, change);
    refresh_fields_ = [this, edits, before = refresh_fields_] {
        before();
        refresh_rows(edits, session_.document().variant().loop);
    };
}

void LoopStation::add_sums()
{
    const auto sums = sums_at(part_, *find_arrangement(session_.document().variant().loop.arrangement));
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

QLabel* LoopStation::words(const QString& text)
{
    auto* label = new QLabel(text);
    label->setWordWrap(true);
    return label;
}

void LoopStation::add_safety(Part part)
{
    auto* note = new QLabel(QStringLiteral("<span style='color:%1'>▲</span> %2 %3").arg(theme().caution.name(), tr(part_text(part).caution), tr("Follow the maker's manual and local codes.")));
    note->setWordWrap(true);
    note->setObjectName("second");
    extra_->addWidget(note);
}

void LoopStation::refresh()
{
    const QString now = qs(session_.document().variant().loop.arrangement);
    if (now != arrangement_) {
        arrangement_ = now;
        show_part(part_);
    }
    if (refresh_fields_)
        refresh_fields_();
}

} // namespace vernal
