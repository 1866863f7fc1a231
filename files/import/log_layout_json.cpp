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

Result<LogLayout> read_layout(const std::string& json)
{
    try {
        const auto j = nlohmann::json::parse(json);
        LogLayout out;
        const std::string delimiter = j.at("delimiter").get<std::string>();
        if (delimiter.size() != 1 || std::find(log_delimiters.begin(), log_delimiters.end(), delimiter[0]) == log_delimiters.end())
            throw std::runtime_error("the delimiter “" + delimiter + "” is none of , ; | tab and blank");
        out.delimiter = delimiter[0];
        out.decimal_comma = j.at("decimal").get<std::string>() == ",";
        out.header_line = std::clamp(j.at("header_line").get<int>(), 0, 1000);
        out.first_line = std::clamp(j.at("first_line").get<int>(), 1, 1001);
        out.form = static_cast<TimeForm>(index_of(time_form_keys, j.at("time").get<std::string>()));
        out.clock = static_cast<LogClock>(index_of(log_clock_keys, j.at("clock").get<std::string>()));
        for (const auto& c : j.at("columns"))
            out.columns.push_back({c.at("header").get<std::string>(), static_cast<LogRole>(index_of(log_role_keys, c.at("role").get<std::string>())), c.at("name").get<std::string>(), c.at("unit").get<std::string>()});
        for (const auto& w : j.at("words"))
            out.words.emplace_back(w.at("word").get<std::string>(), w.at("value").is_null() ? NAN : w.at("value").get<double>());
        return out;
    } catch (const std::exception& e) {
        return Error{std::string("this is no layout of a log: ") + e.what(), "", "Choose the columns anew"};
    }
}

} // namespace vernal
