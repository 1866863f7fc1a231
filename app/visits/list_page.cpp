#include "list_page.h"

#include "app/shell/theme.h"
#include "app/widgets/flow_layout.h"
#include "app/widgets/form.h"
#include "core/job/field_path.h"
#include "core/plant/valve_board.h"
#include "core/units/calendar.h"
#include "core/units/exact_text.h"
#include "core/visit/dictation.h"
#include "core/visit/measured.h"
#include "core/visit/reading_kind.h"
#include "core/visit/take_along.h"
#include "visit_edits.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>
#include <utility>

namespace vernal {
namespace {

constexpr int item_role = Qt::UserRole; // index into the items; −1: a stage

QString box_of(Tick t)
{
    switch (t) {
    case Tick::done: return QStringLiteral("✓");
    case Tick::proved: return QStringLiteral("✓✓");
    case Tick::not_applicable: return QStringLiteral("–");
    case Tick::open: break;
    }
    return QStringLiteral("○");
}

} // namespace

ListPage::ListPage(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    which_ = new QComboBox;
    which_->setObjectName(QStringLiteral("whichList"));
    which_->setAccessibleName(tr("List"));
    open_ = remark();
    open_->setObjectName(QStringLiteral("listOpen"));
    auto* back = new QPushButton(tr("Back to the page"));
    back->setObjectName(QStringLiteral("listBack"));
    auto* own = new QPushButton(tr("Own …"));
    own->setObjectName(QStringLiteral("ownList"));
    own->setToolTip(tr("A list of your own from a text file (docs/visits.md); it is kept in the job"));
    connect(own, &QPushButton::clicked, this, &ListPage::own_wanted);
    auto* head = new QHBoxLayout;
    head->addWidget(which_);
    head->addWidget(open_, 1);
    head->addWidget(own);
    head->addWidget(back);
    list_view_ = new QListWidget;
    list_view_->setObjectName(QStringLiteral("listItems"));
    list_view_->setAccessibleName(tr("Items"));
    list_view_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list_view_->setWordWrap(true);
    list_view_->installEventFilter(this);
    auto* split = new QHBoxLayout;
    split->setSpacing(10);
    split->addWidget(list_view_, 5);
    split->addWidget(make_item(), 6);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->addLayout(head);
    box->addLayout(split, 1);
    connect(back, &QPushButton::clicked, this, &ListPage::left);
    connect(which_, &QComboBox::activated, this, [this](int i) {
        list_ = static_cast<std::size_t>(i);
        fresh_ = true;
        refresh();
    });
    connect(list_view_, &QListWidget::currentRowChanged, this, &ListPage::show_item);
    connect(&session.document(), &Document::changed, this, &ListPage::refresh);
    connect(&session, &Session::units_changed, this, &ListPage::refresh);
    connect(&session, &Session::outcome_changed, this, [this] {
        if (std::exchange(glare_, theme().glare) != theme().glare)
            refresh();
    });
}

QWidget* ListPage::make_item()
{
    auto* inside = new QWidget;
    auto* box = new QVBoxLayout(inside);
    box->setSpacing(6);
    title_ = heading({});
    title_->setWordWrap(true);
    const auto label = [&](const char* name) {
        auto* l = new QLabel;
        l->setObjectName(QString::fromLatin1(name));
        l->setWordWrap(true);
        l->setTextInteractionFlags(Qt::TextSelectableByMouse);
        return l;
    };
    text_ = label("itemText");
    why_ = remark();
    why_->setObjectName(QStringLiteral("itemWhy"));
    caution_ = label("itemCaution");
    valves_ = label("itemValves");
    proof_ = label("itemProof");
    measured_ = label("itemMeasured");
    said_about_ = remark();
    said_about_->setObjectName(QStringLiteral("itemSaid"));
    const auto line = [&](const char* name, const QString& hint) {
        auto* e = new QLineEdit;
        e->setObjectName(QString::fromLatin1(name));
        e->setPlaceholderText(hint);
        e->setAccessibleName(hint);
        e->setMinimumHeight(36);
        return e;
    };
    measure_ = line("itemMeasure", tr("What was measured"));
    setting_ = line("itemSetting", tr("Its value: it becomes the loop's"));
    said_ = line("itemWords", tr("Words, or why it does not apply"));
    done_ = new QPushButton(tr("Done"));
    done_->setObjectName(QStringLiteral("itemDone"));
    not_applicable_ = new QPushButton(tr("Does not apply"));
    not_applicable_->setObjectName(QStringLiteral("itemNotApplicable"));
    again_ = new QPushButton(tr("Open again"));
    again_->setObjectName(QStringLiteral("itemOpen"));
    photo_ = new QPushButton(tr("Photo …"));
    photo_->setObjectName(QStringLiteral("itemPhoto"));
    for (QWidget* w : std::initializer_list<QWidget*>{title_, text_, why_, caution_, valves_, proof_, measured_, measure_, setting_, said_})
        box->addWidget(w);
    auto* row = new FlowLayout;
    for (QPushButton* b : {done_, not_applicable_, again_, photo_})
        row->addWidget(b);
    box->addLayout(row);
    box->addWidget(said_about_);
    box->addStretch(1);
    connect(done_, &QPushButton::clicked, this, [this] { tick(Tick::done); });
    connect(not_applicable_, &QPushButton::clicked, this, [this] { tick(Tick::not_applicable); });
    connect(again_, &QPushButton::clicked, this, [this] { tick(Tick::open); });
    connect(photo_, &QPushButton::clicked, this, &ListPage::photo_wanted);
    connect(measure_, &QLineEdit::returnPressed, this, &ListPage::take_measure);
    connect(setting_, &QLineEdit::returnPressed, this, &ListPage::take_setting);
    auto* scroll = new QScrollArea;
    scroll->setWidgetResizable(true);
    scroll->setWidget(inside);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    return scroll;
}

const Visit* ListPage::visit() const { return find_visit(session_.document().job(), id_); }

void ListPage::show_visit(const std::string& id)
{
    fresh_ = fresh_ || id_ != id;
    id_ = id;
    collect();
}

void ListPage::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    collect();
    list_view_->setFocus();
}

