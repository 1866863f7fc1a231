#pragma once

#include "verb.h"

namespace vernal {

// Every setting of a variant, as on the card.
class SettingsVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string job_, variant_;
    bool csv_ = false, fahrenheit_ = false;
};

// Settings chosen from loop, probes and a few answers, each with its reason.
class ChooseVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string job_, variant_, out_;
    std::vector<std::string> answers_;
    bool json_ = false;
};

} // namespace vernal
