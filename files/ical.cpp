#include "ical.h"

#include "attachment.h"

namespace vernal {
namespace {

// Text values: backslash, semicolon, comma and the end of a line are escaped (RFC 5545, 3.3.11).
std::string escaped(const std::string& s)
{
    std::string out;
    for (const char c : s)
        if (c == '\n')
            out += "\\n";
        else if (c == '\\' || c == ';' || c == ',')
            out += std::string("\\") + c;
        else if (static_cast<unsigned char>(c) >= 0x20)
            out += c;
    return out;
}

// A content line has 75 octets at most; what is longer goes on after a blank (3.1), never inside a letter.
std::string folded(const std::string& line)
{
    constexpr std::size_t most = 75;
    std::string out;
    std::size_t length = 0;
    for (std::size_t i = 0; i < line.size();) {
        std::size_t n = 1;
        while (i + n < line.size() && (static_cast<unsigned char>(line[i + n]) & 0xC0U) == 0x80U)
            ++n;
        if (length + n > most) {
            out += "\r\n ";
            length = 1;
        }
        out += line.substr(i, n);
        length += n;
        i += n;
    }
    return out + "\r\n";
}

std::string basic(Day1970 day)
{
    std::string out;
    for (const char c : date_text(day))
        if (c != '-')
            out += c;
    return out;
}

} // namespace

std::string due_calendar(const std::vector<CalendarEntry>& entries, const std::string& stamp)
{
    std::string out = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Vernal Relay//due//EN\r\nCALSCALE:GREGORIAN\r\n";
    constexpr std::size_t uid_digits = 24;
    for (const CalendarEntry& e : entries) {
        const std::string uid = sha256_hex(e.customer + "\n" + e.job + "\n" + e.due.id + "\n" + e.due.visit + "\n" + (e.due.id.empty() ? e.due.title : "")).substr(0, uid_digits) + "@vernal-relay";
        out += "BEGIN:VEVENT\r\n";
        out += folded("UID:" + uid);
        out += "DTSTAMP:" + stamp + "\r\n";
        out += "DTSTART;VALUE=DATE:" + basic(e.due.date) + "\r\n";
        out += "DTEND;VALUE=DATE:" + basic(e.due.date + std::chrono::days(1)) + "\r\n";
        out += folded("SUMMARY:" + escaped(e.due.title + (e.due.licensed ? " (licensed person)" : "") + ": " + e.job));
        out += folded("DESCRIPTION:" + escaped(e.due.why));
        const std::string where = e.customer + (e.customer.empty() || e.place.empty() ? "" : ", ") + e.place;
        if (!where.empty())
            out += folded("LOCATION:" + escaped(where));
        out += "END:VEVENT\r\n";
    }
    return out + "END:VCALENDAR\r\n";
}

} // namespace vernal
