#include "rejoin.h"

#include "core/job/field_path.h"

#include <algorithm>
#include <set>

namespace vernal {
namespace {

std::map<std::string, std::string> loop_settings(const Job& job)
{
    std::map<std::string, std::string> out;
    for (Setting& s : settings_of(job, 0))
        if (s.path.rfind("loop/", 0) == 0 && s.path.rfind("loop/answers/", 0) != 0)
            out[s.path] = std::move(s.value);
    return out;
}

// What a collector of another kind brings; how it lies stays.
bool of_its_kind(const std::string& path)
{
    return path.rfind("loop/collector", 0) == 0 && !path.ends_with("/area_m2") && !path.ends_with("/tilt_deg") && !path.ends_with("/azimuth_deg");
}

bool is_driver(const Arrangement& a, std::size_t output) { return output < a.drivers.size(); }

// What a rule is about: its kind, and the probes and outputs it names, its own among them.
std::string subject(Rule rule)
{
    std::string s = kind_of(rule).key;
    for (const KeyOf& k : keys_of(rule))
        s += "/" + *k.key;
    return s;
}

bool alike(const Rule& a, const Rule& b) { return a.output == b.output && a.enabled == b.enabled && a.body == b.body; }

class Rejoining {
public:
    Rejoining(const Variant& v, const LoopAnswers& answers)
        : was_(v), base_(new_job(v.loop.answers).variants.front()), fresh_(new_job(answers)), from_(arrangement_of(v.loop)), to_(arrangement_of(answers)), out_(v) {}

    Variant make()
    {
        loop();
        probes();
        outputs();
        rules();
        sort_by_priority(out_.unit.rules);
        return std::move(out_);
    }

private:
    // Each number by itself: what differs from a fresh loop of the old answers was set by somebody.
    void loop()
    {
        Job before, now;
        before.days = now.days = fresh_.days;
        before.variants = {base_};
        now.variants = {was_};
        const auto base = loop_settings(before), mine = loop_settings(now);
        const bool other_kind = was_.loop.answers.array != to_.answers.array;
        Job next = fresh_;
        for (const auto& [path, value] : mine)
            if (const auto it = base.find(path); it != base.end() && it->second != value && !(other_kind && of_its_kind(path)))
                (void)put_setting(next, 0, path, value); // it was there before with this value
        out_.loop = next.variants.front().loop;
    }

    void probes()
    {
        const auto at = [](const std::vector<Probe>& list, ProbePlace place) {
            const auto it = std::find_if(list.begin(), list.end(), [&](const Probe& p) { return p.place == place; });
            return it == list.end() ? nullptr : &*it;
        };
        std::erase_if(out_.probes, [&](Probe p) {
            const Probe* came = at(base_.probes, p.place);
            if (came && !at(fresh_.variants.front().probes, p.place)) { // it came with what is gone
                p.id = came->id;
                if (p == *came)
                    return true;
            }
            return std::find(to_.places.begin(), to_.places.end(), p.place) == to_.places.end();
        });
        for (Probe p : fresh_.variants.front().probes) {
            const auto here = std::find_if(out_.probes.begin(), out_.probes.end(), [&](const Probe& x) { return x.place == p.place; });
            const bool had = std::any_of(base_.probes.begin(), base_.probes.end(), [&](const Probe& x) { return x.place == p.place; });
            if (here == out_.probes.end() && had && std::find(from_.places.begin(), from_.places.end(), p.place) != from_.places.end())
                continue; // somebody took it away
            std::string& own = probe_key_[p.key];
            if (here != out_.probes.end()) {
                own = here->key;
                continue;
            }
            own = p.key = free_key("S", out_.probes);
            p.id.clear();
            out_.probes.push_back(std::move(p));
        }
        if (out_.probes.empty())
            out_.probes = fresh_.variants.front().probes;
    }

