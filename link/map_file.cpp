#include "map_file.h"

#include "files/file_name.h"
#include "files/json_fields.h"
#include "files/json_lines.h"

namespace vernal {
namespace {

constexpr const char* format_name = "vrelay-map";
constexpr int format_version = 1;
constexpr const char* ending = ".map.json";

// A register without what is as usual; what it is and where it stands is always said.
Json slim(const MapRegister& r)
{
    Json all, usual;
    JsonWriter w(all);
    fields(w, r);
    const MapRegister plain;
    JsonWriter u(usual);
    fields(u, plain);
    Json out = Json::object();
    for (const auto& [key, value] : all.items())
        if (key == "is" || key == "table" || key == "address" || key == "type" || value != usual[key])
            out[key] = value;
    return out;
}

std::string lines_of(const std::vector<MapRegister>& registers, const std::string& indent)
{
    std::string out = "[";
    for (const MapRegister& r : registers)
        out += (out.size() > 1 ? ",\n" : "\n") + indent + "  " + slim(r).dump();
    return out + (out.size() > 1 ? "\n" + indent : "") + "]";
}

} // namespace

Result<RegisterMap> read_register_map(const std::string& text, const std::string& file)
{
    try {
        Json j = parse_json(text);
        if (const int version = take_head(j, format_name, "a register map"); version != format_version)
            bad("version", "this map is of version " + std::to_string(version) + ", which this program does not know", "Open it with a newer Vernal Relay");
        RegisterMap map;
        JsonReader r(j, "");
        fields(r, map);
        r.finish();
        if (const auto problem = map_problem(map))
            bad(problem->at, problem->what, "Expected: " + problem->remedy);
        return map;
    } catch (const BadFile& b) {
        return placed_error(b.error, text, file);
    }
}

std::string write_register_map(const RegisterMap& map)
{
    Json body;
    JsonWriter w(body);
    fields(w, map);
    std::string out = "{\n  \"format\": \"" + std::string(format_name) + "\",\n  \"version\": " + std::to_string(format_version);
    for (const auto& [key, value] : body.items()) {
        if (key == "registers") {
            out += ",\n  \"registers\": " + lines_of(map.registers, "  ");
        } else if (key == "log") {
            out += ",\n  \"log\": {";
            std::string in;
            for (const auto& [name, entry] : value.items())
                in += (in.empty() ? "\n    \"" : ",\n    \"") + name + "\": " + (name == "columns" ? lines_of(map.log.columns, "    ") : entry.dump());
            out += in + "\n  }";
        } else {
            out += ",\n  \"" + key + "\": " + value.dump();
        }
    }
    return out + "\n}\n";
}

std::vector<RegisterMap> maps_of(const Job& job)
{
    std::vector<RegisterMap> out;
    for (const Attachment& a : job.attachments)
        if (a.bytes && a.name.ends_with(ending))
            if (auto map = read_register_map(*a.bytes, a.name))
                out.push_back(std::move(*map));
    return out;
}

std::string map_file_name(const RegisterMap& map) { return plain_file_name(map.name, "unit") + ending; }

} // namespace vernal
