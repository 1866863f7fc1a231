#pragma once

#include "core/setup/loop_answers.h"
#include "verb.h"

namespace vernal {

// A new job from a preset or from answers about the loop.
class NewVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string preset_, title_, place_, customer_, zone_, out_;
    std::map<std::string, std::string> answers_; // of every question; empty: not given
    int probes_ = 0;
    bool json_ = false;
    double latitude_ = NAN, longitude_ = NAN, altitude_ = NAN;
};

} // namespace vernal
