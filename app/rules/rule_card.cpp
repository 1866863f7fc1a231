#include "rule_card.h"

#include "app/shell/theme.h"
#include "app/widgets/flow_layout.h"
#include "app/widgets/form.h"
#include "core/job/fresh_rule.h"

#include <QHBoxLayout>
#include <QMenu>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <map>

namespace vernal {
namespace {

QString colour_of_group(const RuleKind& k)
{
    const std::string group = k.group;
    return (group == "Protect" ? theme().protect : group == "Comfort" || group == "Freeze" ? theme().start
                                               : group == "Heat"                           ? theme().caution
                                                                                           : theme().accent)
        .name();
}

// The choices of a rule, by the key of the field: how a speed is driven.
struct Choices : FieldVisitor {
    std::map<std::string, std::pair<std::size_t, std::vector<std::string>>> found;
    template <class Names, class E>
    void choice(const char* key, const Names& names, E x) { found[key] = {static_cast<std::size_t>(x), {names.begin(), names.end()}}; }
};
auto choices_of(const Rule& rule)
{
    Choices c;
    std::visit([&](const auto& body) { fields(c, body); }, rule.body);
    return c.found;
}
std::vector<SwitchFields::Found> switches_of(const Rule& rule)
{
    return std::visit([](const auto& body) { return switch_fields(body); }, rule.body);
}

// What a choice says in a sentence.
QString words_of(const std::string& choice)
{
    return choice == "bursts" ? QObject::tr("bursts of full power") : choice == "pwm" ? QObject::tr("turning slower")
                                                                                      : qs(choice);
}

QStringList keys_in(const char* words)
{
    QStringList out;
    const QString whole = QString::fromUtf8(words);
    for (qsizetype open = whole.indexOf('{'); open >= 0; open = whole.indexOf('{', open + 1))
        out << whole.mid(open + 1, whole.indexOf('}', open) - open - 1);
    return out;
}

} // namespace

QString shape_of(const Rule& rule)
{
    Rule copy = rule;
    QString shape = QStringLiteral("%1%2").arg(rule.body.index()).arg(rule.enabled);
    for (const KeyOf& k : keys_of(copy))
        shape += qs(*k.key) + '|';
    for (const auto& s : switches_of(rule))
        shape += s.on ? '1' : '0';
    for (const auto& [key, choice] : choices_of(rule))
        shape += QString::number(choice.first);
    return shape;
}

RuleCard::RuleCard(Session& session, std::size_t rule, bool open, QWidget* parent) : QFrame(parent), session_(session), rule_(rule), open_(open)
{
    setObjectName("card");
    setStyleSheet(QStringLiteral("QFrame#card { border-left: 5px solid %1; }").arg(colour_of_group(kind_of(this->rule()))));
    build();
}

const Rule& RuleCard::rule() const { return session_.document().variant().unit.rules[rule_]; }

std::string RuleCard::path(const std::string& field) const { return "rule/" + rule().id + "/" + field; }

bool RuleCard::has_details() const { return *kind_of(rule()).details != '\0'; }

bool RuleCard::details_said() const
{
    Rule usual = fresh_rule(session_.document().variant(), rule().body.index()), copy = rule();
    const auto numbers = [](const Rule& r) { return std::visit([](const auto& body) { return number_fields(body); }, r.body); };
    const auto now = numbers(copy), then = numbers(usual);
    for (const QString& key : keys_in(kind_of(rule()).details)) {
        for (std::size_t i = 0; i < now.size(); ++i)
            if (key == QString::fromUtf8(now[i].field.key) && now[i].value != then[i].value)
                return true;
        const auto keys = keys_of(copy), usual_keys = keys_of(usual);
        for (std::size_t i = 0; i < keys.size(); ++i)
            if (key == QString::fromUtf8(keys[i].field) && *keys[i].key != *usual_keys[i].key)
                return true;
    }
    return shape_of(copy).section('|', -1) != shape_of(usual).section('|', -1);
}

QWidget* RuleCard::head()
{
    auto* row = new QWidget;
    auto* box = new QHBoxLayout(row);
    box->setContentsMargins(0, 0, 0, 0);
    const RuleKind& k = kind_of(rule());
    auto* title = new QLabel(QStringLiteral("<b style='color:%1'>%2</b>").arg(colour_of_group(k), QString::fromUtf8(k.title)));
    title->setToolTip(QString::fromUtf8(k.why));
    title->setWordWrap(true);
    title->setMinimumWidth(1); // a long one wraps rather than widen the column
    auto* group = new QLabel(QString::fromUtf8(k.group));
    group->setObjectName("second");
    box->addWidget(title, 1);
    box->addWidget(group);
    if (has_details()) {
        auto* details = new QPushButton(tr("details"));
        details->setObjectName("quiet");
        details->setCheckable(true);
        details->setChecked(open_ || details_said());
        details->setEnabled(!details_said());
        details->setToolTip(details_said() ? tr("Some are not as usual, so they are shown") : tr("What most leave alone"));
        connect(details, &QPushButton::clicked, this, [this](bool on) { emit opened(rule_, on); });
        box->addWidget(details);
    }
    auto* more = new QPushButton(QStringLiteral("…"));
    more->setObjectName("quiet");
    more->setAccessibleName(tr("More about %1").arg(QString::fromUtf8(k.title)));
    more->setFixedSize(34, 32);
    auto* menu = new QMenu(more);
    menu->addAction(QString::fromUtf8(k.why))->setEnabled(false);
    menu->addSeparator();
    menu->addAction(tr("Move up"), this, [this] { move(-1); });
    menu->addAction(tr("Move down"), this, [this] { move(1); });
    menu->addAction(rule().enabled ? tr("Switch this rule off") : tr("Switch this rule on"), this, [this] {
        session_.document().edit_variant(tr("Switch a rule"), [i = rule_](Variant& v) { v.unit.rules[i].enabled = !v.unit.rules[i].enabled; });
    });
    menu->addAction(tr("Remove this rule"), this, [this] {
        session_.document().edit_variant(tr("Remove a rule"), [i = rule_](Variant& v) { v.unit.rules.erase(v.unit.rules.begin() + static_cast<std::ptrdiff_t>(i)); });
    });
    more->setMenu(menu);
    box->addWidget(more);
    return row;
}

void RuleCard::move(int by)
{
    const std::size_t to = rule_ + static_cast<std::size_t>(static_cast<std::ptrdiff_t>(by));
    std::vector<Rule> rules = session_.document().variant().unit.rules;
    if (to >= rules.size())
        return emit refused(tr("It is the %1 of all already.").arg(by < 0 ? tr("first") : tr("last")));
    if (const auto reason = move_rule(rules, rule_, to))
        return emit refused(qs(*reason));
    session_.document().edit_variant(tr("Move a rule"), [&](Variant& v) { v.unit.rules = rules; });
}

void RuleCard::build()
{
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(12, 1, 6, 4);
    box->setSpacing(0);
    box->addWidget(head());
    box->addWidget(sentence(kind_of(rule()).sentence));
    if (has_details() && (open_ || details_said()))
        box->addWidget(sentence(kind_of(rule()).details));
    if (!rule().enabled) {
        auto* off = new QLabel(tr("switched off"));
        off->setObjectName("second");
        box->addWidget(off);
    }
}

QWidget* RuleCard::sentence(const char* text)
{
    auto* out = new QWidget;
    auto* line = new FlowLayout(out, 5, 2);
    for (const QString& w : QString::fromUtf8(text).split(' ')) {
        const int open = static_cast<int>(w.indexOf('{')), close = static_cast<int>(w.indexOf('}'));
        if (open < 0) {
            add_word(*line, w);
            continue;
        }
        add_field(*line, w.mid(open + 1, close - open - 1).toStdString());
        if (const QString rest = w.mid(close + 1); !rest.isEmpty())
            add_word(*line, rest, true);
    }
    out->setEnabled(rule().enabled);
    return out;
}

void RuleCard::add_field(QLayout& line, const std::string& key)
{
    Rule copy = rule();
    for (const KeyOf& k : keys_of(copy))
        if (key == k.field)
            return add_key(line, k);
    for (const auto& s : switches_of(rule()))
        if (key == s.field.key)
            return add_choice(line, key, {"false", "true"}, s.on ? 1 : 0, {tr("no"), tr("yes")});
    if (const auto all = choices_of(rule()); all.count(key) != 0) {
        const auto& [now, names] = all.at(key);
        QStringList words;
        for (const std::string& name : names)
            words << words_of(name);
        return add_choice(line, key, names, now, words);
    }
    add_number(line, key);
}

void RuleCard::add_word(QLayout& line, const QString& word, bool attached)
{
    auto* label = new QLabel(word);
    label->setProperty("attached", attached);
    label->setMinimumHeight(30);
    line.addWidget(label);
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
        connect(edit, &NumberEdit::edited, this, [this, key](double v) { session_.document().set(tr("Change a rule"), path(key), v); });
        line.addWidget(edit);
    }
}

