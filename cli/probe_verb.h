#pragma once

#include "verb.h"

namespace vernal {

class ProbeVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    CLI::App* convert_ = nullptr;
    std::string curve_, temp_;
    double ohm_ = 0;
    bool json_ = false;
};

} // namespace vernal
