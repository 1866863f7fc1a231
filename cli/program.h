// The command line as one function, for main() and for tests.
#pragma once

#include "core/units/quantity.h"
#include "core/units/result.h"

#include <iosfwd>
#include <string>
#include <vector>

namespace vernal {

// Exit codes of the program.
inline constexpr int exit_fine = 0, exit_serious = 1, exit_bad_input = 2;

struct Streams {
    std::ostream& out;
    std::ostream& err;
    Units units{};              // of what is printed for people; JSON and tables of settings are SI
    std::istream* in = nullptr; // standard input; null: there is none
};

// The whole program, without exit(): arguments after the program's name.
int run_cli(const std::vector<std::string>& arguments, const Streams& s);

} // namespace vernal
