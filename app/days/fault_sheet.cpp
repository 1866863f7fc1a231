#include "fault_sheet.h"

#include "app/widgets/form.h"
#include "app/widgets/time_edit.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace vernal {
namespace {

using Size = FaultInfo::Size;

const char* size_key(Size size)
{
    constexpr std::array keys{"", "stuck_c", "by_k", "share", "every_s", "supply_v", "by_h"};
    return keys[static_cast<std::size_t>(size)];
}

QString group_name(FaultInfo::Of of)
{
    switch (of) {
    case FaultInfo::Of::probe: return QObject::tr("A probe");
    case FaultInfo::Of::output: return QObject::tr("An output");
    case FaultInfo::Of::pump: return QObject::tr("A pump and its line");
    default: return QObject::tr("The loop and what is around it");
    }
}

// As the sentences call it: "Collector", "P1 Loop pump".
QString subject_name(const Variant& v, const std::string& key)
{
    for (const Probe& p : v.probes)
        if (p.key == key)
            return qs(p.name);
    for (const Output& o : v.unit.outputs)
        if (o.key == key)
            return QStringLiteral("%1 %2").arg(qs(o.key), qs(o.name));
    return qs(key);
}

} // namespace

std::pair<double, double> stretch_to_paint(const Session& session)
{
    if (session.marked())
        return {session.marked()->from_s / 3600, session.marked()->to_s / 3600};
    const double from = session.cursor_s() / 3600;
    return {from, from + 1};
}

FaultSheet::FaultSheet(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(4);
    auto* mark = new QHBoxLayout;
    mark->setSpacing(4);
    words_ = new QLabel;
    from_ = new TimeEdit(session_, tr("Marked from"));
    from_->setObjectName(QStringLiteral("markedFrom"));
    to_ = new TimeEdit(session_, tr("Marked to"));
    to_->setObjectName(QStringLiteral("markedTo"));
    unmark_ = new QPushButton(QStringLiteral("✕"));
    unmark_->setObjectName(QStringLiteral("unmark"));
    unmark_->setProperty("look", "quiet");
    unmark_->setFixedSize(32, 32);
    unmark_->setToolTip(tr("Nothing marked"));
    unmark_->setAccessibleName(unmark_->toolTip());
    mark->addWidget(words_, 1);
    mark->addWidget(from_);
    mark->addWidget(new QLabel(tr("to")));
    mark->addWidget(to_);
    mark->addWidget(unmark_);
    box->addLayout(mark);
    rows_ = new QVBoxLayout;
    rows_->setSpacing(2);
    box->addLayout(rows_);
    auto* add = new QPushButton(tr("Paint a fault ▾"));
    add->setObjectName(QStringLiteral("paintFault"));
    add->setProperty("look", "quiet");
    add->setToolTip(tr("On the marked stretch; without one, for an hour from the cursor on"));
    menu_ = new QMenu(add);
    menu_->setObjectName(QStringLiteral("faults"));
    menu_->setToolTipsVisible(true);
    add->setMenu(menu_);
    connect(menu_, &QMenu::aboutToShow, this, &FaultSheet::fill_menu);
    box->addWidget(add, 0, Qt::AlignLeft);
    connect(from_, &TimeEdit::edited, this, [this](double t) { session_.mark(Session::Marked{t, session_.marked() ? session_.marked()->to_s : t + 3600}); });
    connect(to_, &TimeEdit::edited, this, [this](double t) { session_.mark(Session::Marked{session_.marked() ? session_.marked()->from_s : session_.cursor_s(), t}); });
    connect(unmark_, &QPushButton::clicked, this, [this] { session_.mark({}); });
    connect(&session_, &Session::marked_changed, this, &FaultSheet::show_mark);
    connect(&session_, &Session::cursor_changed, this, &FaultSheet::show_mark);
    fill_menu();
    show_mark();
}

void FaultSheet::show_mark()
{
    const auto [from, to] = stretch_to_paint(session_);
    words_->setText(session_.marked() ? tr("Marked") : tr("At the cursor"));
    words_->setToolTip(tr("Drag along the strip with Shift held to mark a stretch, or type its ends"));
    from_->set_time(from * 3600);
    to_->set_time(to * 3600);
    unmark_->setEnabled(session_.marked().has_value());
}

void FaultSheet::fill_menu()
{
    menu_->clear();
    const Document& d = session_.document();
    std::optional<FaultInfo::Of> group;
    for (std::size_t k = 0; k < fault_kinds; ++k) {
        const auto kind = static_cast<FaultKind>(k);
        if (!can_have(kind, d.variant(), d.day()))
            continue;
        const FaultInfo& info = fault_info(kind);
        if (group != info.of)
            menu_->addSection(group_name(info.of));
        group = info.of;
        const QString name = tr(info.name);
        QAction* a = menu_->addAction(name.left(1).toUpper() + name.mid(1));
        a->setObjectName(QString::fromLatin1(fault_keys[k]));
        a->setToolTip(tr(info.about));
        connect(a, &QAction::triggered, this, [this, kind] { paint(kind); });
    }
}

void FaultSheet::paint(FaultKind kind)
{
    const auto [from, to] = stretch_to_paint(session_);
    const double begin_h = session_.faults_begin_s() / 3600;
    const Fault f = fresh_fault(kind, session_.document().variant(), std::max(0.0, from - begin_h), std::max(0.0, to - begin_h));
    session_.document().edit_day(tr("Paint a fault"), [f](Day& d) { d.faults.push_back(f); });
    session_.mark({});
}

