#pragma once

#include "verb.h"

namespace vernal {

// Prints the findings of every variant, or of one, over all generated days.
class CheckVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string job_, variant_;
    bool json_ = false;
};

class SchemaVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;
};

} // namespace vernal
