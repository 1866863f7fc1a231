#include "rule_words.h"

#include "app/shell/session.h"
#include "core/job/fresh_rule.h"

namespace vernal {
namespace {

// The choices of a rule, by the key of the field: how a speed is driven.
struct Choices : FieldVisitor {
    std::map<std::string, std::pair<std::size_t, std::vector<std::string>>> found;
    template <class Names, class E>
    void choice(const char* key, const Names& names, E x) { found[key] = {static_cast<std::size_t>(x), {names.begin(), names.end()}}; }
};

QStringList keys_in(const char* words)
{
    QStringList out;
    const QString whole = QString::fromUtf8(words);
    for (qsizetype open = whole.indexOf('{'); open >= 0; open = whole.indexOf('{', open + 1))
        out << whole.mid(open + 1, whole.indexOf('}', open) - open - 1);
    return out;
}

} // namespace

RuleChoices choices_of(const Rule& rule)
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

bool details_said(const Variant& v, const Rule& rule)
{
    Rule usual = fresh_rule(v, rule.body.index()), copy = rule;
    const auto numbers = [](const Rule& r) { return std::visit([](const auto& body) { return number_fields(body); }, r.body); };
    const auto now = numbers(copy), then = numbers(usual);
    for (const QString& key : keys_in(kind_of(rule).details)) {
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

} // namespace vernal
