// The list of kinds of gates, and how one is found by its kind.
#pragma once

#include "away.h"
#include "cycle.h"
#include "drain.h"
#include "flow_guard.h"
#include "follow.h"
#include "guard.h"
#include "pressed.h"
#include "run_on.h"
#include "season.h"
#include "term.h"
#include "window.h"

#include <tuple>

namespace vernal {

using GateKinds = std::tuple<WindowGate, SeasonGate, AwayGate, TermGate, CycleGate, FollowGate, RunOnGate, DrainGate, PressedGate, GuardGate, FlowGuardGate>;

// Calls f(G{}) for the kind of this gate and gives what it gives.
template <class F>
[[gnu::always_inline]] inline auto with_kind(Gate::Kind kind, F f)
{
    using Answer = decltype(f(WindowGate{}));
    return [&]<std::size_t... I>(std::index_sequence<I...>)->Answer
    {
        if constexpr (std::is_void_v<Answer>) {
            ((std::tuple_element_t<I, GateKinds>::kind == kind ? f(std::tuple_element_t<I, GateKinds>{}) : void()), ...);
        } else {
            Answer out{};
            ((std::tuple_element_t<I, GateKinds>::kind == kind ? void(out = f(std::tuple_element_t<I, GateKinds>{})) : void()), ...);
            return out;
        }
    }
    (std::make_index_sequence<std::tuple_size_v<GateKinds>>());
}

} // namespace vernal
