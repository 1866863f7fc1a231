// The figures of a day without its records.
#pragma once

#include "core/job/job.h"
#include "core/run/figures.h"

#include <optional>
#include <stop_token>

namespace vernal {

// Nothing: it cannot be run, or was cancelled.
std::optional<Figures> figures_only(const Job& job, const Variant& v, const Day& day, std::stop_token stop = {});

} // namespace vernal
