// A year's figures, by month.
#pragma once

#include "verb.h"

namespace vernal {

class YearVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string job_, day_, variant_;
    bool json_ = false;
};

} // namespace vernal