    // The loop's own in their order, then what else the unit drives.
    void outputs()
    {
        const auto& fresh = fresh_.variants.front().unit.outputs;
        std::vector<Output> all;
        std::set<std::string> taken; // those of lost outputs too: a rule of somebody's would come to mean another thing
        for (const Output& o : was_.unit.outputs)
            taken.insert(o.key);
        const auto add = [&](Output o) {
            const std::string key = o.key;
            for (int n = 1; taken.contains(o.key); ++n)
                o.key = key.substr(0, 1) + std::to_string(n);
            taken.insert(o.key);
            output_key_[key] = o.key;
            o.id.clear();
            all.push_back(std::move(o));
        };
        for (std::size_t o = 0; o < to_.drivers.size(); ++o) {
            const int before = from_.output_of(to_.drivers[o]);
            if (before >= 0 && static_cast<std::size_t>(before) < was_.unit.outputs.size()) {
                all.push_back(was_.unit.outputs[static_cast<std::size_t>(before)]);
                output_key_[fresh[o].key] = all.back().key;
            } else {
                add(fresh[o]);
            }
        }
        const auto other = [&](const std::vector<Output>& list, const Arrangement& a, Drives what) {
            for (std::size_t o = 0; o < list.size(); ++o)
                if (!is_driver(a, o) && list[o].drives == what)
                    return &list[o];
            return static_cast<const Output*>(nullptr);
        };
        for (std::size_t o = 0; o < was_.unit.outputs.size(); ++o)
            if (const Output& mine = was_.unit.outputs[o]; !is_driver(from_, o)) {
                const Output* next = other(fresh, to_, mine.drives);
                if (!next && other(base_.unit.outputs, from_, mine.drives))
                    continue; // it came with what is gone
                if (next)
                    output_key_[next->key] = mine.key;
                all.push_back(mine);
            }
        for (std::size_t o = to_.drivers.size(); o < fresh.size(); ++o)
            if (!output_key_.contains(fresh[o].key))
                add(fresh[o]);
        out_.unit.outputs = std::move(all);
    }

    // A fresh rule in the words of this unit; none: a probe that it reads was taken away.
    std::optional<Rule> in_own_words(Rule rule) const
    {
        rule.id.clear();
        for (const KeyOf& k : keys_of(rule)) { // its own output is one of them
            const auto& keys = k.of == KeyOf::Of::probe ? probe_key_ : output_key_;
            const auto it = keys.find(*k.key);
            if (it == keys.end() && !k.key->empty())
                return {};
            if (it != keys.end())
                *k.key = it->second;
        }
        return rule;
    }

    void rules()
    {
        std::vector<Rule> next;
        for (const Rule& r : fresh_.variants.front().unit.rules)
            if (const auto own = in_own_words(r))
                next.push_back(*own);
        const auto about = [](const std::vector<Rule>& list, const std::string& what) {
            const auto it = std::find_if(list.begin(), list.end(), [&](const Rule& r) { return subject(r) == what; });
            return it == list.end() ? nullptr : &*it;
        };
        std::vector<Rule> all;
        for (const Rule& mine : was_.unit.rules) {
            const Rule *came = about(base_.unit.rules, subject(mine)), *comes = about(next, subject(mine));
            const bool untouched = came && alike(*came, mine);
            if (untouched && !comes)
                continue; // it came with what is gone
            Rule r = mine;
            if (untouched)
                r.body = comes->body;
            if (remains(r))
                all.push_back(std::move(r));
        }
        for (const Rule& r : next)
            if (!about(was_.unit.rules, subject(r)) && !about(base_.unit.rules, subject(r)))
                all.push_back(r);
        out_.unit.rules = std::move(all);
    }

    bool remains(Rule& r) const
    {
        const auto has = [](const auto& list, const std::string& key) { return std::any_of(list.begin(), list.end(), [&](const auto& x) { return x.key == key; }); };
        for (const KeyOf& k : keys_of(r))
            if (!k.key->empty() && !(k.of == KeyOf::Of::probe ? has(out_.probes, *k.key) : has(out_.unit.outputs, *k.key)))
                return false;
        return true;
    }

    static std::string free_key(const std::string& base, const std::vector<Probe>& probes)
    {
        for (int n = 1;; ++n)
            if (const std::string key = base + std::to_string(n); std::none_of(probes.begin(), probes.end(), [&](const Probe& p) { return p.key == key; }))
                return key;
    }

    const Variant& was_;
    Variant base_;
    Job fresh_;
    const Arrangement &from_, &to_;
    Variant out_;
    std::map<std::string, std::string> probe_key_, output_key_; // of the fresh loop → of this unit
};

} // namespace

LoopAnswers answered_otherwise(const LoopAnswers& now, std::size_t question, std::size_t answer)
{
    static const std::vector<LoopAnswers> all = all_answers();
    const auto& questions = loop_questions();
    const auto far = [&](const LoopAnswers& a) { return std::count_if(questions.begin(), questions.end(), [&](const LoopQuestion& q) { return q.get(a) != q.get(now); }); };
    const LoopAnswers* nearest = nullptr;
    for (const LoopAnswers& a : all)
        if (questions[question].get(a) == answer && (!nearest || far(a) < far(*nearest)))
            nearest = &a;
    return *nearest;
}

Variant rejoined(const Variant& v, const LoopAnswers& answers) { return Rejoining(v, answers).make(); }

} // namespace vernal
