// One class per verb of vernal-relay-cli, each testable in-process.
#pragma once

#include "core/units/quantity.h"
#include "core/units/result.h"

#include <CLI/CLI.hpp>

#include <iosfwd>
#include <memory>
#include <vector>

namespace vernal {

// Exit codes of the program.
inline constexpr int exit_fine = 0, exit_serious = 1, exit_bad_input = 2;

struct Streams {
    std::ostream& out;
    std::ostream& err;
    Units units{}; // of what is printed for people; JSON and tables of settings are SI
};

class Verb {
public:
    virtual ~Verb() = default;
    // Adds its subcommand; called once.
    virtual CLI::App* add_to(CLI::App& app) = 0;
    // Runs after its subcommand was parsed; returns the exit code. Bad input is
    // an Error, which the caller prints.
    virtual Result<int> run(const Streams& s) = 0;
};

std::vector<std::unique_ptr<Verb>> all_verbs();

// The whole program, without exit(): arguments after the program's name.
int run_cli(const std::vector<std::string>& arguments, const Streams& s);

} // namespace vernal