// The lists of this visit's purpose come first.
void ListPage::collect()
{
    const Visit* v = visit();
    if (!v)
        return;
    const std::string was = list_ < lists_.size() ? lists_[list_].name : "";
    const Job& job = session_.document().job();
    lists_ = check_lists(job);
    lists_.push_back(take_along_list(job, variant_of(job, *v), v->purpose, session_.units()));
    std::stable_sort(lists_.begin(), lists_.end() - 1, [&](const CheckList& a, const CheckList& b) { return (a.purpose == v->purpose) > (b.purpose == v->purpose); });
    list_ = 0;
    which_->clear();
    for (const CheckList& l : lists_) {
        if (!fresh_ && l.name == was)
            list_ = static_cast<std::size_t>(which_->count());
        which_->addItem(qs(l.title));
    }
    which_->setCurrentIndex(static_cast<int>(list_));
    refresh();
}

void ListPage::refresh()
{
    const Visit* v = visit();
    if (!isVisible() || !v || lists_.empty())
        return;
    const Job& job = session_.document().job();
    const int row = list_view_->currentRow();
    items_ = items_of(job, variant_of(job, *v), lists_[list_], v->when);
    const QSignalBlocker quiet(list_view_);
    list_view_->clear();
    std::string stage;
    for (std::size_t i = 0; i < items_.size(); ++i) {
        const ItemStands& s = items_[i];
        if (s.item->stage != stage) {
            auto* head = new QListWidgetItem(qs(stage = s.item->stage), list_view_);
            head->setFlags(Qt::NoItemFlags);
            head->setFont(text_font(13, true));
            head->setForeground(theme().second_ink);
            head->setData(item_role, -1);
        }
        QString words = box_of(s.tick) + QStringLiteral("  ") + qs(s.item->title);
        if (s.measured)
            words += QStringLiteral(" · ") + qs(reading_text(*s.measured, session_.units())) + (s.within && !*s.within ? QStringLiteral(" ▲") : QString());
        auto* item = new QListWidgetItem(words, list_view_);
        item->setData(item_role, static_cast<int>(i));
        item->setSizeHint({0, 32});
        item->setForeground(s.tick == Tick::open ? theme().ink : s.tick == Tick::not_applicable ? theme().second_ink
                                                                                                : theme().accent);
    }
    const std::size_t open = open_items(items_);
    open_->setText(open == 0 ? tr("Nothing is open.") : tr("%1 of %2 are open.").arg(open).arg(items_.size()));
    int at = std::clamp(row, 1, std::max(1, list_view_->count() - 1));
    if (std::exchange(fresh_, false)) // of another visit: where it goes on
        for (int r = list_view_->count() - 1; r >= 0; --r)
            if (const int i = list_view_->item(r)->data(item_role).toInt(); i >= 0 && items_[static_cast<std::size_t>(i)].tick == Tick::open)
                at = r;
    list_view_->setCurrentRow(at);
    show_item();
}