// A probe or an output of the sentence; one with nothing to choose is a word.
void RuleCard::add_key(QLayout& line, const KeyOf& k)
{
    const Variant& v = session_.document().variant();
    const bool probe = k.of == KeyOf::Of::probe;
    if (!probe && v.unit.outputs.size() < 2 && !k.may_be_empty)
        return add_word(line, QStringLiteral("<b style='color:%1'>%2</b>").arg(theme().accent.name(), qs(*k.key)));
    const std::string field = k.field;
    QString shown = k.key->empty() ? tr(k.nothing) : qs(*k.key);
    auto* button = new QPushButton;
    button->setObjectName("word");
    button->setProperty("field", QStringLiteral("rule%1.%2").arg(rule_).arg(qs(field)));
    auto* menu = new QMenu(button);
    const auto offer = [&](const QString& text, const std::string& key) {
        menu->addAction(text, this, [this, field, key] { session_.document().set(tr("Choose in a rule"), path(field), key); });
    };
    if (k.may_be_empty)
        offer(tr(k.nothing), "");
    if (probe)
        for (const Probe& p : v.probes) {
            if (p.key == *k.key)
                shown = qs(p.name).toLower();
            offer(QStringLiteral("%1  %2").arg(qs(p.key), qs(p.name)), p.key);
        }
    else
        for (const Output& o : v.unit.outputs)
            offer(QStringLiteral("%1  %2").arg(qs(o.key), qs(o.name)), o.key);
    button->setText(shown);
    button->setToolTip(probe ? tr("Choose another probe") : tr("Choose another output"));
    button->setMenu(menu);
    line.addWidget(button);
}

// A word that a click turns into the next one.
void RuleCard::add_choice(QLayout& line, const std::string& key, const std::vector<std::string>& names, std::size_t now, const QStringList& words)
{
    auto* button = new QPushButton(words[static_cast<qsizetype>(now)]);
    button->setObjectName("word");
    button->setToolTip(tr("Click for another: %1").arg(words.join(QStringLiteral(", "))));
    connect(button, &QPushButton::clicked, this, [this, key, next = names[(now + 1) % names.size()]] { session_.document().set(tr("Change a rule"), path(key), next); });
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

} // namespace vernal
