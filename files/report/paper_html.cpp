#include "paper_html.h"

#include <nettle/base64.h>

#include <algorithm>

namespace vernal {
namespace {

// One hand for all papers; the window's paper has the same measures (app/print/paper_print.cpp).
constexpr const char* style = R"css(
:root { color: #20272B; background: #FFFFFF; font: 11pt/1.4 "B612", "DejaVu Sans", sans-serif; }
body { max-width: 180mm; margin: 12mm auto; padding: 0 6mm; }
header { display: flex; justify-content: space-between; border-bottom: 1px solid #D8D2C4; padding-bottom: 3mm; }
header img { max-height: 18mm; }
address { font-style: normal; white-space: pre-line; text-align: right; color: #565F64; font-size: 9pt; }
h1 { font-size: 17pt; margin: 6mm 0 1mm; } h2 { font-size: 12pt; margin: 6mm 0 2mm; } h3 { font-size: 11pt; margin: 3mm 0 1mm; }
.about { color: #565F64; margin: 0 0 4mm; }
table { border-collapse: collapse; width: 100%; margin: 2mm 0; font-size: 10pt; }
th { text-align: left; font-weight: normal; color: #565F64; } th, td { border-bottom: 1px solid #D8D2C4; padding: 1mm 2mm 1mm 0; vertical-align: top; }
.right { text-align: right; white-space: nowrap; } .strong { font-weight: bold; } table.blank td { border: 1px solid #B8B2A4; padding-left: 1.5mm; }
del { color: #565F64; } ins { text-decoration: none; font-weight: bold; }
.caution { border-left: 4px solid #8F5F00; background: #F7EFDD; padding: 2mm 3mm; margin: 2mm 0; }
.card { font-size: 15pt; margin: 3mm 0; }
figure { margin: 3mm 0; break-inside: avoid; } figure img { max-width: 100%; } figcaption { color: #565F64; font-size: 9pt; }
ul.ticks { list-style: none; padding: 0; } ul.ticks li { padding-left: 7mm; text-indent: -7mm; margin: 1mm 0; } .box { display: inline-block; width: 5mm; margin-right: 2mm; text-indent: 0; text-align: center; border: 1px solid #565F64; line-height: 4.5mm; height: 4.5mm; vertical-align: middle; }
.sign { display: inline-block; width: 40%; margin: 14mm 8% 0 0; border-top: 1px solid #20272B; color: #565F64; font-size: 9pt; }
@media print { body { margin: 0; max-width: none; } tr { break-inside: avoid; } }
)css";

std::string settings_html(const std::vector<SettingLine>& lines)
{
    std::string out;
    for (const SettingLine& l : lines) {
        out += "<p>";
        for (std::size_t i = 0; i < l.size(); ++i) {
            const std::string text = escaped_html(l[i].text);
            out += (i > 0 ? " " : "") + (l[i].is == SettingPiece::Is::was ? "<del>" + text + "</del>" : l[i].is == SettingPiece::Is::now ? "<ins>" + text + "</ins>"
                                                                                                                                         : text);
        }
        out += "</p>\n";
    }
    return out;
}

std::string cell_class(const PaperTable& t, std::size_t row, std::size_t column)
{
    std::string c = column < t.right.size() && t.right[column] ? "right" : "";
    if (row < t.strong.size() && t.strong[row])
        c += c.empty() ? "strong" : " strong";
    return c.empty() ? "" : " class=\"" + c + "\"";
}

std::string table_html(const PaperTable& t)
{
    std::string out = t.blank ? "<table class=\"blank\">\n" : "<table>\n";
    if (std::any_of(t.heads.begin(), t.heads.end(), [](const std::string& h) { return !h.empty(); })) {
        out += "<thead><tr>";
        for (std::size_t i = 0; i < t.heads.size(); ++i)
            out += std::string("<th scope=\"col\"") + (i < t.right.size() && t.right[i] ? " class=\"right\"" : "") + ">" + escaped_html(t.heads[i]) + "</th>";
        out += "</tr></thead>\n";
    }
    out += "<tbody>\n";
    for (std::size_t r = 0; r < t.rows.size(); ++r) {
        out += "<tr>";
        for (std::size_t c = 0; c < t.rows[r].size(); ++c)
            out += "<td" + cell_class(t, r, c) + ">" + escaped_html(t.rows[r][c]) + "</td>";
        out += "</tr>\n";
    }
    return out + "</tbody></table>\n";
}

std::string data_uri(const PaperPicture& p) { return "data:" + p.mime + ";base64," + base64(p.bytes); }

std::string picture_html(const PaperBlock& b, const PaperPictures& pictures)
{
    const auto it = pictures.find(b.picture);
    if (it == pictures.end())
        return "";
    const std::string alt = escaped_html(b.text.empty() ? "Picture" : b.text);
    std::string width;
    if (it->second.width_mm > 0)
        width = " style=\"width:" + std::to_string(static_cast<int>(it->second.width_mm)) + "mm\"";
    return "<figure><img alt=\"" + alt + "\"" + width + " src=\"" + data_uri(it->second) + "\">" + (b.text.empty() ? "" : "<figcaption>" + alt + "</figcaption>") + "</figure>\n";
}

std::string ticks_html(const PaperBlock& b)
{
    std::string out = b.text.empty() ? "" : "<h3>" + escaped_html(b.text) + "</h3>\n";
    out += "<ul class=\"ticks\">\n";
    for (const auto& [box, words] : b.items)
        out += "<li><span class=\"box\">" + (box.empty() ? "&nbsp;" : escaped_html(box)) + "</span>" + escaped_html(words) + "</li>\n";
    return out + "</ul>\n";
}

std::string block_html(const PaperBlock& b, const PaperPictures& pictures)
{
    switch (b.is) {
    case PaperBlock::Is::heading: return "<h2>" + escaped_html(b.text) + "</h2>\n";
    case PaperBlock::Is::text: return "<p>" + escaped_html(b.text) + "</p>\n";
    case PaperBlock::Is::settings: return settings_html(b.lines);
    case PaperBlock::Is::table: return table_html(b.table);
    case PaperBlock::Is::picture: return picture_html(b, pictures);
    case PaperBlock::Is::caution: return "<p class=\"caution\">" + escaped_html(b.text) + "</p>\n";
    case PaperBlock::Is::sign: return "<div class=\"sign\">" + escaped_html(b.text) + ", date</div>\n";
    case PaperBlock::Is::ticks: return ticks_html(b);
    case PaperBlock::Is::card: return "<p class=\"card\">" + escaped_html(b.text) + "</p>\n";
    }
    return "";
}

} // namespace

std::string escaped_html(const std::string& text)
{
    std::string out;
    for (const char c : text)
        switch (c) {
        case '&': out += "&amp;"; break;
        case '<': out += "&lt;"; break;
        case '>': out += "&gt;"; break;
        case '"': out += "&quot;"; break;
        case '\n': out += "<br>"; break;
        default:
            if (static_cast<unsigned char>(c) >= 0x20 || c == '\t') // no control character belongs into HTML
                out += c;
        }
    return out;
}

std::string base64(const std::string& bytes)
{
    std::string out(BASE64_ENCODE_RAW_LENGTH(bytes.size()), '\0');
    base64_encode_raw(out.data(), bytes.size(), reinterpret_cast<const std::uint8_t*>(bytes.data()));
    return out;
}

std::string paper_html(const Paper& paper, const Letterhead& head, const PaperPictures& pictures)
{
    std::string title = paper.title + ", " + paper.about;
    std::replace(title.begin(), title.end(), '\n', ' ');
    std::string out = "<!DOCTYPE html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n<title>" + escaped_html(title) + "</title>\n<style>" + style + "</style>\n</head>\n<body>\n";
    if (!head.lines.empty() || head.logo)
        out += "<header><div>" + (head.logo ? "<img alt=\"Logo\" src=\"" + data_uri(*head.logo) + "\">" : std::string()) + "</div><address>" + escaped_html(head.lines) + "</address></header>\n";
    out += "<h1>" + escaped_html(paper.title) + "</h1>\n<p class=\"about\">" + escaped_html(paper.about) + "</p>\n";
    for (const PaperBlock& b : paper.blocks)
        out += block_html(b, pictures);
    return out + "</body>\n</html>\n";
}

} // namespace vernal
