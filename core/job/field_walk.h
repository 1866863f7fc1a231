// The visitor behind field paths. Not for others.
#pragma once

#include "core/units/exact_text.h"
#include "field_path.h"
#include "fields.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <functional>
#include <span>

namespace vernal::paths {

using Put = std::function<std::optional<Error>(const std::string& value)>;

// What a walk hands over: a setting, and how to write it.
struct Leaf {
    Setting setting;
    Put put;
};

inline std::string range_text(const Setting& s) { return "It must lie between " + exact_text(s.min) + " and " + exact_text(s.max); }

inline std::string choices_text(const std::vector<std::string>& all)
{
    std::string out;
    for (const std::string& c : all)
        out += (out.empty() ? "Use " : ", ") + (c.empty() ? "\"\"" : c);
    return out;
}

// In the inside unit without a unit behind it, else in the one that stands there.
inline Result<double> number_in(const std::string& text, Quantity q)
{
    std::string plain = text;
    std::replace(plain.begin(), plain.end(), ',', '.');
    double x = 0;
    const auto [end, error] = std::from_chars(plain.data(), plain.data() + plain.size(), x);
    if (error == std::errc() && end == plain.data() + plain.size())
        return x;
    return parse(text, q, {});
}

inline std::optional<Error> put_number(const Setting& s, const std::string& text, const std::function<void(double)>& write)
{
    const auto x = number_in(text, s.quantity);
    if (!x)
        return Error{x.error().what, s.path, x.error().remedy.empty() ? range_text(s) : x.error().remedy};
    if (!std::isfinite(*x) || *x < s.min || *x > s.max)
        return Error{"the value " + text + " is not possible", s.path, range_text(s)};
    if (s.type == Setting::Type::whole && *x != std::floor(*x))
        return Error{"a whole number is expected here", s.path, range_text(s)};
    write(*x);
    return {};
}

template <class T>
inline constexpr bool has_id = requires(const T& x) { x.id; };
template <class T>
inline constexpr bool has_key = requires(const T& x) { x.key; };
template <class T>
inline constexpr bool has_name = requires(const T& x) { x.name; };

// Whether a component of a path names this entry of a list.
template <class T>
bool names(const std::string& component, const T& item, std::size_t index)
{
    if constexpr (has_id<T>)
        return component == item.id;
    else
        return component == std::to_string(index + 1);
}
template <class T>
bool also_names(const std::string& component, const T& item)
{
    if constexpr (has_key<T>)
        return component == item.key;
    else if constexpr (has_id<T> && has_name<T>)
        return component == item.name;
    else
        return false;
}

template <class T>
inline std::string component_of(const T& item, std::size_t index)
{
    if constexpr (has_id<T>)
        return item.id;
    else
        return std::to_string(index + 1);
}

// Visits the fields of a value: all of them, or those on the way that is wanted.
class Walk {
public:
    using Way = std::span<const std::string>;
    struct Shared {
        const Variant& variant; // whose probes and outputs keys name
        std::vector<Leaf> found;
        std::string lost;               // the part of the way that led nowhere
        std::vector<std::string> there; // and what was there instead
    };
    Walk(Shared& shared, std::string path, std::optional<Way> way) : shared_(shared), path_(std::move(path)), way_(way) {}

    // Told after the fields were visited: a way that ended here without a setting is lost.
    void close()
    {
        if (way_ && !entered_ && shared_.lost.empty()) {
            shared_.lost = way_->empty() ? path_ : at(way_->front());
            shared_.there = seen_;
        }
    }

