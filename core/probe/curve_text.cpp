#include "curve.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>

namespace vernal {
namespace {

std::string number_text(double v)
{
    char buffer[40];
    const auto [end, ec] = std::to_chars(buffer, buffer + sizeof buffer, v);
    return std::string(buffer, end);
}

std::vector<std::string> split(const std::string& s, char by)
{
    std::vector<std::string> out;
    std::size_t from = 0;
    for (std::size_t to = s.find(by); ; to = s.find(by, from)) {
        out.push_back(s.substr(from, to == std::string::npos ? to : to - from));
        if (to == std::string::npos)
            return out;
        from = to + 1;
    }
}

Result<double> number(const std::string& s)
{
    double v = 0;
    const auto [end, ec] = std::from_chars(s.data(), s.data() + s.size(), v);
    if (ec != std::errc() || end != s.data() + s.size() || !std::isfinite(v))
        return Error{"“" + s + "” is not a number", "probe curve", "Write numbers with a point, such as 3950 or 1.129e-3"};
    return v;
}

Error unknown(const std::string& text)
{
    return Error{"“" + text + "” is not a probe curve", "probe curve",
                 "Use pt100, pt1000, ntc:r25=10000,beta=3950, abc:A,B,C or table:0=32650,25=10000"};
}

ProbeCurve platinum(double r0) { return ProbeCurve{PlatinumCurve{r0}, -200, 850}; }

Result<ProbeCurve> parse_beta(const std::string& body)
{
    NtcBetaCurve c;
    const auto parts = split(body, ',');
    if (parts.size() != 2 || parts[0].substr(0, 3) == parts[1].substr(0, 3))
        return Error{"a beta curve needs its resistance at 25 °C and its beta", "probe curve", "Write ntc:r25=10000,beta=3950"};
    for (const std::string& part : parts) {
        const auto pair = split(part, '=');
        if (pair.size() != 2 || (pair[0] != "r25" && pair[0] != "beta"))
            return unknown("ntc:" + body);
        const auto v = number(pair[1]);
        if (!v)
            return v.error();
        if (!(*v > 0))
            return Error{pair[0] + " must be above zero", "probe curve", ""};
        (pair[0] == "r25" ? c.r25_ohm : c.beta_k) = *v;
    }
    return ProbeCurve{c, -50, 150};
}

Result<ProbeCurve> parse_three_term(const std::string& body)
{
    const auto parts = split(body, ',');
    if (parts.size() != 3)
        return Error{"a three-term curve needs three numbers", "probe curve", "Write abc:A,B,C"};
    double v[3];
    for (std::size_t i = 0; i < 3; ++i) {
        const auto n = number(parts[i]);
        if (!n)
            return n.error();
        v[i] = *n;
    }
    if (!(v[1] > 0) || v[2] < 0)
        return Error{"B must be above zero and C not below it", "probe curve", "Check the order: A, B, C"};
    return ProbeCurve{NtcThreeTermCurve{v[0], v[1], v[2]}, -50, 150};
}

Result<ProbeCurve> parse_table(const std::string& body)
{
    NtcTableCurve c;
    for (const std::string& part : split(body, ',')) {
        const auto pair = split(part, '=');
        if (pair.size() != 2)
            return Error{"“" + part + "” is not a point", "probe curve", "Write points as 25=10000, °C first"};
        const auto t = number(pair[0]), r = number(pair[1]);
        if (!t || !r)
            return !t ? t.error() : r.error();
        if (!(*r > 0) || !(*t > -273.15))
            return Error{"“" + part + "” is not a possible point", "probe curve", "Resistance above zero, temperature above −273.15 °C"};
        c.points.push_back({*t, *r});
    }
    std::sort(c.points.begin(), c.points.end(), [](const CurvePoint& a, const CurvePoint& b) { return a.temp_c < b.temp_c; });
    if (c.points.size() < 2)
        return Error{"a table needs at least two points", "probe curve", ""};
    const bool falls = c.points[1].ohm < c.points[0].ohm;
    for (std::size_t i = 1; i < c.points.size(); ++i) {
        if (c.points[i].temp_c == c.points[i - 1].temp_c)
            return Error{"the table has the temperature " + number_text(c.points[i].temp_c) + " °C twice", "probe curve", ""};
        if (c.points[i].ohm == c.points[i - 1].ohm || (c.points[i].ohm < c.points[i - 1].ohm) != falls)
            return Error{"the table turns back at " + number_text(c.points[i].temp_c) + " °C", "probe curve", "Resistances must keep falling, or keep rising"};
    }
    const double lo = c.points.front().temp_c, hi = c.points.back().temp_c;
    return ProbeCurve{std::move(c), lo, hi};
}

struct Writer {
    std::string operator()(const PlatinumCurve& c) const { return "pt" + number_text(c.r0_ohm); }
    std::string operator()(const NtcBetaCurve& c) const { return "ntc:r25=" + number_text(c.r25_ohm) + ",beta=" + number_text(c.beta_k); }
    std::string operator()(const NtcThreeTermCurve& c) const { return "abc:" + number_text(c.a) + "," + number_text(c.b) + "," + number_text(c.c); }
    std::string operator()(const NtcTableCurve& c) const
    {
        std::string out = "table:";
        for (const CurvePoint& p : c.points)
            out += (out.back() == ':' ? "" : ",") + number_text(p.temp_c) + "=" + number_text(p.ohm);
        return out;
    }
};

} // namespace

Result<ProbeCurve> parse_curve(const std::string& text)
{
    const std::size_t colon = text.find(':');
    const std::string head = text.substr(0, colon);
    const std::string body = colon == std::string::npos ? "" : text.substr(colon + 1);
    if (head == "ntc")
        return parse_beta(body);
    if (head == "abc")
        return parse_three_term(body);
    if (head == "table")
        return parse_table(body);
    if (text == "pt100")
        return platinum(100);
    if (text == "pt1000")
        return platinum(1000);
    return unknown(text);
}

std::string curve_text(const ProbeCurve& curve) { return std::visit(Writer{}, curve.law); }

} // namespace vernal
