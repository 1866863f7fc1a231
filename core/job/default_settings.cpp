#include "field_path.h"

namespace vernal {
namespace {

// A list as long, each entry as it is when a file says nothing of it but its name and key.
template <class T, class Keep>
void blank(std::vector<T>& items, Keep keep)
{
    for (T& item : items) {
        const T was = std::move(item);
        item = T{};
        keep(item, was);
    }
}

RuleBody fresh_body(const RuleBody& body)
{
    return std::visit([](const auto& b) -> RuleBody { return std::decay_t<decltype(b)>{}; }, body);
}

RuleSet blank_unit(const RuleSet& unit)
{
    RuleSet out;
    out.outputs = unit.outputs;
    blank(out.outputs, [](Output& o, const Output& was) {
        o.key = was.key;
        o.id = was.id;
        o.faults.resize(was.faults.size());
    });
    out.rules = unit.rules;
    blank(out.rules, [](Rule& r, const Rule& was) {
        r.body = fresh_body(was.body);
        r.id = was.id;
    });
    return out;
}

Variant blank_variant(const Variant& v)
{
    Variant out;
    out.loop.answers = v.loop.answers;
    out.probes = v.probes;
    blank(out.probes, [](Probe& p, const Probe& was) {
        p.key = was.key;
        p.id = was.id;
        p.points.resize(was.points.size());
    });
    out.unit = blank_unit(v.unit);
    return out;
}

} // namespace

std::map<std::string, std::string> default_settings(const Job& job, std::size_t variant)
{
    Job out;
    out.days = job.days;
    blank(out.days, [](Day& d, const Day& was) {
        d.id = was.id;
        d.draws.resize(was.draws.size());
    });
    out.variants = {blank_variant(job.variants[variant])};
    std::map<std::string, std::string> found;
    for (Setting& s : settings_of(out, 0))
        found[s.path] = std::move(s.value);
    return found;
}

} // namespace vernal
