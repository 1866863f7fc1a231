#include "loop_station.h"

#include "theme.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

namespace vernal {
namespace {

constexpr NumberField bucket_volume{"bucket_m3", "Volume caught", Quantity::volume, 1e-4, 1, "A bucket with a mark"};
constexpr NumberField bucket_time{"bucket_s", "Time taken", Quantity::duration, 1, 3600, "By stop-watch"};

const char* caution_for(Part part)
{
    switch (part) {
    case Part::collector: return "Roof work: use a fall arrest. An empty collector in the sun holds steam: cover it before you open or fill the loop.";
    case Part::tank: return "Hot water scalds. A tempering valve holds the taps at 49 °C or less. Never cap or disable a relief valve.";
    case Part::pump: return "Mains: isolate and prove dead before opening a cover. Never run the pump dry.";
    case Part::supply:
    case Part::back: return "Pipe near the collector can carry steam: no plastic there. The fluid may be hot and under pressure.";
    }
    return "";
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
        session_.document().edit_variant(tr("Choose the arrangement"), [key = arrangement->itemData(i).toString().toStdString()](Variant& v) { v.loop.arrangement = key; });
    });
    head->addWidget(arrangement);
    auto* hint = new QLabel(tr("click a part to change it"));
    hint->setObjectName("second");
    head->addWidget(hint, 1);
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

template <class T, class Access>
void LoopStation::show_fields(const QString& title, const T&, Access access)
{
    title_->setText(title);
    const QString prefix = title;
    const auto edits = add_rows(*grid_, session_, QStringLiteral("loop"), access(session_.document().variant().loop), [this, access, prefix](const std::string& key, double to) {
        session_.document().edit_variant(tr("Change %1").arg(prefix.toLower()), [&](Variant& v) { set_number(access(v.loop), key, to); }, QStringLiteral("loop") + prefix + qs(key));
    });
    refresh_fields_ = [this, edits, access] { refresh_rows(edits, access(session_.document().variant().loop)); };
}

void LoopStation::show_part(Part part)
{
    part_ = part;
    clear_layout(grid_);
    clear_layout(extra_);
    const Loop& loop = session_.document().variant().loop;
    switch (part) {
    case Part::collector: show_fields(tr("Collector"), loop.collector, [](auto& l) -> auto& { return l.collector; }); break;
    case Part::supply: show_fields(tr("Supply pipe"), loop.supply, [](auto& l) -> auto& { return l.supply; }); break;
    case Part::back: show_fields(tr("Return pipe"), loop.back, [](auto& l) -> auto& { return l.back; }); break;
    case Part::tank: show_fields(tr("Tank"), loop.tank, [](auto& l) -> auto& { return l.tank; }); break;
    case Part::pump:
        show_fields(tr("Pump and fluid"), loop.pump, [](auto& l) -> auto& { return l.pump; });
        add_bucket();
        break;
    }
    add_safety(part);
}

void LoopStation::add_safety(Part part)
{
    auto* note = new QLabel(QStringLiteral("<span style='color:%1'>▲</span> %2 %3").arg(theme().caution.name(), tr(caution_for(part)), tr("Follow the maker's manual and local codes.")));
    note->setWordWrap(true);
    note->setObjectName("second");
    extra_->addWidget(note);
}

// The pump's field sum, and the fluid of a closed loop.
void LoopStation::add_bucket()
{
    if (find_arrangement(session_.document().variant().loop.arrangement)->glycol) {
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
    connect(take, &QPushButton::clicked, this, [this, volume, time] {
        session_.document().edit_variant(tr("Take the measured flow"), [f = volume->value() / time->value()](Variant& v) { v.loop.pump.flow_m3_s = f; });
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
