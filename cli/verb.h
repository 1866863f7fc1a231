// One class per verb of vernal-relay-cli, each testable in-process.
#pragma once

#include "program.h"

#include <CLI/CLI.hpp>

#include <memory>
#include <vector>

namespace vernal {

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

} // namespace vernal