    void number(const NumberField& f, double& x)
    {
        leaf(f.key, [&](Setting& s) {
            describe(s, f);
            s.value = exact_text(x);
            return [s, &x](const std::string& v) { return put_number(s, v, [&](double n) { x = n; }); };
        });
    }
    void temperature(const NumberField& f, Temperature& t)
    {
        leaf(f.key, [&](Setting& s) {
            describe(s, f);
            s.value = exact_text(t.in_celsius());
            return [s, &t](const std::string& v) { return put_number(s, v, [&](double c) { t = Temperature::celsius(c); }); };
        });
    }
    void difference(const NumberField& f, TempDiff& d)
    {
        leaf(f.key, [&](Setting& s) {
            describe(s, f);
            s.value = exact_text(d.in_kelvin());
            return [s, &d](const std::string& v) { return put_number(s, v, [&](double k) { d = TempDiff::kelvin(k); }); };
        });
    }
    template <class I>
    void integer(const char* key, int min, int max, I& x)
    {
        leaf(key, [&](Setting& s) {
            s.type = Setting::Type::whole;
            s.quantity = Quantity::count;
            s.min = min;
            s.max = max;
            s.value = std::to_string(x);
            return [s, &x](const std::string& v) { return put_number(s, v, [&](double n) { x = static_cast<I>(n); }); };
        });
    }
    void text(const char* key, std::string& x)
    {
        leaf(key, [&](Setting& s) {
            s.value = x;
            s.fixed = std::string_view(key) == "key" || std::string_view(key) == "sha256";
            return [&x](const std::string& v) -> std::optional<Error> { return x = v, std::nullopt; };
        });
    }
    void id(const char*, std::string&) {}
    void text_choice(const char* key, const std::vector<const char*>& all, std::string& x)
    {
        leaf(key, [&](Setting& s) {
            s.type = Setting::Type::choice;
            s.choices.assign(all.begin(), all.end());
            s.value = x;
            return one_of(s, [&x](std::size_t, const std::string& v) { x = v; });
        });
    }
    template <class Names, class E>
    void choice(const char* key, const Names& all, E& x)
    {
        leaf(key, [&](Setting& s) {
            s.type = Setting::Type::choice;
            s.choices.assign(all.begin(), all.end());
            s.value = s.choices[static_cast<std::size_t>(x)];
            return one_of(s, [&x](std::size_t i, const std::string&) { x = static_cast<E>(i); });
        });
    }
    template <class Names, class E>
    void spare_choice(const char* key, const Names& all, E& x) { choice(key, all, x); }
    void boolean(const SwitchField& f, bool& x)
    {
        leaf(f.key, [&](Setting& s) {
            s.type = Setting::Type::yes_no;
            s.label = f.label;
            s.typical = f.typical;
            s.choices = {"false", "true"};
            s.value = s.choices[x ? 1 : 0];
            return one_of(s, [&x](std::size_t i, const std::string&) { x = i == 1; });
        });
    }
    void curve(const char* key, ProbeCurve& c)
    {
        leaf(key, [&](Setting& s) {
            s.type = Setting::Type::curve;
            s.value = curve_text(c);
            return [path = s.path, &c](const std::string& v) -> std::optional<Error> {
                auto parsed = parse_curve(v);
                if (!parsed)
                    return Error{parsed.error().what, path, parsed.error().remedy};
                c = std::move(*parsed);
                return {};
            };
        });
    }
    void probe(const ProbeField& f, std::string& x) { key_of(f.key, f.label, f.may_be_empty, shared_.variant.probes, x); }
    void output(const OutputField& f, std::string& x) { key_of(f.key, f.label, f.may_be_empty, shared_.variant.unit.outputs, x); }
    template <class T>
    void object(const char* key, T& x)
    {
        if (const auto rest = enter(key))
            inside(at(key), *rest, x);
    }
    template <class T>
    void spare_object(const char* key, T& x) { object(key, x); }
    template <class T>
    void list(const char* key, std::vector<T>& items)
    {
        const std::string_view plural = key;
        if (path_ == "unit" && (plural == "outputs" || plural == "rules"))
            return; // have paths of their own
        entries(std::string(plural.substr(0, plural.size() - 1)), items);
    }
    template <class T>
    void spare_list(const char* key, std::vector<T>& items) { list(key, items); }
    template <class... A>
    void alternatives(const char* key, const std::vector<const char*>& all, std::variant<A...>& x)
    {
        leaf(key, [&](Setting& s) {
            s.type = Setting::Type::choice;
            s.choices.assign(all.begin(), all.end());
            s.value = all[x.index()];
            s.fixed = true;
            return Put();
        });
        std::visit([&](auto& alternative) { fields(*this, alternative); }, x);
    }

