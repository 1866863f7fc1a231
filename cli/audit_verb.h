// What a real unit did, from its log.
#pragma once

#include "verb.h"

namespace vernal {

class AuditVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    std::string job_, variant_, layout_, out_;
    std::vector<std::string> logs_;
    bool json_ = false;
};

} // namespace vernal