const ItemStands* ListPage::chosen() const
{
    const QListWidgetItem* item = list_view_->currentItem();
    const int i = item ? item->data(item_role).toInt() : -1;
    return i >= 0 && static_cast<std::size_t>(i) < items_.size() ? &items_[static_cast<std::size_t>(i)] : nullptr;
}

void ListPage::show_item()
{
    const ItemStands* s = chosen();
    const Visit* v = visit();
    if (!s || !v)
        return;
    const Job& job = session_.document().job();
    const Variant& variant = variant_of(job, *v);
    const ListItem& i = *s->item;
    const auto show = [](QLabel* l, const QString& words) {
        l->setText(words);
        l->setVisible(!words.isEmpty());
    };
    show(title_, qs(i.title));
    show(text_, qs(i.text));
    show(why_, i.why.empty() ? QString() : tr("Why: %1.").arg(qs(i.why)));
    show(caution_, i.caution.empty() ? QString() : QStringLiteral("<span style='color:%1'><b>▲ %2.</b></span> %3").arg(theme().caution.name(), qs(i.caution).toHtmlEscaped(), tr("Follow the makers' manuals and local codes; a licensed person where the law asks for one.")));
    QString valves;
    if (!i.valves.empty()) {
        const auto state = static_cast<ServiceState>(std::find(state_keys.begin(), state_keys.end(), i.valves) - state_keys.begin());
        for (const HandValve h : valves_of(variant.loop))
            valves += QStringLiteral("%1%2 %3").arg(valves.isEmpty() ? tr("Valves, as for %1: ").arg(qs(state_title(state))) : QStringLiteral("; "), qs(valve_text(h).title), qs(stands_text(stands(variant.loop, h, state))));
    }
    show(valves_, valves);
    show(proof_, i.proved_by.empty() ? QString() : s->tick == Tick::proved ? tr("Proved by its procedure on %1.").arg(qs(moment_words(s->when)))
                                                                           : tr("Proved by the procedure “%1” at the Bench.").arg(qs(i.proved_by)));
    const std::string tolerance = tolerance_text(i, variant, session_.units());
    QString measured;
    if (!i.measure.empty()) {
        measured = s->measured ? tr("Measured: <b>%1</b>").arg(qs(reading_text(*s->measured, session_.units()))) : tr("Not measured yet");
        if (!tolerance.empty())
            measured += QStringLiteral(" (%1)").arg(qs(tolerance));
        if (s->within)
            measured += *s->within ? QStringLiteral(" <span style='color:%1'><b>%2</b></span>").arg(theme().accent.name(), tr("within")) : QStringLiteral(" <span style='color:%1'><b>▲ %2</b></span>").arg(theme().caution.name(), tr("missed"));
    }
    show(measured_, measured);
    measure_->setVisible(!i.measure.empty());
    if (const ReadingKind* k = find_reading_kind(i.measure))
        measure_->setPlaceholderText(k->of == ReadingKind::Of::loop ? tr("%1 … and Enter").arg(QString::fromUtf8(k->said)) : tr("S1 … and Enter"));
    setting_->setVisible(!i.sets.empty());
    if (!i.sets.empty()) {
        const auto at = std::find_if(job.variants.begin(), job.variants.end(), [&](const Variant& x) { return x.id == v->variant; });
        const std::size_t index = at == job.variants.end() ? 0 : static_cast<std::size_t>(at - job.variants.begin());
        if (const auto now = setting_at(job, index, i.sets))
            setting_->setText(now->numeric() ? text(std::stod(now->value), now->quantity, session_.units()) : qs(now->value));
    }
    said_->setText(qs(s->said));
    const bool closed = v->closed;
    for (QLineEdit* e : {measure_, setting_, said_})
        e->setEnabled(!closed);
    photo_->setVisible(i.photo);
    photo_->setEnabled(!closed);
    done_->setEnabled(!closed && s->tick != Tick::done && s->tick != Tick::proved);
    not_applicable_->setEnabled(!closed && s->tick != Tick::not_applicable);
    again_->setEnabled(!closed && (s->tick == Tick::done || s->tick == Tick::not_applicable));
    show(said_about_, closed ? tr("This visit is closed; go on with the list on a new one.") : s->when.empty() ? QString()
                                                                                                               : qs(moment_words(s->when)));
}

