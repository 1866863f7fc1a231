// What is asked and found away from the window on service: a call, a pump, the seasons.
#pragma once

#include "verb.h"

namespace vernal {

// call JOB WORDS [--yes QUESTION] [--no QUESTION]
class CallVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string job_, words_, variant_;
    std::vector<std::string> yes_, no_, complaints_;
    bool json_ = false;
};

// triage [--seen hum=yes]
class TriageVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::vector<std::string> seen_;
    bool direct_ = false, json_ = false;
};

// seasons JOB
class SeasonsVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string job_;
    bool json_ = false;
};

} // namespace vernal
