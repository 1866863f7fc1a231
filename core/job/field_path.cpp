#include "field_path.h"

#include "fresh_loop.h"

#include "core/plant/parts.h"
#include "field_walk.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <span>

namespace vernal {

using namespace paths;

namespace {

std::vector<std::string> components_of(const std::string& path)
{
    std::vector<std::string> out(1);
    for (char c : path)
        c == '/' ? void(out.emplace_back()) : out.back().push_back(c);
    return out;
}

struct VariantName {
    std::string& name;
};
template <class V>
void fields(V& v, VariantName& x)
{
    v.text("name", x.name);
}

void walk(Walk& w, Job& job, Variant& v)
{
    w.text("title", job.title);
    w.object("site", job.site);
    VariantName name{v.name};
    w.object("variant", name);
    w.object("loop", v.loop);
    w.entries("probe", v.probes);
    w.object("unit", v.unit);
    w.entries("output", v.unit.outputs);
    w.entries("rule", v.unit.rules);
    w.object("input", v.input);
    w.object("knob", v.unit.knob);
    w.entries("horizon", v.horizon);
    w.entries("day", job.days);
    w.close();
}

Result<Leaf> leaf_at(Job& job, std::size_t variant, const std::string& path)
{
    std::vector<std::string> way = components_of(path);
    if (way.size() > 2 && way.front() == "variant") {
        const auto it = std::find_if(job.variants.begin(), job.variants.end(), [&](const Variant& v) { return v.id == way[1] || v.name == way[1]; });
        if (it == job.variants.end())
            return Error{"there is no variant “" + way[1] + "”", path, ""};
        variant = static_cast<std::size_t>(it - job.variants.begin());
        way.erase(way.begin(), way.begin() + 2);
    }
    Variant& v = job.variants[variant];
    Walk::Shared shared{v, {}, {}, {}};
    Walk root(shared, "", Walk::Way(way));
    walk(root, job, v);
    if (shared.found.size() == 1 && shared.lost.empty())
        return std::move(shared.found.front());
    const std::string lost = shared.lost.empty() ? path : shared.lost;
    return Error{"there is no setting “" + lost + "”", path, shared.there.empty() ? "" : choices_text(shared.there) + " there"};
}

} // namespace

namespace {

struct KeyAt : FieldVisitor {
    const void* wanted = nullptr;
    std::string key;
    template <class T>
    void object(const char* k, T& x) { key = &x == wanted ? k : key; }
    template <class T>
    void spare_object(const char* k, T& x) { object(k, x); }
};

} // namespace

std::string part_path(Part part)
{
    Loop loop;
    KeyAt at;
    with_part(loop, part, [&](auto& x) { at.wanted = &x; });
    if (at.wanted)
        fields(at, loop);
    return at.key.empty() ? "" : "loop/" + at.key;
}

std::vector<Setting> settings_of(const Job& job, std::size_t variant)
{
    Job copy = job; // the walk could write; it does not
    Walk::Shared shared{copy.variants[variant], {}, {}, {}};
    Walk root(shared, "", {});
    walk(root, copy, copy.variants[variant]);
    std::vector<Setting> out;
    for (Leaf& l : shared.found)
        out.push_back(std::move(l.setting));
    return out;
}

Result<Setting> setting_at(const Job& job, std::size_t variant, const std::string& path)
{
    Job copy = job;
    auto leaf = leaf_at(copy, variant, path);
    if (!leaf)
        return leaf.error();
    return std::move(leaf->setting);
}

namespace {

// An array that grows holds more, as long as its content is what a new loop of its answers has per
// square metre: another one was stated.
void content_follows_area(Loop& now, const Loop& before)
{
    if (now.collector.area_m2 == before.collector.area_m2 && now.collector_2.area_m2 == before.collector_2.area_m2)
        return;
    Variant fresh;
    fill_fresh(fresh, now.answers, usual_probes(now.answers));
    for (Collector Loop::*array : {&Loop::collector, &Loop::collector_2}) {
        Collector& c = now.*array;
        const Collector &was = before.*array, &usual = fresh.loop.*array;
        const double usual_m3 = usual.area_m2 > 0 ? usual.content_m3 / usual.area_m2 * was.area_m2 : 0;
        if (c.area_m2 != was.area_m2 && was.area_m2 > 0 && c.content_m3 == was.content_m3 && std::fabs(was.content_m3 - usual_m3) < 1e-6 * usual_m3)
            c.content_m3 *= c.area_m2 / was.area_m2;
    }
}

} // namespace

Result<std::monostate> put_setting(Job& job, std::size_t variant, const std::string& path, const std::string& value)
{
    auto leaf = leaf_at(job, variant, path);
    if (!leaf)
        return leaf.error();
    if (leaf->setting.fixed)
        return Error{"this cannot be changed: rules and readings hang on it", leaf->setting.path, "Add another and remove this one"};
    if (const auto error = leaf->put(value))
        return *error;
    return std::monostate{};
}

Result<std::monostate> set_setting(Job& job, std::size_t variant, const std::string& path, const std::string& value)
{
    const Loop before = job.variants[variant].loop;
    auto done = put_setting(job, variant, path, value);
    if (done)
        content_follows_area(job.variants[variant].loop, before);
    return done;
}

Result<std::monostate> set_setting(Job& job, std::size_t variant, const std::string& path, double value) { return set_setting(job, variant, path, exact_text(value)); }

} // namespace vernal
