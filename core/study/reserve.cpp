#include "reserve.h"
#include "core/setup/job_setup.h"
#include "core/units/constants.h"

namespace vernal {
namespace {

constexpr int settling_days = 3; // until a day ends as it began

CoupledOptions without_records()
{
    CoupledOptions o;
    o.keep_records = false;
    return o;
}

} // namespace

Result<Reserve> reserve_of(const Job& job, const Variant& variant, const Day& day)
{
    auto setup = coupled_setup(job, variant, day);
    if (!setup)
        return setup.error();
    auto dark = std::make_shared<DayForcing>(*setup->days.front());
    for (auto& sun : dark->sun_w_m2)
        std::fill(sun.begin(), sun.end(), 0.0);
    std::fill(dark->plane_w_m2.begin(), dark->plane_w_m2.end(), 0.0);
    setup->days.resize(1);
    setup->days.insert(setup->days.end(), most_dark_days, dark);
    setup->spin_up_days = settling_days;
    const CoupledResult r = run_coupled(*setup, without_records());
    const Figures& f = r.figures;
    Reserve out;
    out.battery = std::isfinite(f.power.charge);
    out.hot_s = std::isnan(f.first_short_s) ? NAN : std::max(0.0, f.first_short_s - day_s);
    out.battery_s = std::isnan(f.first_cut_s) ? NAN : std::max(0.0, f.first_cut_s - day_s);
    out.tank_c = f.end_store_c;
    return out;
}

Result<std::vector<BackupCase>> backup_cases(const Job& job, const Variant& variant, const Day& day)
{
    std::vector<BackupCase> out;
    for (ElementMode mode : {ElementMode::off, ElementMode::always, ElementMode::windows}) {
        Variant v = variant;
        v.loop.element.mode = mode;
        if (LoopAnswers with = v.loop.answers; with.backup = Backup::element, cannot_combine(with).empty())
            v.loop.answers = with; // as if it had one
        auto setup = coupled_setup(job, v, day);
        if (!setup)
            return setup.error();
        setup->spin_up_days = settling_days;
        out.push_back({mode, run_coupled(*setup, without_records()).figures});
    }
    return out;
}

} // namespace vernal
