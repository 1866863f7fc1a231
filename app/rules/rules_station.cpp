#include "rules_station.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "core/job/fresh_rule.h"

#include <QButtonGroup>
#include <QComboBox>
#include <QHBoxLayout>
#include <QMenu>
#include <QPushButton>
#include <QScrollArea>
#include <QSlider>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace vernal {
RulesStation::RulesStation(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    auto* left = new QVBoxLayout;
    auto* title = new QHBoxLayout;
    title->addWidget(heading(tr("Rules"), "h1"));
    title->itemAt(0)->widget()->setToolTip(tr("The higher wins"));
    title->addStretch(1);
    outputs_ = new QVBoxLayout;
    title->addLayout(outputs_);
    left->addLayout(title);
    auto* inside = new QWidget;
    cards_ = new QVBoxLayout(inside);
    cards_->setContentsMargins(0, 0, 6, 0);
    cards_->setSpacing(5);
    auto* scroll = new QScrollArea;
    scroll->setWidget(inside);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    refusal_ = new QLabel;
    refusal_->setObjectName("refusal");
    refusal_->setWordWrap(true);
    refusal_->hide();
    left->addWidget(refusal_);
    left->addWidget(scroll, 1);
    map_ = new OperatingMap(session);
    auto* chooser = new ChooserPage(session);
    auto* card = new SettingsSheet(session);
    pages_ = new QStackedWidget;
    pages_->addWidget(map_page());
    pages_->addWidget(chooser);
    pages_->addWidget(card);
    connect(chooser, &ChooserPage::taken, this, [this] { show_page(0); });
    connect(card, &SettingsSheet::save_wanted, this, &RulesStation::card_save_wanted);
    connect(card, &SettingsSheet::print_wanted, this, &RulesStation::card_print_wanted);
    auto* tabs = new QHBoxLayout;
    for (const QString& name : {tr("Map"), tr("Choose for me"), tr("Card")}) {
        auto* tab = new QPushButton(name);
        tab->setObjectName("quiet");
        tab->setCheckable(true);
        tab->setMinimumHeight(32);
        tab->setMinimumWidth(tab->fontMetrics().horizontalAdvance(name) + 30);
        const int page = static_cast<int>(page_buttons_.size());
        connect(tab, &QPushButton::clicked, this, [this, page] { show_page(page); });
        page_buttons_.push_back(tab);
        tabs->addWidget(tab);
    }
    tabs->addStretch(1);
    auto* right = new QVBoxLayout;
    right->addLayout(tabs);
    right->addWidget(pages_, 1);
    show_page(0);
    auto* box = new QHBoxLayout(this);
    box->setContentsMargins(14, 10, 10, 8);
    box->setSpacing(12);
    box->addLayout(left, 9);
    box->addLayout(right, 10);
    connect(&session.document(), &Document::changed, this, &RulesStation::refresh);
    connect(&session.document(), &Document::view_changed, this, &RulesStation::rebuild);
    rebuild();
}

QWidget* RulesStation::map_page()
{
    auto* page = new QWidget;
    auto* box = new QVBoxLayout(page);
    box->setContentsMargins(0, 0, 0, 0);
    auto* head = new QHBoxLayout;
    auto* hint = new QLabel(tr("drag a line to change its rule"));
    hint->setObjectName("second");
    head->addWidget(hint, 1);
    auto* plain = new QPushButton(tr("plain axes"));
    plain->setObjectName("quiet");
    plain->setCheckable(true);
    head->addWidget(plain);
    connect(plain, &QPushButton::toggled, map_, &OperatingMap::set_plain_axes);
    box->addLayout(head);
    box->addWidget(map_, 1);
    box->addWidget(third_row());
    return page;
}

void RulesStation::show_page(int page)
{
    pages_->setCurrentIndex(page);
    for (std::size_t i = 0; i < page_buttons_.size(); ++i)
        page_buttons_[i]->setChecked(static_cast<int>(i) == page);
}

// Cards are built anew only when more than numbers changed, so that the field
// being typed in stays.
void RulesStation::refresh()
{
    const Variant& v = session_.document().variant();
    QString shape = shape_of(v.unit);
    for (const Rule& r : v.unit.rules)
        shape += shape_of(r);
    for (const Output& o : v.unit.outputs)
        shape += qs(o.key) + QString::number(static_cast<int>(o.mode));
    for (const Probe& p : v.probes)
        shape += qs(p.key + p.name);
    if (shape != shape_) {
        shape_ = shape;
        clear_layout(cards_);
        clear_layout(outputs_);
        shown_.clear();
        outputs_->addWidget(outputs_row());
        for (std::size_t i = 0; i < v.unit.rules.size(); ++i) {
            auto* card = new RuleCard(session_, i, open_.contains(i));
            connect(card, &RuleCard::refused, this, [this](const QString& reason) {
                refusal_->setText(reason);
                refusal_->show();
            });
            connect(card, &RuleCard::opened, this, [this](std::size_t rule, bool open) {
                open ? void(open_.insert(rule)) : void(open_.erase(rule));
                QMetaObject::invokeMethod(this, &RulesStation::rebuild, Qt::QueuedConnection); // not while its button still works
            });
            shown_.push_back(card);
            cards_->addWidget(card);
        }
        refusal_->hide();
        cards_->addWidget(add_button());
        unit_ = new UnitCard(session_);
        cards_->addWidget(unit_);
        cards_->addStretch(1);
    }
    for (RuleCard* card : shown_)
        card->refresh();
    if (unit_)
        unit_->refresh();
    refresh_third();
}

