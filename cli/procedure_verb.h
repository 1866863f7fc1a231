// A procedure on the simulated bench, without hands.
#pragma once

#include "verb.h"

namespace vernal {

class ProcedureVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string job_, name_, fault_, variant_, file_;
    bool list_ = false, json_ = false;
};

} // namespace vernal
