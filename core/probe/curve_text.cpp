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
    for (std::size_t to = s.find(by);; to = s.find(by, from)) {
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
        "Use pt100, pt1000, ntc:r25=10000,beta=3950, abc:A,B,C, table:0=32650,25=10000, poly:at=25,r=2000,c=7.9e-3/1.9e-5, line:mA=4..20,c=0..100 or line:V=0..10,c=0..100"};
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
    if (!(v[1] > 0))
        return Error{"B must be above zero", "probe curve", "Check the order: A, B, C"};
    return ProbeCurve{NtcThreeTermCurve{v[0], v[1], v[2]}, -50, 150};
}

Result<ProbeCurve> parse_table(const std::string& body)
{
    TableCurve c;
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

// "a=1,b=2" with just these keys, in any order.
Result<std::map<std::string, std::string>> pairs(const std::string& body, const std::vector<std::string>& keys, const char* example)
{
    std::map<std::string, std::string> out;
    for (const std::string& part : split(body, ',')) {
        const auto pair = split(part, '=');
        if (pair.size() != 2 || std::find(keys.begin(), keys.end(), pair[0]) == keys.end() || !out.emplace(pair[0], pair[1]).second)
            return Error{"“" + part + "” is not understood here", "probe curve", std::string("Write ") + example};
    }
    return out;
}

// "low..high"
Result<std::pair<double, double>> span(const std::string& s)
{
    const std::size_t dots = s.find("..");
    if (dots == std::string::npos)
        return Error{"“" + s + "” is not a range", "probe curve", "Write it as 0..100"};
    const auto a = number(s.substr(0, dots)), b = number(s.substr(dots + 2));
    if (!a || !b)
        return !a ? a.error() : b.error();
    return std::pair{*a, *b};
}

Result<ProbeCurve> parse_polynomial(const std::string& body)
{
    constexpr const char* example = "poly:at=25,r=2000,c=7.9e-3/1.9e-5";
    const auto p = pairs(body, {"at", "r", "c"}, example);
    if (!p)
        return p.error();
    if (p->size() != 3)
        return Error{"a polynomial needs its reference temperature, its resistance there and its coefficients", "probe curve", std::string("Write ") + example};
    PolynomialCurve c;
    const auto at = number(p->at("at")), r = number(p->at("r"));
    if (!at || !r)
        return !at ? at.error() : r.error();
    for (const std::string& term : split(p->at("c"), '/')) {
        const auto v = number(term);
        if (!v)
            return v.error();
        c.c.push_back(*v);
    }
    c.ref_c = *at;
    c.r_ohm = *r;
    if (!(c.r_ohm > 0) || !(c.c.front() > 0) || c.c.size() > 6)
        return Error{"the resistance and the first coefficient must be above zero, with at most six coefficients", "probe curve", ""};
    return ProbeCurve{std::move(c), -50, 150};
}

Result<ProbeCurve> parse_line(const std::string& body)
{
    constexpr const char* example = "line:mA=4..20,c=0..100 or line:V=0..10,c=0..100";
    const auto p = pairs(body, {"mA", "V", "c"}, example);
    if (!p)
        return p.error();
    if (p->size() != 2 || !p->contains("c"))
        return Error{"a straight signal needs its span in mA or V and its span in °C", "probe curve", std::string("Write ") + example};
    LinearSignal c;
    c.ampere = p->contains("mA");
    const auto signal = span(p->at(c.ampere ? "mA" : "V")), temp = span(p->at("c"));
    if (!signal || !temp)
        return !signal ? signal.error() : temp.error();
    std::tie(c.low, c.high) = *signal;
    std::tie(c.low_c, c.high_c) = *temp;
    if (c.low == c.high || !(c.low_c < c.high_c))
        return Error{"both spans must have a length, and the temperatures must rise", "probe curve", ""};
    const double low_c = c.low_c, high_c = c.high_c;
    return ProbeCurve{c, low_c, high_c};
}

// One way over the whole range, else a signal would mean two temperatures.
bool one_way(const ProbeCurve& c)
{
    constexpr int looks = 256;
    const bool down = falls(c);
    double before = signal_beyond(c, c.min_c);
    for (int i = 1; i <= looks; ++i) {
        const double now = signal_beyond(c, c.min_c + (c.max_c - c.min_c) * i / looks);
        if (!std::isfinite(now) || (now < before) != down || now == before)
            return false;
        before = now;
    }
    return true;
}

Result<ProbeCurve> parse_law(const std::string& text)
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
    if (head == "poly")
        return parse_polynomial(body);
    if (head == "line")
        return parse_line(body);
    if (text == "pt100")
        return platinum(100);
    if (text == "pt1000")
        return platinum(1000);
    if (head == "pt") {
        const auto r0 = number(body);
        if (!r0 || !(*r0 > 0))
            return unknown(text);
        return platinum(*r0);
    }
    return unknown(text);
}

