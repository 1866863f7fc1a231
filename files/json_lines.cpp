#include "json_lines.h"

#include <nlohmann/json.hpp>

#include <iterator>
#include <map>
#include <vector>

namespace vernal {
namespace {

// Counts the lines that the parser has taken so far.
class Counting {
public:
    using iterator_category = std::input_iterator_tag;
    using value_type = char;
    using difference_type = std::ptrdiff_t;
    using pointer = const char*;
    using reference = const char&;
    Counting(const char* at, std::size_t* lines) : at_(at), lines_(lines) {}
    reference operator*() const { return *at_; }
    Counting& operator++()
    {
        *lines_ += *at_ == '\n';
        ++at_;
        return *this;
    }
    Counting operator++(int)
    {
        Counting was = *this;
        ++*this;
        return was;
    }
    bool operator==(const Counting& o) const { return at_ == o.at_; }
    bool operator!=(const Counting& o) const { return at_ != o.at_; }

private:
    const char* at_;
    std::size_t* lines_;
};

struct Level {
    std::string path;
    bool array = false;
    std::size_t next = 0;
    std::string key;
};

} // namespace

std::size_t json_line(const std::string& text, const std::string& path)
{
    using Plain = nlohmann::json;
    std::size_t lines = 1;
    std::map<std::string, std::size_t> where;
    std::vector<Level> open;
    const auto here = [&] {
        if (open.empty())
            return std::string();
        Level& l = open.back();
        return l.array ? l.path + "[" + std::to_string(l.next++) + "]" : l.path.empty() ? l.key
                                                                                        : l.path + "." + l.key;
    };
    const Plain::parser_callback_t follow = [&](int, Plain::parse_event_t event, Plain& parsed) {
        switch (event) {
        case Plain::parse_event_t::key: {
            open.back().key = parsed.get<std::string>();
            where[open.back().path.empty() ? open.back().key : open.back().path + "." + open.back().key] = lines;
            break;
        }
        case Plain::parse_event_t::object_start:
        case Plain::parse_event_t::array_start: {
            const std::string at = here();
            where.emplace(at, lines);
            open.push_back({at, event == Plain::parse_event_t::array_start, 0, {}});
            break;
        }
        case Plain::parse_event_t::object_end:
        case Plain::parse_event_t::array_end: open.pop_back(); break;
        case Plain::parse_event_t::value: where.emplace(here(), lines); break;
        }
        return true;
    };
    const Plain done = Plain::parse(Counting(text.data(), &lines), Counting(text.data() + text.size(), &lines), follow, false);
    if (done.is_discarded())
        return 1;
    for (std::string at = path;;) {
        if (const auto it = where.find(at); it != where.end())
            return it->second;
        const std::size_t cut = at.find_last_of(".[");
        if (cut == std::string::npos)
            return 1;
        at.erase(cut);
    }
}

Error placed_error(const Error& error, const std::string& text, const std::string& file)
{
    const bool placed = error.where.empty() || error.where.find("line") != std::string::npos;
    return {error.what, file + ", " + (placed ? error.where : "line " + std::to_string(json_line(text, error.where)) + ", " + error.where), error.remedy};
}

} // namespace vernal
