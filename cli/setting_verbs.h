// Settings by their paths: get, set, fields.
#pragma once

#include "verb.h"

namespace vernal {

class GetVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string job_, path_, variant_;
};

class SetVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string job_, path_, value_, variant_, out_;
};

class FieldsVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string job_, variant_;
    bool json_ = false;
};

} // namespace vernal