void FaultSheet::change(std::size_t i, const std::function<void(Fault&)>& how)
{
    session_.document().edit_day(
        tr("Change a fault"), [&](Day& d) {
            if (i < d.faults.size())
                how(d.faults[i]);
        },
        QStringLiteral("fault%1").arg(i));
}

void FaultSheet::refresh()
{
    const Document& d = session_.document();
    QStringList keys;
    for (const Probe& p : d.variant().probes)
        keys << qs(p.key + p.name);
    for (const Output& o : d.variant().unit.outputs)
        keys << qs(o.key + o.name);
    QString shape = qs(d.day().id) + keys.join(QLatin1Char('|'));
    for (const Fault& f : d.day().faults)
        shape += QStringLiteral(",%1").arg(static_cast<int>(f.kind));
    if (shape != shape_) {
        shape_ = shape;
        clear_layout(rows_);
        refreshers_.clear();
        for (std::size_t i = 0; i < d.day().faults.size(); ++i)
            add_fault_row(i);
        fill_menu();
    }
    for (const auto& r : refreshers_)
        r();
    show_mark();
}

// Two lines: what is wrong with what, and when and how much.
void FaultSheet::add_fault_row(std::size_t i)
{
    const Variant& v = session_.document().variant();
    const Fault& f = session_.document().day().faults[i];
    const FaultInfo& info = fault_info(f.kind);
    auto* first = new QHBoxLayout;
    first->setSpacing(4);
    const auto subjects = fault_subjects(f.kind, v);
    const auto subject_box = [&](std::string Fault::*which, const char* name) {
        auto* b = new QComboBox;
        b->setObjectName(QStringLiteral("fault%1.%2").arg(i).arg(QString::fromLatin1(name)));
        b->setAccessibleName(tr("Of what"));
        for (const std::string& key : subjects)
            b->addItem(subject_name(v, key), qs(key));
        connect(b, &QComboBox::activated, this, [this, i, b, which](int chosen) { change(i, [key = b->itemData(chosen).toString().toStdString(), which](Fault& x) { x.*which = key; }); });
        refreshers_.push_back([this, i, b, which] { b->setCurrentIndex(b->findData(qs(session_.document().day().faults[i].*which))); });
        return b;
    };
    if (!subjects.empty())
        first->addWidget(subject_box(&Fault::of, "of"));
    if (f.kind == FaultKind::probes_swapped)
        first->addWidget(subject_box(&Fault::with, "with"));
    auto* what = new QLabel(tr(info.name));
    what->setToolTip(tr(info.about));
    first->addWidget(what, 1);
    auto* remove = new QPushButton(QStringLiteral("✕"));
    remove->setObjectName(QStringLiteral("removeFault"));
    remove->setProperty("look", "quiet");
    remove->setFixedSize(32, 32);
    remove->setToolTip(tr("Remove this fault"));
    remove->setAccessibleName(tr("Remove this fault (%1)").arg(i + 1));
    connect(remove, &QPushButton::clicked, this, [this, i] { session_.document().edit_day(tr("Remove a fault"), [i](Day& d) { d.faults.erase(d.faults.begin() + static_cast<std::ptrdiff_t>(i)); }); });
    first->addWidget(remove);
    auto* second = new QHBoxLayout;
    second->setSpacing(4);
    const auto end = [&](double Fault::*which, const char* name, const QString& called) {
        auto* edit = new TimeEdit(session_, called);
        edit->setObjectName(QStringLiteral("fault%1.%2").arg(i).arg(QString::fromLatin1(name)));
        connect(edit, &TimeEdit::edited, this, [this, i, which](double t) { change(i, [which, t = std::max(0.0, t - session_.faults_begin_s())](Fault& x) { x.*which = t / 3600; }); });
        refreshers_.push_back([this, i, edit, which] { edit->set_time(session_.faults_begin_s() + session_.document().day().faults[i].*which * 3600); });
        return edit;
    };
    second->addWidget(end(&Fault::from_h, "from_h", tr("Fault from")));
    second->addWidget(new QLabel(tr("to")));
    second->addWidget(end(&Fault::to_h, "to_h", tr("Fault to")));
    for (const auto& [field, inside] : number_fields(f)) {
        if (std::string_view(field.key) != size_key(info.size))
            continue;
        auto* edit = new NumberEdit(session_, field);
        edit->stand_in_row();
        edit->setObjectName(QStringLiteral("fault%1.%2").arg(i).arg(QString::fromLatin1(field.key)));
        connect(edit, &NumberEdit::edited, this, [this, i, key = std::string(field.key)](double to) { change(i, [&](Fault& x) { set_number(x, key, to); }); });
        refreshers_.push_back([this, i, edit, key = std::string(field.key)] {
            for (const auto& [now, value] : number_fields(session_.document().day().faults[i]))
                if (key == now.key)
                    edit->set_value(value);
        });
        const bool before = info.size != Size::share; // "at 40 °C", "40 % is left of the flow"
        if (before)
            second->addWidget(new QLabel(tr(info.size_says)));
        second->addWidget(edit);
        if (!before)
            second->addWidget(new QLabel(tr(info.size_says)));
    }
    second->addStretch(1);
    auto* row = new QVBoxLayout;
    row->setSpacing(0);
    row->addLayout(first);
    row->addLayout(second);
    rows_->addLayout(row);
}

} // namespace vernal
