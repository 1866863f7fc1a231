#pragma once

#include "verb.h"

namespace vernal {

// visit JOB list|add|show
class VisitVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string job_, act_, visit_, when_, purpose_ = "service", persons_, out_;
    std::vector<std::string> say_;
    bool json_ = false, close_ = false, sure_ = false;
};

// due FOLDER [--ical FILE]
class DueVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string folder_, ical_, today_, words_;
    bool json_ = false;
};

// report JOB --kind KEY --out FILE
class ReportVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string job_, kind_, out_, variant_, visit_, today_, sheet_;
};

} // namespace vernal
