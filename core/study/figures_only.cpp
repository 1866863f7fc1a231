#include "figures_only.h"

#include "core/run/coupled.h"
#include "core/setup/possible.h"

namespace vernal {

std::optional<Figures> figures_only(const Job& job, const Variant& v, const Day& day, std::stop_token stop)
{
    const auto setup = coupled_setup(job, v, day);
    if (!setup)
        return std::nullopt;
    CoupledOptions options;
    options.keep_records = false;
    options.stop = stop;
    const Figures out = run_with_possible(v, *setup, options).figures;
    return stop.stop_requested() ? std::nullopt : std::optional(out);
}

} // namespace vernal
