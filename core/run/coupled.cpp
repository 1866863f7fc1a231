#include "coupled.h"

#include "figure_counter.h"

#include <optional>

namespace vernal {

CoupledResult::CoupledResult() = default;
CoupledResult::CoupledResult(const CoupledResult&) = default;
CoupledResult::CoupledResult(CoupledResult&&) noexcept = default;
CoupledResult& CoupledResult::operator=(const CoupledResult&) = default;
CoupledResult& CoupledResult::operator=(CoupledResult&&) noexcept = default;
CoupledResult::~CoupledResult() = default;

CoupledSetup::CoupledSetup() = default;
CoupledSetup::CoupledSetup(const CoupledSetup&) = default;
CoupledSetup::CoupledSetup(CoupledSetup&&) noexcept = default;
CoupledSetup& CoupledSetup::operator=(const CoupledSetup&) = default;
CoupledSetup& CoupledSetup::operator=(CoupledSetup&&) noexcept = default;
CoupledSetup::~CoupledSetup() = default;

namespace {

struct RowTeller : Listener {
    const std::function<void(const SampleRow&)>& each;
    explicit RowTeller(const std::function<void(const SampleRow&)>& f) : each(f) {}
    bool wants_rows() const override { return true; }
    void row(const SampleRow& r) override { each(r); }
};

} // namespace

CoupledResult run_coupled(const CoupledSetup& setup, const CoupledOptions& options)
{
    Simulation simulation(setup);
    CoupledResult result;
    simulation.spin_up(options.stop);
    result.first_state = simulation.engine();
    result.node_count = simulation.network().size();
    result.begins_c = simulation.temperatures();
    FigureCounter figures(simulation);
    simulation.add(figures);
    std::optional<Recorder> recorder;
    if (options.keep_records) {
        simulation.add(recorder.emplace(simulation.network().size(), setup.days.size()));
        recorder->day_began(simulation);
    }
    std::optional<RowTeller> rows;
    if (options.each_sample)
        simulation.add(rows.emplace(options.each_sample));
    // Where no day went before, the unit was given power at second 0, and that sample belongs to the run.
    if (options.each_sample && setup.spin_up_days == 0) {
        simulation.tell_row();
        result.first_state = power_up(simulation.program());
    }
    result.cancelled = !simulation.advance(simulation.length_s(), options.stop) || options.stop.stop_requested();
    result.figures = figures.finished(simulation);
    if (recorder) {
        result.records = std::move(recorder->records);
        result.nodes = std::move(recorder->nodes);
    }
    return result;
}

} // namespace vernal
