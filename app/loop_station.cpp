#include "loop_station.h"

#include "core/job/fields.h"
#include "core/plant/parts.h"
#include "core/plant/water.h"
#include "theme.h"

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

namespace vernal {
namespace {

constexpr NumberField bucket_volume{"bucket_m3", "Volume caught", Quantity::volume, 1e-4, 1, "A bucket with a mark"};
constexpr NumberField bucket_time{"bucket_s", "Time taken", Quantity::duration, 1, 3600, "By stop-watch"};

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
    auto* hint = new QLabel(tr("click a part to change it"));
    hint->setObjectName("second");
    head->addWidget(hint, 1);
    auto* write = new QPushButton(tr("Save the drawing …"));
    write->setObjectName("saveDrawing");
    connect(write, &QPushButton::clicked, this, &LoopStation::drawing_wanted);
    head->addWidget(write);
    view_ = new LoopView(session);
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
    with_part(session_.document().variant().loop, part_, [&](const auto& value) {
        const auto edits = add_rows(*grid_, session_, QStringLiteral("loop"), value, [this, title, part = part_](const std::string& key, double to) {
            session_.document().edit_variant(tr("Change %1").arg(title.toLower()), [&](Variant& v) { with_part(v.loop, part, [&](auto& x) { set_number(x, key, to); }); }, QStringLiteral("loop") + title + qs(key));
        });
        refresh_fields_ = [this, edits, part = part_] { with_part(session_.document().variant().loop, part, [&](const auto& x) { refresh_rows(edits, x); }); };
    });
    if (part_ == Part::pump || part_ == Part::pump_2)
        add_bucket();
    if (part_ == Part::pool)
        add_switch("poolCover", tr("Cover on"), [](auto& l) -> auto& { return l.pool.covered; });
    if (part_ == Part::drain_back)
        add_switch("siphon", tr("The return can run full"), [](auto& l) -> auto& { return l.drain_back.siphon; });
    if (part_ == Part::drain_back || part_ == Part::reservoir)
        add_draining();
    if (part_ == Part::valve)
        extra_->addWidget(words(tr("It turns with its output: see the Rules. At rest the heat goes to the first store.")));
    add_safety(part_);
}

QLabel* LoopStation::words(const QString& text)
{
    auto* label = new QLabel(text);
    label->setWordWrap(true);
    return label;
}

template <class Access>
void LoopStation::add_switch(const char* name, const QString& label, Access access)
{
    auto* box = new QCheckBox(label);
    box->setObjectName(QString::fromLatin1(name));
    box->setMinimumHeight(32);
    extra_->addWidget(box);
    connect(box, &QCheckBox::clicked, this, [this, access, label](bool on) { session_.document().edit_variant(label, [&](Variant& v) { access(v.loop) = on; }); });
    refresh_fields_ = [this, box, access, before = refresh_fields_] {
        before();
        box->setChecked(access(session_.document().variant().loop));
    };
    refresh_fields_();
}

// What drains, what the reservoir must hold, how high a siphon stands: the sums with their numbers.
void LoopStation::add_draining()
{
    extra_->addWidget(heading(tr("What drains")));
    auto* sum = words({});
    sum->setObjectName("drainSum");
    extra_->addWidget(sum);
    const auto values = [this] { return draining(session_.document().variant().loop, session_.document().job().site.place.altitude_m); };
    const auto show = [this, sum, values] {
        const Draining d = values();
        const auto litres = [this](double v) { return text(v, Quantity::volume, session_.units()); };
        sum->setText(tr("array %1 + outdoor pipe %2 = %3\nwith a quarter more: %4\nwater at %5 hangs together over %6 here")
                         .arg(litres(d.array_m3), litres(d.pipe_m3), litres(d.array_m3 + d.pipe_m3), litres(d.reservoir_m3), text(d.hot_c, Quantity::temperature, session_.units()), text(d.siphon_m, Quantity::length, session_.units())));
    };
    show();
    refresh_fields_ = [show, before = refresh_fields_] {
        before();
        show();
    };
    connect(&session_, &Session::units_changed, sum, show);
    if (!find_arrangement(session_.document().variant().loop.arrangement)->has(Part::reservoir))
        return;
    auto* take = new QPushButton(tr("Take it for the reservoir"));
    take->setObjectName("act");
    connect(take, &QPushButton::clicked, this, [this, values] { session_.document().edit_variant(tr("Size the reservoir"), [v3 = values().reservoir_m3](Variant& v) { v.loop.reservoir.volume_m3 = v3; }); });
    extra_->addWidget(take);
}

void LoopStation::add_safety(Part part)
{
    auto* note = new QLabel(QStringLiteral("<span style='color:%1'>▲</span> %2 %3").arg(theme().caution.name(), tr(part_text(part).caution), tr("Follow the maker's manual and local codes.")));
    note->setWordWrap(true);
    note->setObjectName("second");
    extra_->addWidget(note);
}

// The pump's field sum, and the fluid of a closed loop.
void LoopStation::add_bucket()
{
    if (part_ == Part::pump && find_arrangement(session_.document().variant().loop.arrangement)->carrier == Carrier::glycol) {
        auto* sub = new QGridLayout;
        extra_->addLayout(sub);
        const auto change = [this](const std::string& key, double to) {
            session_.document().edit_variant(tr("Change the fluid"), [&](Variant& v) { set_number(v.loop, key, to); }, QStringLiteral("fluid"));
        };
        const auto edits = add_rows(*sub, session_, QStringLiteral("loop"), session_.document().variant().loop, change);
        refresh_fields_ = [this, edits, before = refresh_fields_] {
            before();
            refresh_rows(edits, session_.document().variant().loop);
        };
    }
    extra_->addWidget(heading(tr("Flow by bucket and watch")));
    auto* grid = new QGridLayout;
    auto* volume = new NumberEdit(session_, bucket_volume);
    auto* time = new NumberEdit(session_, bucket_time);
    volume->setObjectName("bucketVolume");
    time->setObjectName("bucketTime");
    volume->set_value(0.01);
    time->set_value(60);
    grid->addWidget(new QLabel(QString::fromUtf8(bucket_volume.label)), 0, 0);
    grid->addWidget(volume, 0, 1, Qt::AlignRight);
    grid->addWidget(new QLabel(QString::fromUtf8(bucket_time.label)), 1, 0);
    grid->addWidget(time, 1, 1, Qt::AlignRight);
    auto* sum = new QLabel;
    auto* take = new QPushButton(tr("Take this flow"));
    take->setObjectName("act");
    const auto show = [this, volume, time, sum] {
        sum->setText(tr("%1 in %2 = %3").arg(text(volume->value(), Quantity::volume, session_.units()), text(time->value(), Quantity::duration, session_.units()), text(volume->value() / time->value(), Quantity::flow, session_.units())));
    };
    show();
    connect(volume, &NumberEdit::edited, sum, show);
    connect(time, &NumberEdit::edited, sum, show);
    connect(&session_, &Session::units_changed, sum, show);
    connect(take, &QPushButton::clicked, this, [this, volume, time, part = part_] {
        session_.document().edit_variant(tr("Take the measured flow"), [part, f = volume->value() / time->value()](Variant& v) { (part == Part::pump ? v.loop.pump : v.loop.pump_2).flow_m3_s = f; });
    });
    extra_->addLayout(grid);
    extra_->addWidget(sum);
    extra_->addWidget(take);
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
