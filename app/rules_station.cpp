#include "rules_station.h"

#include "flow_layout.h"
#include "form.h"
#include "theme.h"

#include <QButtonGroup>
#include <QHBoxLayout>
#include <QMenu>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

namespace vernal {
namespace {

// Sets a text field of a rule by its key ("source", "probe" …).
struct TextField {
    std::string key;
    std::string* found = nullptr;
    void text(const char* k, std::string& s)
    {
        if (key == k)
            found = &s;
    }
    void text(const char*, const std::string&) {}
    void number(const NumberField&, double) {}
    void temperature(const NumberField&, Temperature) {}
    void difference(const NumberField&, TempDiff) {}
};

std::string* text_field(Rule& r, const std::string& key)
{
    TextField v{key};
    std::visit([&](auto& body) { fields(v, body); }, r.body);
    return v.found;
}

QString colour_of_group(const RuleKind& k)
{
    const std::string group = k.group;
    return (group == "Protect" ? theme().protect : group == "Comfort" ? theme().start : theme().accent).name();
}

} // namespace

RuleCard::RuleCard(Session& session, std::size_t rule, QWidget* parent) : QFrame(parent), session_(session), rule_(rule)
{
    setObjectName("card");
    const RuleKind& k = kind_of(this->rule());
    setStyleSheet(QStringLiteral("QFrame#card { border-left: 5px solid %1; }").arg(colour_of_group(k)));
    build();
}

QWidget* RuleCard::head()
{
    auto* row = new QWidget;
    auto* box = new QHBoxLayout(row);
    box->setContentsMargins(0, 0, 0, 0);
    const RuleKind& k = kind_of(rule());
    auto* title = new QLabel(QStringLiteral("<b style='color:%1'>%2</b>").arg(colour_of_group(k), QString::fromUtf8(k.title)));
    title->setToolTip(QString::fromUtf8(k.why));
    auto* group = new QLabel(QString::fromUtf8(k.group));
    group->setObjectName("second");
    auto* more = new QPushButton(QStringLiteral("…"));
    more->setObjectName("quiet");
    more->setAccessibleName(tr("More about %1").arg(QString::fromUtf8(k.title)));
    more->setFixedSize(34, 32);
    auto* menu = new QMenu(more);
    menu->addAction(QString::fromUtf8(k.why))->setEnabled(false);
    menu->addSeparator();
    menu->addAction(rule().enabled ? tr("Switch this rule off") : tr("Switch this rule on"), this, [this] {
        session_.document().edit_variant(tr("Switch a rule"), [i = rule_](Variant& v) { v.unit.rules[i].enabled = !v.unit.rules[i].enabled; });
    });
    menu->addAction(tr("Remove this rule"), this, [this] {
        session_.document().edit_variant(tr("Remove a rule"), [i = rule_](Variant& v) { v.unit.rules.erase(v.unit.rules.begin() + static_cast<std::ptrdiff_t>(i)); });
    });
    more->setMenu(menu);
    box->addWidget(title, 1);
    box->addWidget(group);
    box->addWidget(more);
    return row;
}

void RuleCard::build()
{
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(12, 1, 6, 4);
    box->setSpacing(0);
    box->addWidget(head());
    auto* sentence = new QWidget;
    auto* line = new FlowLayout(sentence, 5, 2);
    const QString whole = QString::fromUtf8(kind_of(rule()).sentence);
    QStringList words = whole.split(' ');
    for (QString& w : words) {
        const int open = static_cast<int>(w.indexOf('{')), close = static_cast<int>(w.indexOf('}'));
        if (open < 0) {
            add_word(*line, w);
            continue;
        }
        const std::string key = w.mid(open + 1, close - open - 1).toStdString();
        if (key == "output")
            add_output(*line);
        else if (key == "source" || key == "store" || key == "probe")
            add_probe(*line, key);
        else
            add_number(*line, key);
        if (const QString rest = w.mid(close + 1); !rest.isEmpty())
            add_word(*line, rest, true);
    }
    sentence->setEnabled(rule().enabled);
    box->addWidget(sentence);
    if (!rule().enabled) {
        auto* off = new QLabel(tr("switched off"));
        off->setObjectName("second");
        box->addWidget(off);
    }
}

void RuleCard::add_word(QLayout& line, const QString& word, bool attached)
{
    auto* label = new QLabel(word);
    label->setProperty("attached", attached);
    label->setMinimumHeight(30);
    line.addWidget(label);
}

// A unit with one output has nothing to choose.
void RuleCard::add_output(QLayout& line)
{
    const auto& outputs = session_.document().variant().unit.outputs;
    if (outputs.size() < 2)
        return add_word(line, QStringLiteral("<b style='color:%1'>%2</b>").arg(theme().accent.name(), qs(rule().output)));
    auto* button = new QPushButton(qs(rule().output));
    button->setObjectName("word");
    button->setToolTip(tr("Choose another output"));
    auto* menu = new QMenu(button);
    for (const Output& o : outputs)
        menu->addAction(QStringLiteral("%1  %2").arg(qs(o.key), qs(o.name)), this, [this, key = o.key] {
            session_.document().edit_variant(tr("Choose an output"), [&](Variant& v) { v.unit.rules[rule_].output = key; });
        });
    button->setMenu(menu);
    line.addWidget(button);
}

void RuleCard::add_number(QLayout& line, const std::string& key)
{
    const auto all = std::visit([](const auto& body) { return number_fields(body); }, rule().body);
    for (const auto& [field, value] : all) {
        if (key != field.key)
            continue;
        auto* edit = new NumberEdit(session_, field);
        edit->setObjectName(QStringLiteral("rule%1.%2").arg(rule_).arg(qs(key)));
        edit->set_value(value);
        numbers_.emplace_back(key, edit);
        connect(edit, &NumberEdit::edited, this, [this, key](double v) {
            session_.document().edit_variant(tr("Change a rule"), [&](Variant& x) { std::visit([&](auto& body) { set_number(body, key, v); }, x.unit.rules[rule_].body); }, QStringLiteral("rule%1%2").arg(rule_).arg(qs(key)));
        });
        line.addWidget(edit);
    }
}

void RuleCard::add_probe(QLayout& line, const std::string& key)
{
    Rule copy = rule();
    const std::string* now = text_field(copy, key);
    QString name = now ? qs(*now) : QString();
    auto* button = new QPushButton;
    button->setObjectName("word");
    auto* menu = new QMenu(button);
    for (const Probe& p : session_.document().variant().probes) {
        if (now && p.key == *now)
            name = qs(p.name).toLower();
        menu->addAction(QStringLiteral("%1  %2").arg(qs(p.key), qs(p.name)), this, [this, key, probe = p.key] {
            session_.document().edit_variant(tr("Choose a probe"), [&](Variant& v) {
                if (std::string* s = text_field(v.unit.rules[rule_], key))
                    *s = probe;
            });
        });
    }
    button->setText(name);
    button->setToolTip(tr("Choose another probe"));
    button->setMenu(menu);
    line.addWidget(button);
}

void RuleCard::refresh()
{
    const auto all = std::visit([](const auto& body) { return number_fields(body); }, rule().body);
    for (auto& [key, edit] : numbers_)
        for (const auto& [field, value] : all)
            if (key == field.key)
                edit->set_value(value);
}

RulesStation::RulesStation(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    auto* left = new QVBoxLayout;
    auto* title = new QHBoxLayout;
    title->addWidget(heading(tr("Rules"), "h1"));
    auto* order = new QLabel(tr("the higher wins"));
    order->setObjectName("second");
    title->addWidget(order, 1);
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
    left->addWidget(scroll, 1);
    auto* right = new QVBoxLayout;
    auto* map_head = new QHBoxLayout;
    map_head->addWidget(heading(tr("Operating map"), "h1"));
    auto* hint = new QLabel(tr("drag a line to change its rule"));
    hint->setObjectName("second");
    map_head->addWidget(hint, 1);
    auto* plain = new QPushButton(tr("plain axes"));
    plain->setObjectName("quiet");
    plain->setCheckable(true);
    map_head->addWidget(plain);
    map_ = new OperatingMap(session);
    connect(plain, &QPushButton::toggled, map_, &OperatingMap::set_plain_axes);
    right->addLayout(map_head);
    right->addWidget(map_, 1);
    auto* box = new QHBoxLayout(this);
    box->setContentsMargins(14, 10, 10, 8);
    box->setSpacing(12);
    box->addLayout(left, 9);
    box->addLayout(right, 10);
    connect(&session.document(), &Document::changed, this, &RulesStation::refresh);
    connect(&session.document(), &Document::view_changed, this, &RulesStation::rebuild);
    rebuild();
}

// Cards are built anew only when more than numbers changed, so that the field
// being typed in stays.
void RulesStation::refresh()
{
    const Variant& v = session_.document().variant();
    QString shape;
    for (const Rule& r : v.unit.rules) {
        shape += QStringLiteral("%1%2%3").arg(r.body.index()).arg(r.enabled).arg(qs(r.output));
        Rule copy = r;
        for (const char* key : {"source", "store", "probe"})
            if (const std::string* s = text_field(copy, key))
                shape += qs(*s);
    }
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
            shown_.push_back(new RuleCard(session_, i));
            cards_->addWidget(shown_.back());
        }
        cards_->addWidget(add_button());
        cards_->addStretch(1);
    }
    for (RuleCard* card : shown_)
        card->refresh();
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
    const Variant& v = session_.document().variant();
    const std::string any = v.probes.front().key, last = v.probes.size() > 1 ? v.probes[1].key : any;
    const std::array<Rule, 5> fresh{Rule{"", true, Differential{any, last, TempDiff::kelvin(8), TempDiff::kelvin(4)}}, Rule{"", true, StoreLimit{last, Temperature::celsius(65), TempDiff::kelvin(4)}},
                                    Rule{"", true, CutOut{any, Temperature::celsius(125), TempDiff::kelvin(15)}}, Rule{"", true, RunTimes{60, 60}},
                                    Rule{"", true, Divert{any, Temperature::celsius(90), TempDiff::kelvin(8)}}};
    for (std::size_t k = 0; k < fresh.size(); ++k)
        menu->addAction(QString::fromUtf8(rule_kinds()[k].title), this, [this, rule = fresh[k]] {
            session_.document().edit_variant(tr("Add a rule"), [&](Variant& x) {
                Rule r = rule;
                r.output = x.unit.outputs.front().key;
                x.unit.rules.push_back(r);
                sort_by_rank(x.unit.rules);
            });
        });
    button->setMenu(menu);
    return button;
}

} // namespace vernal
