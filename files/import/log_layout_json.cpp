#include "log_layout.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

template <class Keys>
std::size_t index_of(const Keys& keys, const std::string& key)
{
    const auto it = std::find(keys.begin(), keys.end(), key);
    if (it == keys.end())
        throw std::runtime_error("“" + key + "” is not one of its words");
    return static_cast<std::size_t>(it - keys.begin());
}

} // namespace

bool LogLayout::operator==(const LogLayout& o) const
{
    const bool plain = delimiter == o.delimiter && decimal_comma == o.decimal_comma && header_line == o.header_line && first_line == o.first_line && form == o.form && clock == o.clock && columns == o.columns;
    return plain && std::equal(words.begin(), words.end(), o.words.begin(), o.words.end(), [](const auto& a, const auto& b) { return a.first == b.first && (a.second == b.second || (std::isnan(a.second) && std::isnan(b.second))); });
}

std::string write_layout(const LogLayout& layout)
{
    nlohmann::ordered_json j;
    j["delimiter"] = std::string(1, layout.delimiter);
    j["decimal"] = layout.decimal_comma ? "," : ".";
    j["header_line"] = layout.header_line;
    j["first_line"] = layout.first_line;
    j["time"] = time_form_keys[static_cast<std::size_t>(layout.form)];
    j["clock"] = log_clock_keys[static_cast<std::size_t>(layout.clock)];
    j["columns"] = nlohmann::ordered_json::array();
    for (const LogColumn& c : layout.columns)
        j["columns"].push_back({{"header", c.header}, {"role", log_role_keys[static_cast<std::size_t>(c.role)]}, {"name", c.name}, {"unit", c.unit}});
    j["words"] = nlohmann::ordered_json::array();
    for (const auto& [word, value] : layout.words)
        j["words"].push_back({{"word", word}, {"value", std::isnan(value) ? nlohmann::ordered_json() : nlohmann::ordered_json(value)}});
    return j.dump(1, ' ', false, nlohmann::json::error_handler_t::replace);
}

namespace {

// A key of an object with the path that leads to it, for what is said of its value.
const nlohmann::json& value_at(const nlohmann::json& j, const char* key, std::string& path, const std::string& base)
{
    path = base.empty() ? key : base + "." + key;
    if (!j.is_object() || !j.contains(key))
        throw std::runtime_error("it is missing");
    return j[key];
}

LogLayout layout_of(const nlohmann::json& j, std::string& path)
{
    LogLayout out;
    const auto text = [&path](const nlohmann::json& from, const char* key, const std::string& base) {
        const nlohmann::json& v = value_at(from, key, path, base);
        if (!v.is_string())
            throw std::runtime_error("a text is expected");
        return v.get<std::string>();
    };
    const auto line = [&](const char* key, int least, int most) {
        const nlohmann::json& v = value_at(j, key, path, "");
        if (!v.is_number_integer() || v < least || v > most)
            throw std::runtime_error("a whole number from " + std::to_string(least) + " to " + std::to_string(most) + " is expected");
        return v.get<int>();
    };
    const auto list = [&](const char* key) -> const nlohmann::json& {
        const nlohmann::json& v = value_at(j, key, path, "");
        if (!v.is_array())
            throw std::runtime_error("a list is expected");
        return v;
    };
    const std::string delimiter = text(j, "delimiter", "");
    if (delimiter.size() != 1 || std::find(log_delimiters.begin(), log_delimiters.end(), delimiter[0]) == log_delimiters.end())
        throw std::runtime_error("“" + delimiter + "” is none of , ; | tab and blank");
    out.delimiter = delimiter[0];
    const std::string decimal = text(j, "decimal", "");
    if (decimal != "," && decimal != ".")
        throw std::runtime_error("“" + decimal + "” is neither . nor ,");
    out.decimal_comma = decimal == ",";
    constexpr int last_line = 1000;
    out.header_line = line("header_line", 0, last_line);
    out.first_line = line("first_line", 1, last_line + 1);
    out.form = static_cast<TimeForm>(index_of(time_form_keys, text(j, "time", "")));
    out.clock = static_cast<LogClock>(index_of(log_clock_keys, text(j, "clock", "")));
    for (const nlohmann::json& c : list("columns")) {
        const std::string at = "columns[" + std::to_string(out.columns.size()) + "]";
        LogColumn column;
        column.header = text(c, "header", at);
        column.name = text(c, "name", at);
        column.unit = text(c, "unit", at);
        column.role = static_cast<LogRole>(index_of(log_role_keys, text(c, "role", at)));
        out.columns.push_back(std::move(column));
    }
    for (const nlohmann::json& w : list("words")) {
        const std::string at = "words[" + std::to_string(out.words.size()) + "]", word = text(w, "word", at);
        const nlohmann::json& value = value_at(w, "value", path, at);
        if (!value.is_null() && !value.is_number())
            throw std::runtime_error("a number or null is expected");
        out.words.emplace_back(word, value.is_null() ? NAN : value.get<double>());
    }
    return out;
}

} // namespace

Result<LogLayout> read_layout(const std::string& json)
{
    const auto j = nlohmann::json::parse(json, nullptr, false);
    if (j.is_discarded())
        return Error{"this is no layout of a log: it is not JSON", "", "docs/job-file.md says what it holds"};
    std::string path;
    try {
        return layout_of(j, path);
    } catch (const std::runtime_error& e) {
        return Error{std::string("this is no layout of a log: ") + e.what(), path, "docs/job-file.md says what it holds"};
    }
}

} // namespace vernal