void ListPage::tick(Tick to)
{
    const ItemStands* s = chosen();
    if (!s)
        return;
    if (to == Tick::not_applicable && said_->text().trimmed().isEmpty()) {
        said_->setFocus();
        said_about_->setText(tr("Say why it does not apply."));
        said_about_->show();
        return;
    }
    VisitTick t{lists_[list_].name, s->item->id, to, said_->text().trimmed().toStdString(), now_moment().toStdString()};
    const int row = list_view_->currentRow();
    change_visit(session_.document(), id_, tr("Item of a list"), [&](Visit& x) {
        std::erase_if(x.ticks, [&](const VisitTick& o) { return o.list == t.list && o.item == t.item; });
        x.ticks.push_back(t);
    });
    if (to != Tick::open) // on to the next
        for (int next = row + 1; next < list_view_->count(); ++next)
            if (list_view_->item(next)->flags() & Qt::ItemIsSelectable) {
                list_view_->setCurrentRow(next);
                break;
            }
    list_view_->setFocus();
}

void ListPage::take_measure()
{
    const ItemStands* s = chosen();
    const Visit* v = visit();
    if (!s || !v)
        return;
    const ReadingKind* k = find_reading_kind(s->item->measure);
    QString words = measure_->text().trimmed();
    const Variant now = variant_of(session_.document().job(), *v);
    Visit changed = *v;
    auto said = dictate(changed, words.toStdString(), now, session_.units());
    if (!said && k && k->of == ReadingKind::Of::loop) { // the number alone
        changed = *v;
        said = dictate(changed, k->said + std::string(" ") + words.toStdString(), now, session_.units());
    }
    if (!said) {
        said_about_->setText(QStringLiteral("▲ ") + qs(said.error().text()));
        return said_about_->show();
    }
    measure_->clear();
    change_visit(session_.document(), id_, tr("Measure"), [&](Visit& x) { x = changed; });
    list_view_->setFocus();
}

// What the survey found becomes the loop.
void ListPage::take_setting()
{
    const ItemStands* s = chosen();
    const Visit* v = visit();
    if (!s || !v || s->item->sets.empty())
        return;
    const Job& job = session_.document().job();
    const auto at = std::find_if(job.variants.begin(), job.variants.end(), [&](const Variant& x) { return x.id == v->variant; });
    const std::size_t index = at == job.variants.end() ? 0 : static_cast<std::size_t>(at - job.variants.begin());
    Job tried = job;
    const std::string path = s->item->sets, value = setting_->text().trimmed().toStdString();
    const auto now = setting_at(job, index, path);
    std::string inside = value;
    if (now && now->numeric())
        if (const auto parsed = parse(value, now->quantity, session_.units()))
            inside = exact_text(*parsed);
    if (const auto done = set_setting(tried, index, path, inside); !done) {
        said_about_->setText(QStringLiteral("▲ ") + qs(done.error().text()));
        return said_about_->show();
    }
    const VisitTick t{lists_[list_].name, s->item->id, Tick::done, value, now_moment().toStdString()};
    const int row = list_view_->currentRow();
    session_.document().edit(tr("Survey"), [&](Job& j) {
        set_setting(j, index, path, inside);
        if (Visit* x = find_visit(j, id_)) {
            std::erase_if(x->ticks, [&](const VisitTick& o) { return o.list == t.list && o.item == t.item; });
            x->ticks.push_back(t);
        }
    });
    for (int next = row + 1; next < list_view_->count(); ++next)
        if (list_view_->item(next)->flags() & Qt::ItemIsSelectable) {
            list_view_->setCurrentRow(next);
            break;
        }
    list_view_->setFocus();
}

// Space ticks, Delete opens again, Escape goes back to the page.
bool ListPage::eventFilter(QObject* watched, QEvent* e)
{
    if (watched == list_view_ && e->type() == QEvent::KeyPress) {
        switch (static_cast<const QKeyEvent&>(*e).key()) {
        case Qt::Key_Space:
            if (done_->isEnabled())
                tick(Tick::done);
            return true;
        case Qt::Key_Delete:
            if (again_->isEnabled())
                tick(Tick::open);
            return true;
        case Qt::Key_Escape: emit left(); return true;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            (setting_->isVisible() ? setting_ : measure_->isVisible() ? measure_
                                                                      : said_)
                ->setFocus();
            return true;
        default: break;
        }
    }
    return QWidget::eventFilter(watched, e);
}

} // namespace vernal
