#pragma once

#include "verb.h"

#include <string>
#include <vector>

namespace vernal {

// `sum`: the field sums, by name, with typed inputs; without a name their list.
class SumVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string name_, job_, variant_, probe_;
    std::vector<std::string> inputs_;
};

// `reserve`: how long the heat lasts without sun, and what the element changes.
class ReserveVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string job_, variant_, day_;
    bool json_ = false;
};

} // namespace vernal
