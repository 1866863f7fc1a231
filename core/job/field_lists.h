// The numbers and the switches of one value by the keys of their fields.
#pragma once

#include "fields.h"

namespace vernal {

// A visitor that collects the number fields of one value, with a way to read and
// write each through its position in the visit.
struct NumberFields : FieldVisitor {
    struct Entry {
        NumberField field;
        double value;
    };
    std::vector<Entry> entries;
    void number(const NumberField& f, double x) { entries.push_back({f, x}); }
    void temperature(const NumberField& f, Temperature t) { entries.push_back({f, t.in_celsius()}); }
    void difference(const NumberField& f, TempDiff d) { entries.push_back({f, d.in_kelvin()}); }
};

// Writes one number field by its key.
struct SetNumber : FieldVisitor {
    std::string key;
    double to = 0;
    void number(const NumberField& f, double& x) { x = key == f.key ? to : x; }
    void temperature(const NumberField& f, Temperature& t) { t = key == f.key ? Temperature::celsius(to) : t; }
    void difference(const NumberField& f, TempDiff& d) { d = key == f.key ? TempDiff::kelvin(to) : d; }
};

// The switches of one value, and writing one by its key.
struct SwitchFields : FieldVisitor {
    struct Found {
        SwitchField field;
        bool on;
    };
    std::vector<Found> found;
    void boolean(const SwitchField& f, bool on) { found.push_back({f, on}); }
};
struct SetSwitch : FieldVisitor {
    std::string key;
    bool to = false;
    void boolean(const SwitchField& f, bool& on) { on = key == f.key ? to : on; }
};

template <class T>
std::vector<SwitchFields::Found> switch_fields(const T& value)
{
    SwitchFields v;
    fields(v, value);
    return v.found;
}

template <class T>
void set_switch(T& value, const std::string& key, bool to)
{
    SetSwitch v;
    v.key = key;
    v.to = to;
    fields(v, value);
}

template <class T>
std::vector<NumberFields::Entry> number_fields(const T& value)
{
    NumberFields v;
    fields(v, value);
    return v.entries;
}

template <class T>
void set_number(T& value, const std::string& key, double to)
{
    SetNumber v;
    v.key = key;
    v.to = to;
    fields(v, value);
}

} // namespace vernal
