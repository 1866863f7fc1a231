// A unit's sheet and a job: wiring, keys, presets, lamps, one unit in another's place.
#pragma once

#include "core/unit/unit_lists.h"
#include "verb.h"

namespace vernal {

class UnitVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    Result<UnitSheet> sheet_named(const std::string& name, const Job& job) const;
    Result<std::vector<LampSeen>> lamps() const;
    std::string job_, sheet_, kind_ = "keys", instead_of_, variant_, out_;
    std::vector<std::string> lamps_;
    bool json_ = false, fahrenheit_ = false;
};

} // namespace vernal
