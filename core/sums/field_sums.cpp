#include "subjects.h"

#include <algorithm>
#include <cmath>

namespace vernal {

const std::vector<FieldSum>& field_sums()
{
    static const std::vector<FieldSum> table = [] {
        std::vector<FieldSum> all;
        for (const auto subject : {pump_sums, collector_sums, pipe_sums, store_sums, drain_back_sums, electrical_sums, closed_loop_sums, probe_sums})
            for (FieldSum& s : subject())
                all.push_back(std::move(s));
        return all;
    }();
    return table;
}

const FieldSum* find_sum(const std::string& key)
{
    const auto& all = field_sums();
    const auto it = std::find_if(all.begin(), all.end(), [&](const FieldSum& s) { return key == s.key; });
    return it == all.end() ? nullptr : &*it;
}

namespace {

// Finds the first number of a loop that the job file would refuse.
struct OutOfRange : FieldVisitor {
    const NumberField* found = nullptr;
    NumberField field{};
    void number(const NumberField& f, double x)
    {
        if (!found && !(x >= f.min && x <= f.max)) {
            field = f;
            found = &field;
        }
    }
    void temperature(const NumberField& f, Temperature t) { number(f, t.in_celsius()); }
    void difference(const NumberField& f, TempDiff d) { number(f, d.in_kelvin()); }
    template <class T>
    void object(const char*, const T& x) { fields(*this, x); }
    template <class T>
    void spare_object(const char*, const T& x) { fields(*this, x); }
};

} // namespace

Result<Variant> taken(const FieldSum& sum, const std::vector<double>& x, const SumContext& c)
{
    const SumResult r = sum.work(x, c);
    if (!sum.writes() || !std::isfinite(r.value))
        return Error{sum.writes() ? r.text : std::string("this sum is for reading only"), sum.title, ""};
    Variant v = c.variant;
    if (sum.write)
        sum.write(v.loop, c.part, x, r.value);
    else
        sum.write_probe(v, c.probe, x, r.value);
    OutOfRange range;
    fields(range, std::as_const(v.loop));
    fields(range, std::as_const(v.input));
    for (const Probe& p : std::as_const(v.probes))
        fields(range, p);
    if (range.found)
        return Error{"the result is outside what “" + std::string(range.field.label) + "” can be", sum.title, "It must lie between " + to_text(range.field.min, range.field.quantity, c.units) + " and " + to_text(range.field.max, range.field.quantity, c.units)};
    return v;
}

std::vector<const FieldSum*> sums_at(Part part, const Arrangement& a)
{
    std::vector<const FieldSum*> out;
    for (const FieldSum& s : field_sums())
        if (a.has(part) && std::find(s.parts.begin(), s.parts.end(), part) != s.parts.end() && (!s.applies || s.applies(a)))
            out.push_back(&s);
    return out;
}

std::vector<const FieldSum*> sums_on(ProbePage page)
{
    std::vector<const FieldSum*> out;
    for (const FieldSum& s : field_sums())
        if (s.page == page)
            out.push_back(&s);
    return out;
}

} // namespace vernal
