#include "ids.h"

#include <algorithm>
#include <set>

namespace vernal {
namespace {

using Taken = std::set<std::string>;

constexpr std::size_t longest_id = 32;

// FNV-1a of 64 bits (Fowler, Noll, Vo), folded to four hex digits: short enough to type.
std::string digits_of(const std::string& text)
{
    std::uint64_t h = 14695981039346656037ULL;
    for (char c : text)
        h = (h ^ static_cast<unsigned char>(c)) * 1099511628211ULL;
    const std::uint64_t folded = (h ^ h >> 16 ^ h >> 32 ^ h >> 48) & 0xffff;
    std::string out;
    for (int shift = 12; shift >= 0; shift -= 4)
        out += "0123456789abcdef"[folded >> shift & 0xf];
    return out;
}

// The first of its likeness' ids that is free, "rule|differential|P1|0", "…|1".
std::string free_id(const std::string& likeness, const Taken& taken)
{
    for (int n = 0;; ++n)
        if (std::string id = digits_of(likeness + "|" + std::to_string(n)); taken.count(id) == 0)
            return id;
}

// `elsewhere`: taken beyond this list, for what is new.
template <class Item, class Likeness>
void give(std::vector<Item>& items, const Taken& elsewhere, Likeness likeness)
{
    Taken here;
    const auto lacks = [&](const Item& x) { return x.id.empty() || !here.insert(x.id).second; };
    std::vector<Item*> without;
    for (Item& x : items)
        if (lacks(x))
            without.push_back(&x);
    if (without.empty())
        return;
    here.insert(elsewhere.begin(), elsewhere.end());
    for (Item* x : without)
        here.insert(x->id = free_id(likeness(*x), here));
}

template <class Items>
Taken ids_of(const Job& job, Items items)
{
    Taken out;
    for (const Variant& v : job.variants)
        for (const auto& x : items(v))
            out.insert(x.id);
    return out;
}

template <class Items, class Likeness>
void give_in_variants(Job& job, NewFrom from, Items items, Likeness likeness)
{
    for (Variant& v : job.variants)
        give(items(v), from == NewFrom::edit ? ids_of(job, items) : Taken{}, likeness);
}

} // namespace

bool is_id(const std::string& text)
{
    const auto fits = [](char c) { return (c >= '0' && c <= '9') || (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '-' || c == '_'; };
    return !text.empty() && text.size() <= longest_id && std::all_of(text.begin(), text.end(), fits);
}

void give_ids(Job& job, NewFrom from)
{
    give(job.variants, {}, [](const Variant& v) { return "variant|" + v.name; });
    give(job.days, {}, [](const Day& d) { return "day|" + d.name; });
    give(job.logbook.visits, {}, [](const Visit& v) { return "visit|" + v.when; });
    give(job.logbook.due, {}, [](const DueItem& d) { return "due|" + d.title; });
    give_in_variants(
        job, from, [](auto& v) -> auto& { return v.probes; }, [](const Probe& p) { return "probe|" + p.key; });
    give_in_variants(
        job, from, [](auto& v) -> auto& { return v.unit.outputs; }, [](const Output& o) { return "output|" + o.key; });
    give_in_variants(
        job, from, [](auto& v) -> auto& { return v.unit.rules; }, [](const Rule& r) { return std::string("rule|") + kind_of(r).key + "|" + r.output; });
}

} // namespace vernal