    // The entries of a list under its singular, "rule".
    template <class T>
    void entries(const std::string& name, std::vector<T>& items)
    {
        const auto rest = enter(name.c_str());
        if (!rest)
            return;
        if (!*rest) {
            for (std::size_t i = 0; i < items.size(); ++i)
                inside(at(name) + "/" + component_of(items[i], i), {}, items[i]);
            return;
        }
        const Way way = **rest;
        const auto found = way.empty() ? items.size() : index_of(way.front(), items);
        if (found < items.size())
            return inside(at(name) + "/" + component_of(items[found], found), way.subspan(1), items[found]);
        shared_.lost = at(name) + (way.empty() ? "" : "/" + way.front());
        for (std::size_t i = 0; i < items.size(); ++i)
            shared_.there.push_back(component_of(items[i], i));
    }

    template <class T>
    void inside(const std::string& path, std::optional<Way> way, T& x)
    {
        Walk w(shared_, path, way);
        fields(w, x);
        w.close();
    }

private:
    std::string at(std::string_view key) const { return path_.empty() ? std::string(key) : path_ + "/" + std::string(key); }

    static void describe(Setting& s, const NumberField& f)
    {
        s.type = Setting::Type::number;
        s.label = f.label;
        s.quantity = f.quantity;
        s.min = f.min;
        s.max = f.max;
        s.typical = hint_text(f, Units{});
    }

    // Nothing: not on the way. Else what is left of it, or no way at all: everything.
    std::optional<std::optional<Way>> enter(const char* key)
    {
        seen_.emplace_back(key);
        if (!way_)
            return std::optional<Way>{};
        if (way_->empty() || way_->front() != key)
            return {};
        entered_ = true;
        return std::optional(way_->subspan(1));
    }

    template <class Describe>
    void leaf(const char* key, Describe describe)
    {
        const auto rest = enter(key);
        if (!rest)
            return;
        Leaf l;
        l.setting.path = at(key);
        if (*rest && !(*rest)->empty())
            return void(shared_.lost = l.setting.path + "/" + (*rest)->front());
        l.put = describe(l.setting);
        shared_.found.push_back(std::move(l));
    }

    template <class Write>
    static Put one_of(const Setting& s, Write write)
    {
        return [s, write](const std::string& v) -> std::optional<Error> {
            const auto it = std::find(s.choices.begin(), s.choices.end(), v);
            if (it == s.choices.end())
                return Error{"“" + v + "” is not known here", s.path, choices_text(s.choices)};
            write(static_cast<std::size_t>(it - s.choices.begin()), v);
            return {};
        };
    }

    template <class Items>
    void key_of(const char* key, const char* label, bool may_be_empty, const Items& items, std::string& x)
    {
        leaf(key, [&](Setting& s) {
            s.type = Setting::Type::key;
            s.label = label;
            if (may_be_empty)
                s.choices.emplace_back();
            for (const auto& item : items)
                s.choices.push_back(item.key);
            s.value = x;
            return one_of(s, [&x](std::size_t, const std::string& v) { x = v; });
        });
    }

    template <class T>
    static std::size_t index_of(const std::string& component, const std::vector<T>& items)
    {
        for (std::size_t i = 0; i < items.size(); ++i)
            if (names(component, items[i], i))
                return i;
        for (std::size_t i = 0; i < items.size(); ++i)
            if (also_names(component, items[i]))
                return i;
        return items.size();
    }

    Shared& shared_;
    std::string path_;
    std::optional<Way> way_;
    bool entered_ = false;
    std::vector<std::string> seen_;
};

} // namespace vernal::paths
