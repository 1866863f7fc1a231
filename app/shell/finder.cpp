#include "finder.h"

#include "app/findings/finding_mark.h"
#include "core/plant/valve_board.h"
#include "core/sums/field_sums.h"
#include "core/wording/sentence.h"
#include "station.h"

#include <algorithm>

namespace vernal {
namespace {

constexpr qsizetype most_shown = 80;

const Rule* rule_at(const Variant& v, const std::string& path)
{
    if (path.rfind("rule/", 0) != 0)
        return nullptr;
    const std::string id = path.substr(5, path.find('/', 5) - 5);
    const auto it = std::find_if(v.unit.rules.begin(), v.unit.rules.end(), [&](const Rule& r) { return r.id == id; });
    return it == v.unit.rules.end() ? nullptr : &*it;
}

QString capital(QString s)
{
    s.replace('_', ' ');
    return s.isEmpty() ? s : s.left(1).toUpper() + s.mid(1);
}

// What a setting belongs to, in words: "Difference for P1", "Tank", "Collector (probe)".
QString owner_of(const Job& job, const Variant& v, const std::string& path)
{
    const QStringList steps = qs(path).split('/');
    if (const Rule* r = rule_at(v, path))
        return QObject::tr("%1 for %2").arg(QString::fromUtf8(kind_of(*r).title), qs(r->output));
    const auto named = [&](const auto& all, auto name) {
        for (const auto& x : all)
            if (steps.size() > 1 && qs(x.id) == steps[1])
                return qs(name(x));
        return QString();
    };
    if (steps[0] == QLatin1String("probe"))
        return QObject::tr("Probe %1").arg(named(v.probes, [](const Probe& p) { return p.key + " " + p.name; }));
    if (steps[0] == QLatin1String("output"))
        return QObject::tr("Output %1").arg(named(v.unit.outputs, [](const Output& o) { return o.key + " " + o.name; }));
    if (steps[0] == QLatin1String("day"))
        return QObject::tr("Day %1").arg(named(job.days, [](const Day& d) { return d.name; }));
    if (steps[0] == QLatin1String("loop") && steps.size() > 2)
        return capital(steps[1]);
    return capital(steps[0]);
}

// Of a part that this loop does not have.
bool is_foreign(const Arrangement& own, const std::string& path)
{
    const auto belongs = [&](Part p) { return !part_path(p).empty() && path.rfind(part_path(p) + "/", 0) == 0; };
    if (std::any_of(own.parts.begin(), own.parts.end(), belongs))
        return false;
    if (path.starts_with("loop/valves/")) {
        const auto here = valves_of(own);
        return std::none_of(here.begin(), here.end(), [&](HandValve v) { return path.ends_with(std::string("/") + valve_keys[static_cast<std::size_t>(v)]); });
    }
    for (std::size_t p = 0; p < part_count; ++p)
        if (belongs(static_cast<Part>(p)))
            return true;
    return false;
}

// Of a probe: what only a thermometer, or only an instrument, has.
bool is_of_another_kind(const Variant& v, const std::string& path)
{
    for (const Probe& p : v.probes)
        if (const std::string own = "probe/" + p.id + "/"; path.starts_with(own)) {
            const std::string rest = path.substr(own.size());
            const bool both = rest == "name" || rest == "key" || rest == "place" || rest == "condition/kind";
            return !both && rest.starts_with("instrument/") == reads_temperature(p);
        }
    return false;
}

bool has_all(const QString& text, const QStringList& words)
{
    return std::all_of(words.begin(), words.end(), [&](const QString& w) { return text.contains(w, Qt::CaseInsensitive); });
}

QString value_text(const Setting& s, const Units& u)
{
    if (!s.numeric())
        return qs(s.value);
    const auto inside = parse(s.value, Quantity::number, {});
    return inside ? text(*inside, s.quantity, u) : qs(s.value);
}

} // namespace

Finder::Finder(Session& session, QList<FoundEntry> commands, Places places) : session_(session), places_(std::move(places)), all_(std::move(commands))
{
    add_jobs_own();
    add_settings();
    add_sums();
}

void Finder::add_jobs_own()
{
    Document& d = session_.document();
    for (std::size_t i = 0; i < d.job().days.size(); ++i)
        all_.append({QObject::tr("Day: %1").arg(qs(d.job().days[i].name)), {}, {}, [&d, i] { d.choose_day(i); }});
    for (std::size_t i = 0; i < d.job().variants.size(); ++i)
        all_.append({QObject::tr("Variant: %1").arg(qs(d.job().variants[i].name)), {}, {}, [&d, i] { d.choose_variant(i); }});
    for (const Rule& r : d.variant().unit.rules)
        all_.append({QObject::tr("Rule: %1").arg(qs(sentence(d.variant(), r, session_.units()))), {}, QString::fromUtf8(kind_of(r).title) + ' ' + QString::fromUtf8(kind_of(r).group), [go = places_.setting, path = "rule/" + r.id] { go(path); }});
    for (const Probe& p : d.variant().probes)
        all_.append({QObject::tr("Probe: %1 %2").arg(qs(p.key), qs(p.name)), {}, {}, [go = places_.setting, path = "probe/" + p.id] { go(path); }});
    for (const Finding& f : session_.findings())
        all_.append({QObject::tr("Finding: %1").arg(qs(f.title)), QString::fromUtf8(severity_text(f.severity)), qs(f.reason), [go = places_.finding, which = finding_key(f)] { go(which); }});
}

void Finder::add_sums()
{
    const Document& d = session_.document();
    const Arrangement& a = arrangement_of(d.variant().loop);
    for (const FieldSum& sum : field_sums())
        if ((sum.page != ProbePage::none || std::any_of(sum.parts.begin(), sum.parts.end(), [&](Part p) { return a.has(p); })) && (!sum.applies || sum.applies(a)))
            all_.append({QObject::tr("Sum: %1").arg(QString::fromUtf8(sum.title)), {}, {}, [go = places_.sum, key = std::string(sum.key)] { go(key); }});
}

void Finder::add_settings()
{
    const Document& d = session_.document();
    const std::string own_day = "day/" + d.day().id + "/";
    const Arrangement& loop = arrangement_of(d.variant().loop);
    for (Setting& s : settings_of(d.job(), d.variant_index())) {
        if (s.fixed || s.label.empty() || (s.path.rfind("day/", 0) == 0 && s.path.rfind(own_day, 0) != 0) || is_foreign(loop, s.path) || is_of_another_kind(d.variant(), s.path))
            continue;
        const QString owner = owner_of(d.job(), d.variant(), s.path);
        const Rule* r = rule_at(d.variant(), s.path);
        const QString name = QObject::tr("%1: %2").arg(owner, qs(s.label).toLower());
        const QString words = name + ' ' + qs(s.path).replace('/', ' ').replace('_', ' ') + ' ' + (r ? QString::fromUtf8(kind_of(*r).group) : QString());
        all_.append({name, value_text(s, session_.units()), words, [go = places_.setting, path = s.path] { go(path); }});
        if (s.numeric())
            settings_.emplace_back(words, std::move(s));
    }
}

QList<FoundEntry> Finder::with_value(const QStringList& words, const QString& value) const
{
    QList<FoundEntry> out;
    qsizetype rules = 0; // their sentences come first
    const Document& d = session_.document();
    for (const auto& [known_by, s] : settings_) {
        if (!has_all(known_by, words))
            continue;
        const auto inside = parse(value.toStdString(), s.quantity, session_.units());
        if (!inside || *inside < s.min || *inside > s.max)
            continue;
        Job after = d.job();
        if (!set_setting(after, d.variant_index(), s.path, *inside))
            continue;
        const Variant& v = after.variants[d.variant_index()];
        const Rule* r = rule_at(v, s.path);
        const QString name = r ? qs(sentence(v, *r, session_.units())) : QObject::tr("%1: %2 %3").arg(owner_of(d.job(), d.variant(), s.path), qs(s.label).toLower(), text(*inside, s.quantity, session_.units()));
        FoundEntry e{name, QObject::tr("now %1").arg(value_text(s, session_.units())), {}, [this_session = &session_, path = s.path, to = *inside] { this_session->document().set(QObject::tr("Set what was found"), path, to); }};
        out.insert(r ? rules++ : out.size(), std::move(e));
    }
    return out;
}

QList<FoundEntry> Finder::find(const QString& typed) const
{
    const QStringList words = typed.split(' ', Qt::SkipEmptyParts);
    QList<FoundEntry> out;
    // The value is what stands from the first word on that begins as a number does.
    const auto number = std::find_if(words.begin(), words.end(), [](const QString& w) { return w[0].isDigit() || ((w[0] == '-' || w[0] == QChar(0x2212)) && w.size() > 1); });
    if (number != words.begin() && number != words.end())
        out = with_value(QStringList(words.begin(), number), QStringList(number, words.end()).join(' '));
    for (const FoundEntry& e : all_)
        if (has_all(e.name + ' ' + e.words, words))
            out.append(e);
    return out.mid(0, most_shown);
}

} // namespace vernal
