// The text of procedures: Markdown with a small front part (docs/procedures.md).
#include "procedure.h"
#include "procedure_line.h"

#include <cmath>

namespace vernal {
namespace {

using namespace procedure_text;

class Reader {
public:
    Procedure read(const std::string& text)
    {
        each_line(
            text, "name, title and needs", line_, [&](const std::string& s) { take_front(s); }, [&](const std::string& s) { take(s); });
        if (out_.name.empty() || out_.title.empty())
            throw Bad{"the front part has no name or no title", "name: and title: between two lines “---”"};
        if (out_.steps.empty())
            throw Bad{"there is no step", "a line “## What to do”"};
        return std::move(out_);
    }
    std::size_t line() const { return line_; }

private:
    void take_front(const std::string& s)
    {
        const auto [key, value] = parted(s, ":");
        if (key == "name" && is_name(value))
            out_.name = value;
        else if (key == "name")
            throw Bad{"“" + value + "” is no name", "small letters, digits and “-”"};
        else if (key == "title")
            out_.title = value;
        else if (key == "needs")
            out_.needs = key_in<Needs>(needs_keys, value, "thing that is needed");
        else
            throw Bad{"“" + key + "” is not of the front part", "name, title, needs"};
    }

    void take(const std::string& s)
    {
        if (s.starts_with("## ")) {
            out_.steps.push_back({trimmed(s.substr(3)), {}, {}, 1, {}});
            if (out_.steps.back().title.empty())
                throw Bad{"the step has no title", "## What to do"};
        } else if (s.starts_with("#")) {
            throw Bad{"only steps have headings", "## What to do"};
        } else if (s.starts_with("-") && !out_.steps.empty()) {
            take_line(trimmed(s.substr(1)));
        } else if (!s.empty()) {
            std::string& to = out_.steps.empty() ? out_.text : out_.steps.back().text;
            to += (to.empty() ? "" : " ") + s;
        }
    }

    void take_line(const std::string& s)
    {
        ProcedureStep& step = out_.steps.back();
        const auto at = s.find(':');
        if (at == std::string::npos)
            throw Bad{"“" + s + "” has no verb", any_of(act_keys) + ", caution, passes"};
        const std::string verb = trimmed(s.substr(0, at)), rest = trimmed(s.substr(at + 1));
        if (verb == "caution") {
            step.caution = rest;
        } else if (verb == "passes") {
            const double n = number_in(rest, "");
            if (n < 1 || n > 20 || n != std::floor(n))
                throw Bad{"“" + rest + "” is no number of passes", "1 to 20"};
            step.passes = static_cast<int>(n);
        } else {
            step.lines.push_back(line_in(verb, rest, step.lines));
        }
    }

    Procedure out_;
    std::size_t line_ = 0;
};

} // namespace

Result<Procedure> read_procedure(const std::string& text, const std::string& file)
{
    Reader r;
    try {
        return r.read(text);
    } catch (const Bad& b) {
        return Error{b.what, file + ", line " + std::to_string(r.line()), "Expected: " + b.expected};
    }
}

std::string write_procedure(const Procedure& p)
{
    std::string out = "---\nname: " + p.name + "\ntitle: " + p.title + "\nneeds: " + needs_keys[static_cast<std::size_t>(p.needs)] + "\n---\n";
    if (!p.text.empty())
        out += p.text + "\n";
    for (const ProcedureStep& s : p.steps) {
        out += "\n## " + s.title + "\n";
        if (!s.text.empty())
            out += s.text + "\n";
        out += "\n";
        if (!s.caution.empty())
            out += "- caution: " + s.caution + "\n";
        if (s.passes > 1)
            out += "- passes: " + std::to_string(s.passes) + "\n";
        for (const Line& l : s.lines)
            out += line_text(l, s.lines) + "\n";
    }
    return out;
}

} // namespace vernal
