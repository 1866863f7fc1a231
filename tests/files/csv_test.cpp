#include "core/job/job.h"
#include "files/card_csv.h"
#include "files/csv/reader.h"
#include "files/csv/writer.h"

#include <gtest/gtest.h>
#include <rapidcheck/gtest.h>

#include <algorithm>

using namespace vernal;

namespace {

using Rows = std::vector<std::vector<std::string>>;

Rows read_all(CsvReader& csv)
{
    Rows out;
    while (csv.next())
        out.push_back(csv.cells());
    return out;
}

Rows read_in_pieces(const std::string& text, std::size_t size)
{
    std::size_t at = 0;
    CsvReader csv(
        [&]() -> std::string_view {
            const std::size_t from = std::min(at, text.size());
            at += size;
            return std::string_view(text).substr(from, size);
        },
        "pieces.csv");
    return read_all(csv);
}

// RFC 4180, section 2: rules 5 to 7 (quotes around commas, line breaks and quotes).
TEST(Csv, quotes_as_rfc_4180_has_them)
{
    const std::string text = "\"aaa\",\"b\r\nbb\",\"ccc\"\r\nzzz,\"y\"\"yy\",xxx";
    CsvReader csv(text, "x.csv");
    EXPECT_EQ(read_all(csv), (Rows{{"aaa", "b\r\nbb", "ccc"}, {"zzz", "y\"yy", "xxx"}}));
}

RC_GTEST_PROP(Csv, what_is_written_reads_back_in_pieces_of_any_size, ())
{
    const auto cell = rc::gen::container<std::string>(rc::gen::elementOf(std::string("ab,;\t\"\r\n 1é")));
    const auto width = *rc::gen::inRange<std::size_t>(2, 6);
    const auto rows = *rc::gen::container<Rows>(rc::gen::container<std::vector<std::string>>(width, cell));
    std::string text;
    CsvWriter csv([&](std::string_view t) { text += t; });
    csv.row({"a", "b", "c", "d", "e", "f"}); // the separator is told by the first line
    for (const auto& row : rows) {
        for (const auto& c : row)
            csv.cell(c);
        csv.end_row();
    }
    csv.finish();
    Rows expected{{"a", "b", "c", "d", "e", "f"}};
    expected.insert(expected.end(), rows.begin(), rows.end());
    RC_ASSERT(read_in_pieces(text, *rc::gen::inRange<std::size_t>(1, 40)) == expected);
}

TEST(Csv, tells_line_and_column)
{
    try {
        CsvReader csv("a,b\n1,2\n3,\"4\n5", "log.csv");
        read_all(csv);
        FAIL();
    } catch (const BadCsv& bad) {
        EXPECT_NE(bad.error.text().find("log.csv, line 3, column 2: a quoted cell is not closed"), std::string::npos) << bad.error.text();
    }
    CsvReader csv("a,b\n\n\"x\ny\",2\nz,3\n", "log.csv");
    EXPECT_TRUE(csv.next() && csv.next() && csv.next());
    EXPECT_EQ(csv.line(), 5U);
}

TEST(Csv, takes_the_separator_from_the_first_line_and_drops_the_byte_order_mark)
{
    CsvReader csv("\xef\xbb\xbftime;a,b;c\n1;2;3\n", "x.csv");
    EXPECT_EQ(read_all(csv), (Rows{{"time", "a,b", "c"}, {"1", "2", "3"}}));
    EXPECT_EQ(csv.separator(), ';');
    CsvReader none("", "x.csv");
    EXPECT_FALSE(none.next());
}

TEST(Csv, numbers_read_back_exactly)
{
    for (double x : {0.1, -1e-300, 1.0 / 3, 5e-324, 1e308, 123456789.125})
        EXPECT_EQ(std::strtod(exact_text(x).c_str(), nullptr), x);
    EXPECT_EQ(exact_text(NAN), "");
}

TEST(SettingsCard, reads_as_csv)
{
    const auto rows = settings_card(new_job("drainback").variants[0], {});
    const std::string text = card_csv(rows);
    CsvReader csv(text, "card.csv");
    const Rows read = read_all(csv);
    ASSERT_EQ(read.size(), rows.size() + 1);
    EXPECT_EQ(read[0], (std::vector<std::string>{"rule", "setting", "value", "in use", "unit's own code", "as found"}));
    for (std::size_t i = 0; i < rows.size(); ++i)
        EXPECT_EQ(read[i + 1], (std::vector<std::string>{rows[i].group, rows[i].name, rows[i].value, rows[i].used ? "yes" : "no", "", ""}));
}

} // namespace
