#pragma once

#include "shared.h"

namespace vernal {

struct Follow {
    std::string leader; // output
    double delay_s = 0, run_on_s = 0;
    bool operator==(const Follow&) const = default;

    static constexpr RuleKind kind{"follow", "Follower", "Collect", "A valve that opens with a pump, a pump that waits for its valve, a second pump.",
        "Run {output} once {leader} has been on for {delay_s}; stop it {run_on_s} after {leader}.", "", Priority::collect};
    void fresh(const FreshContext& c, std::string& output)
    {
        leader = c.first();
        output = c.another(leader);
    }
    void compile(RuleCompiler& c) const
    {
        const std::size_t its_leader = c.output(leader);
        if (its_leader == c.own())
            throw Refused{"it would follow itself"};
        Gate& follows = c.gate(Gate::Kind::follow);
        follows.output = static_cast<std::int8_t>(its_leader);
        follows.wait_ms = RuleCompiler::millis(delay_s);
        follows.on_ms = RuleCompiler::millis(run_on_s);
        c.clause(kind.priority, all_of(RuleCompiler::bit_of(follows)), true);
    }
};

template <class V, OneOf<Follow> T>
void fields(V& v, T& r)
{
    v.output({"leader", "Follows"}, r.leader);
    v.number({"delay_s", "Once on for", Quantity::duration, 0, 3600, "What a valve needs to open: its label"}, r.delay_s);
    v.number({"run_on_s", "Stop after", Quantity::duration, 0, 3600, ""}, r.run_on_s);
}

} // namespace vernal
