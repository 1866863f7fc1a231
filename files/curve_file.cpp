#include "curve_file.h"

#include "disk.h"
#include "json_fields.h"

#include <cstdlib>
#include <set>

namespace vernal {

extern const char* const shipped_curves_json;

namespace {

constexpr const char* format_name = "vrelay-curves";
constexpr int format_version = 1;

struct CurveFile {
    CurveBook curves;
};

template <class V, OneOf<CurveFile> T>
void fields(V& v, T& f)
{
    v.list("curves", f.curves);
}

void check_keys(const CurveBook& book)
{
    std::set<std::string> seen;
    for (std::size_t i = 0; i < book.size(); ++i) {
        const std::string at = "curves[" + std::to_string(i) + "].key";
        if (book[i].key.empty())
            bad(at, "each curve needs a key, a word of its own");
        if (!seen.insert(book[i].key).second)
            bad(at, "the key “" + book[i].key + "” is there twice");
    }
}

} // namespace

Result<CurveBook> read_curves(const std::string& text, const std::string& file_name)
{
    try {
        Json j = parse_json(text);
        if (const int version = take_head(j, format_name, "a file of probe curves"); version != format_version)
            bad("version", "this file is of version " + std::to_string(version) + ", which this program does not know", "Open it with a newer Vernal Relay");
        CurveFile file;
        JsonReader r(j, "");
        fields(r, file);
        r.finish();
        check_keys(file.curves);
        return std::move(file.curves);
    } catch (const BadFile& b) {
        return Error{b.error.what, file_name + ", " + b.error.where, b.error.remedy};
    }
}

std::string write_curves(const CurveBook& book)
{
    Json body;
    const CurveFile file{book};
    JsonWriter w(body);
    fields(w, file);
    Json out = {{"format", format_name}, {"version", format_version}};
    out.update(body);
    return out.dump(2) + "\n";
}

const CurveBook& shipped_curves()
{
    static const CurveBook book = *read_curves(shipped_curves_json, "data/curves.json");
    return book;
}

std::filesystem::path own_curves_path()
{
    const char* config = std::getenv("XDG_CONFIG_HOME");
    const char* home = std::getenv("HOME");
    const std::filesystem::path folder = config && *config ? std::filesystem::path(config) : std::filesystem::path(home ? home : ".") / ".config";
    return folder / "vernal-relay" / "curves.json";
}

namespace {

Result<CurveBook> own_curves(const std::filesystem::path& own)
{
    std::error_code ignored;
    if (!std::filesystem::exists(own, ignored))
        return CurveBook{};
    const auto text = read_file(own);
    if (!text)
        return text.error();
    return read_curves(*text, own.string());
}

void put(CurveBook& book, const NamedCurve& curve)
{
    for (NamedCurve& c : book)
        if (c.key == curve.key) {
            c = curve;
            return;
        }
    book.push_back(curve);
}

} // namespace

Result<CurveBook> all_curves(const std::filesystem::path& own)
{
    const auto added = own_curves(own);
    if (!added)
        return added.error();
    CurveBook book = shipped_curves();
    for (const NamedCurve& c : *added)
        put(book, c);
    return book;
}

Result<std::monostate> add_own_curve(const NamedCurve& curve, const std::filesystem::path& own)
{
    auto book = own_curves(own);
    if (!book)
        return book.error();
    put(*book, curve);
    std::error_code trouble;
    std::filesystem::create_directories(own.parent_path(), trouble);
    if (trouble)
        return Error{trouble.message(), own.parent_path().string(), "Choose another folder, or ask who may write there"};
    return write_file_atomically(own, write_curves(*book));
}

Result<ProbeCurve> curve_by_name(const CurveBook& book, const std::string& name)
{
    if (const NamedCurve* known = find_curve(book, name))
        return known->curve;
    auto parsed = parse_curve(name);
    if (!parsed && name.find(':') == std::string::npos)
        return Error{parsed.error().what, parsed.error().where, (parsed.error().remedy.empty() ? std::string("Use") : parsed.error().remedy + ", or") + " a key of the curve file: vernal-relay-cli probe curves lists them"};
    return parsed;
}

} // namespace vernal
