#include "json_fields.h"

#include <set>

namespace vernal {
namespace {

constexpr int deepest = 64;

std::string place_of(const std::string& text, std::size_t byte)
{
    const std::size_t upto = std::min(byte, text.size());
    const auto line = std::count(text.begin(), text.begin() + static_cast<std::ptrdiff_t>(upto), '\n') + 1;
    const std::size_t last_break = text.rfind('\n', upto == 0 ? 0 : upto - 1);
    const std::size_t column = last_break == std::string::npos ? upto : upto - last_break - 1;
    return "line " + std::to_string(line) + ", column " + std::to_string(column);
}

// Keys of the objects that are open, the innermost last.
class OpenObjects {
public:
    void event(int depth, Json::parse_event_t what, const Json& value)
    {
        using E = Json::parse_event_t;
        if (depth > deepest)
            bad(at(""), "the brackets are nested too deep here", "No file of this program does that");
        if (what == E::object_start)
            open_.emplace_back();
        else if (what == E::object_end)
            open_.pop_back();
        else if (what == E::key && !open_.back().keys.insert(open_.back().last = value.get<std::string>()).second)
            bad(at(""), "this key stands twice in one object", "Remove one of the two");
    }

private:
    std::string at(std::string path) const
    {
        for (const Object& o : open_)
            path += (path.empty() ? "" : ".") + o.last;
        return path.empty() ? "the beginning" : path;
    }
    struct Object {
        std::set<std::string> keys;
        std::string last;
    };
    std::vector<Object> open_;
};

} // namespace

Json parse_json(const std::string& text)
{
    OpenObjects objects;
    try {
        return Json::parse(text, [&](int depth, Json::parse_event_t what, Json& value) {
            objects.event(depth, what, value);
            return true;
        });
    } catch (const Json::parse_error& e) {
        throw BadFile{{"this is not valid JSON", place_of(text, e.byte), "Look for a missing comma, quote or bracket just before"}};
    } catch (const Json::exception&) {
        throw BadFile{{"a number here is larger than any that is known", "the file", "Look for a slip of the pen such as 1e999"}};
    }
}

} // namespace vernal
