#include "verb.h"

#include <algorithm>
#include <ostream>

namespace vernal {

int run_cli(const std::vector<std::string>& arguments, const Streams& s)
{
    CLI::App app{"Vernal Relay: what a set of pump rules does to a loop, a day, a log", "vernal-relay-cli"};
    app.set_version_flag("--version", "vernal-relay-cli " VERNAL_VERSION);
    app.require_subcommand(1);
    const auto verbs = all_verbs();
    std::vector<CLI::App*> commands;
    for (const auto& v : verbs)
        commands.push_back(v->add_to(app));
    std::vector<std::string> reversed(arguments.rbegin(), arguments.rend());
    try {
        app.parse(reversed);
    } catch (const CLI::ParseError& e) {
        const int code = app.exit(e, s.out, s.err);
        return code == 0 ? exit_fine : exit_bad_input;
    }
    for (std::size_t i = 0; i < verbs.size(); ++i) {
        if (!commands[i]->parsed())
            continue;
        const Result<int> done = verbs[i]->run(s);
        if (done)
            return *done;
        s.err << done.error().text() << "\n";
        return exit_bad_input;
    }
    return exit_bad_input;
}

} // namespace vernal
