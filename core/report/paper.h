// What is handed over, as values: headings, sentences, tables, pictures by name, cautions, lines
// to sign. One typographic hand lays all of them out: on paper, in a file, as text.
#pragma once

#include "core/unit/unit_sheet.h"
#include "core/visit/settings_seen.h"

namespace vernal {

struct PaperTable {
    std::string name;               // of its file, "measured"
    std::vector<std::string> heads; // one a column; all empty: none is shown
    std::vector<bool> right;        // columns of figures
    std::vector<std::vector<std::string>> rows;
    std::vector<bool> strong = {}; // rows that stand out; may be shorter
    bool blank = false;            // empty cells are to be written in by hand
};

struct PaperBlock {
    enum class Is : std::uint8_t { heading,
        text,
        settings, // sentences with what was struck through
        table,
        picture,
        caution,
        sign,   // a line to sign on, with what stands under it
        ticks,  // items with a box
        card }; // large, for a wall
    Is is = Is::text;
    std::string text; // heading, sentence, caption, who signs
    std::vector<SettingLine> lines = {};
    PaperTable table = {};
    std::string picture = {};                                    // "loop", "board", "map", "day", "photo/HASH"
    std::vector<std::pair<std::string, std::string>> items = {}; // box ("✓", "", "–") and words
};

struct Paper {
    std::string kind, title, about; // about: job, customer, place, date
    std::vector<PaperBlock> blocks;
    std::vector<std::string> pictures() const; // names, each once
};

struct PaperRequest {
    const Job& job;
    std::size_t variant = 0;
    std::string visit; // id; empty: the last that suits the kind
    Units units = {};
    std::string today;                // a date
    const UnitSheet* sheet = nullptr; // of the unit; null: there is none
};

struct PaperKind {
    const char* key;
    const char* title;
    Result<Paper> (*make)(const PaperRequest&); // Error: what it would need
};
const std::vector<PaperKind>& paper_kinds();
const PaperKind* find_paper(const std::string& key); // nullptr: unknown

// The caution that ends each paper: manual, local codes, licensed practice.
const char* codes_note();

} // namespace vernal
