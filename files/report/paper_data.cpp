#include "paper_data.h"

#include "files/csv/writer.h"

#include <nlohmann/json.hpp>

#include <algorithm>

namespace vernal {
namespace {

using Json = nlohmann::ordered_json;

constexpr std::array block_keys{"heading", "text", "settings", "table", "picture", "caution", "sign", "ticks", "card"};
constexpr std::array piece_keys{"same", "was", "now"};

Json block_json(const PaperBlock& b)
{
    Json out{{"is", block_keys[static_cast<std::size_t>(b.is)]}};
    if (!b.text.empty())
        out["text"] = b.text;
    for (const SettingLine& l : b.lines) {
        Json line = Json::array();
        for (const SettingPiece& p : l)
            line.push_back({{"is", piece_keys[static_cast<std::size_t>(p.is)]}, {"text", p.text}});
        out["lines"].push_back(std::move(line));
    }
    if (b.is == PaperBlock::Is::table)
        out.update({{"name", b.table.name}, {"heads", b.table.heads}, {"rows", b.table.rows}});
    if (!b.picture.empty())
        out["picture"] = b.picture;
    for (const auto& [box, words] : b.items)
        out["items"].push_back({{"box", box}, {"words", words}});
    return out;
}

} // namespace

std::string paper_json(const Paper& paper)
{
    Json blocks = Json::array();
    for (const PaperBlock& b : paper.blocks)
        blocks.push_back(block_json(b));
    return Json{{"kind", paper.kind}, {"title", paper.title}, {"about", paper.about}, {"blocks", std::move(blocks)}}.dump(2) + "\n";
}

std::string paper_text(const Paper& paper)
{
    std::string out = paper.title + "\n" + paper.about + "\n";
    for (const PaperBlock& b : paper.blocks) {
        if (b.is == PaperBlock::Is::heading)
            out += "\n" + b.text + "\n";
        else if (b.is == PaperBlock::Is::caution)
            out += "! " + b.text + "\n";
        else if (b.is == PaperBlock::Is::text || b.is == PaperBlock::Is::card)
            out += b.text + "\n";
        else if (b.is == PaperBlock::Is::ticks)
            out += b.text.empty() ? "" : b.text + "\n";
        for (const SettingLine& l : b.lines)
            out += plain_text(l) + "\n";
        for (const auto& row : b.table.rows) {
            std::string line;
            for (const std::string& cell : row)
                line += (line.empty() || cell.empty() ? "" : " | ") + cell;
            out += "  " + line + "\n";
        }
        for (const auto& [box, words] : b.items)
            out += "  [" + (box.empty() ? " " : box) + "] " + words + "\n";
    }
    return out;
}

std::string paper_csv(const Paper& paper)
{
    std::string out;
    CsvWriter csv([&](std::string_view text) { out += text; });
    const auto row_of = [&](const std::vector<std::string>& cells) {
        for (const std::string& c : cells)
            csv.cell(c);
        csv.end_row();
    };
    for (const PaperBlock& b : paper.blocks) {
        if (b.is != PaperBlock::Is::table && b.is != PaperBlock::Is::ticks)
            continue;
        csv.row({"table", b.is == PaperBlock::Is::ticks ? b.text : b.table.name});
        if (!b.table.heads.empty())
            row_of(b.table.heads);
        for (const auto& row : b.table.rows)
            row_of(row);
        for (const auto& [box, words] : b.items)
            csv.row({box, words});
    }
    csv.finish();
    return out;
}

} // namespace vernal