void RulesStation::rebuild()
{
    shape_.clear();
    refresh();
}

QWidget* RulesStation::outputs_row()
{
    auto* frame = new QWidget;
    auto* box = new QVBoxLayout(frame);
    box->setContentsMargins(0, 0, 8, 0);
    const auto& outputs = session_.document().variant().unit.outputs;
    for (std::size_t i = 0; i < outputs.size(); ++i) {
        auto* row = new QHBoxLayout;
        if (outputs.size() > 1) {
            auto* show = new QPushButton(qs(outputs[i].key));
            show->setObjectName("word");
            show->setToolTip(tr("%1: show it on the map").arg(qs(outputs[i].name)));
            connect(show, &QPushButton::clicked, this, [this, i] { map_->set_output(i); });
            row->addWidget(show, 1);
        } else {
            row->addWidget(new QLabel(QStringLiteral("<b>%1</b>").arg(qs(outputs[i].key))), 1);
        }
        auto* group = new QButtonGroup(frame);
        for (const auto& [name, mode] : {std::pair("OFF", Mode::off), std::pair("AUTO", Mode::automatic), std::pair("ON", Mode::on)}) {
            auto* b = new QPushButton(QString::fromLatin1(name));
            b->setObjectName(QStringLiteral("quiet"));
            b->setProperty("mode", QString::fromLatin1(name));
            b->setCheckable(true);
            b->setMinimumWidth(mode == Mode::automatic ? 60 : 48); // a narrow window must not cut its letters
            b->setChecked(outputs[i].mode == mode);
            group->addButton(b);
            row->addWidget(b);
            connect(b, &QPushButton::clicked, this, [this, i, m = mode] { session_.document().edit_variant(tr("Move the switch"), [i, m](Variant& v) { v.unit.outputs[i].mode = m; }); });
        }
        box->addLayout(row);
    }
    return frame;
}

QWidget* RulesStation::add_button()
{
    auto* button = new QPushButton(tr("Add a rule …"));
    button->setObjectName("addRule");
    auto* menu = new QMenu(button);
    QHash<QString, QMenu*> groups;
    for (const char* group : {"Collect", "Protect", "Freeze", "Comfort", "Heat"})
        groups.insert(QString::fromUtf8(group), menu->addMenu(QString::fromUtf8(group)));
    for (std::size_t k = 0; k < rule_kinds().size(); ++k) {
        const RuleKind& kind = rule_kinds()[k];
        QAction* action = groups.value(QString::fromUtf8(kind.group))->addAction(QString::fromUtf8(kind.title), this, [this, k] {
            session_.document().edit_variant(tr("Add a rule"), [k](Variant& v) {
                v.unit.rules.push_back(fresh_rule(v, k));
                sort_by_priority(v.unit.rules);
            });
        });
        action->setToolTip(QString::fromUtf8(kind.why));
        groups.value(QString::fromUtf8(kind.group))->setToolTipsVisible(true);
    }
    button->setMenu(menu);
    return button;
}

// The quantity that the map's two axes do not show, moved by hand.
QWidget* RulesStation::third_row()
{
    auto* row = new QWidget;
    auto* box = new QHBoxLayout(row);
    box->setContentsMargins(0, 0, 0, 0);
    third_ = new QComboBox;
    third_->setObjectName("third");
    third_->setAccessibleName(tr("Third quantity of the map"));
    third_->setMinimumHeight(32);
    third_at_ = new QSlider(Qt::Horizontal);
    third_at_->setObjectName("thirdAt");
    third_at_->setRange(0, 1000);
    third_at_->setMinimumHeight(32);
    third_text_ = new QLabel;
    third_text_->setMinimumWidth(80);
    box->addWidget(third_);
    box->addWidget(third_at_, 1);
    box->addWidget(third_text_);
    connect(third_, &QComboBox::activated, this, [this](int i) {
        map_->set_third(i == 0 ? std::nullopt : std::optional(map_->thirds()[static_cast<std::size_t>(i - 1)]));
        refresh_third();
    });
    connect(third_at_, &QSlider::valueChanged, this, [this](int at) {
        if (!third_at_->signalsBlocked())
            map_->set_third_share(at / 1000.0);
        refresh_third();
    });
    return row;
}

void RulesStation::refresh_third()
{
    QStringList names{tr("all else as at the cursor")};
    for (const OperatingMap::Third& t : map_->thirds())
        names << map_->third_name(t);
    QStringList now;
    for (int i = 0; i < third_->count(); ++i)
        now << third_->itemText(i);
    if (now != names) {
        const QSignalBlocker quiet(third_);
        third_->clear();
        third_->addItems(names);
        map_->set_third({});
    }
    third_at_->setEnabled(map_->third().has_value());
    third_text_->setText(map_->third() ? map_->third_text() : QString());
}

} // namespace vernal