struct Writer {
    std::string operator()(const PlatinumCurve& c) const { return (c.r0_ohm == 100 || c.r0_ohm == 1000 ? "pt" : "pt:") + number_text(c.r0_ohm); }
    std::string operator()(const PolynomialCurve& c) const
    {
        std::string out = "poly:at=" + number_text(c.ref_c) + ",r=" + number_text(c.r_ohm) + ",c=";
        for (double v : c.c)
            out += (out.back() == '=' ? "" : "/") + number_text(v);
        return out;
    }
    std::string operator()(const LinearSignal& c) const
    {
        return std::string("line:") + (c.ampere ? "mA=" : "V=") + number_text(c.low) + ".." + number_text(c.high) + ",c=" + number_text(c.low_c) + ".." + number_text(c.high_c);
    }
    std::string operator()(const NtcBetaCurve& c) const { return "ntc:r25=" + number_text(c.r25_ohm) + ",beta=" + number_text(c.beta_k); }
    std::string operator()(const NtcThreeTermCurve& c) const { return "abc:" + number_text(c.a) + "," + number_text(c.b) + "," + number_text(c.c); }
    std::string operator()(const TableCurve& c) const
    {
        std::string out = "table:";
        for (const CurvePoint& p : c.points)
            out += (out.back() == ':' ? "" : ",") + number_text(p.temp_c) + "=" + number_text(p.ohm);
        return out;
    }
};

// What a law is good for unless its text says otherwise.
std::pair<double, double> usual_range(const ProbeCurve& c)
{
    const auto law = parse_law(std::visit(Writer{}, c.law));
    return law ? std::pair{law->min_c, law->max_c} : std::pair{c.min_c, c.max_c};
}

} // namespace

Result<ProbeCurve> parse_curve(const std::string& text)
{
    constexpr const char* mark = ";range=";
    const std::size_t at = text.find(mark);
    auto curve = parse_law(text.substr(0, at));
    if (!curve)
        return curve;
    if (at != std::string::npos) {
        const auto range = span(text.substr(at + std::char_traits<char>::length(mark)));
        if (!range)
            return range.error();
        if (!(range->first < range->second) || range->first < -273 || range->second > 1000)
            return Error{"the range must rise and lie within −273 to 1000 °C", "probe curve", ""};
        if (std::holds_alternative<TableCurve>(curve->law) && (range->first < curve->min_c || range->second > curve->max_c))
            return Error{"the range reaches beyond the table", "probe curve", "Add points to the table, or narrow the range"};
        std::tie(curve->min_c, curve->max_c) = *range;
    }
    if (!one_way(*curve))
        return Error{"this curve turns back within its range", "probe curve", "Check its numbers, or narrow the range with ;range=0..100"};
    return curve;
}

std::string curve_text(const ProbeCurve& curve)
{
    const std::string law = std::visit(Writer{}, curve.law);
    if (usual_range(curve) == std::pair{curve.min_c, curve.max_c})
        return law;
    return law + ";range=" + number_text(curve.min_c) + ".." + number_text(curve.max_c);
}

} // namespace vernal
