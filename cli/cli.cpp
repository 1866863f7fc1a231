#include "verb.h"

#include <charconv>
#include <cmath>
#include <exception>
#include <new>
#include <optional>
#include <ostream>

namespace vernal {

namespace {

// "nan" and "inf" read as numbers everywhere else.
std::string finite(std::string& text)
{
    double v = 0;
    const auto [end, ec] = std::from_chars(text.data(), text.data() + text.size(), v);
    const bool endless = ec == std::errc::result_out_of_range || (ec == std::errc() && end == text.data() + text.size() && !std::isfinite(v));
    return endless ? "“" + text + "” is not a number to work with" : "";
}

void refuse_endless_numbers(CLI::App& command)
{
    for (CLI::Option* o : command.get_options())
        if (o->get_type_name().rfind("FLOAT", 0) == 0)
            o->check(CLI::Validator(finite, "", "finite"));
    for (CLI::App* below : command.get_subcommands([](CLI::App*) { return true; }))
        refuse_endless_numbers(*below);
}

// The first word, where it is no verb.
std::optional<std::string> unknown_verb(const std::vector<std::string>& arguments, const std::vector<CLI::App*>& commands)
{
    if (arguments.empty() || arguments[0].empty() || arguments[0][0] == '-')
        return {};
    std::string known;
    for (const CLI::App* c : commands) {
        if (c->get_name() == arguments[0])
            return {};
        known += (known.empty() ? "" : ", ") + c->get_name();
    }
    return "“" + arguments[0] + "” is no verb. There are " + known;
}

Result<int> run_safely(Verb& verb, const Streams& s)
try {
    return verb.run(s);
} catch (const std::bad_alloc&) {
    return Error{"there is not enough memory for this", "", "Work on a part of it"};
} catch (const std::exception& e) {
    return Error{std::string("this went wrong: ") + e.what(), "", "Nothing was written that is not whole"};
}

} // namespace

int run_cli(const std::vector<std::string>& arguments, const Streams& streams)
{
    Streams s = streams;
    bool us = false;
    CLI::App app{"Vernal Relay: what a set of pump rules does to a loop, a day, a log", "vernal-relay-cli"};
    app.set_version_flag("--version", "vernal-relay-cli " VERNAL_VERSION);
    app.add_flag("--us", us, "US units: °F, gal, psi, ft, AWG, BTU; JSON stays SI");
    app.fallthrough();
    app.require_subcommand(1);
    const auto verbs = all_verbs();
    std::vector<CLI::App*> commands;
    for (const auto& v : verbs)
        commands.push_back(v->add_to(app)); // what they do not know themselves is the program's: --us stands anywhere
    for (CLI::App* c : commands)
        refuse_endless_numbers(*c);
    if (const auto unknown = unknown_verb(arguments, commands)) {
        s.err << *unknown << "\n";
        return exit_bad_input;
    }
    std::vector<std::string> reversed(arguments.rbegin(), arguments.rend());
    try {
        app.parse(reversed);
    } catch (const CLI::ParseError& e) {
        const int code = app.exit(e, s.out, s.err);
        return code == 0 ? exit_fine : exit_bad_input;
    }
    if (us)
        s.units = Units::us();
    for (std::size_t i = 0; i < verbs.size(); ++i) {
        if (!commands[i]->parsed())
            continue;
        const Result<int> done = run_safely(*verbs[i], s);
        if (done)
            return *done;
        s.err << done.error().text() << "\n";
        return exit_bad_input;
    }
    return exit_bad_input;
}

} // namespace vernal
