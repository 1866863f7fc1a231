// The simulation that advances: in pieces, from copies, with several listeners.
#include "core/job/job.h"
#include "core/run/figure_counter.h"
#include "core/run/simulation.h"
#include "core/setup/job_setup.h"

#include <gtest/gtest.h>

namespace vernal {
namespace {

constexpr double noon_s = 43200, day_s = 86400;

CoupledSetup setup_of(const std::string& arrangement, std::size_t day = 0)
{
    const Job job = new_job(arrangement);
    return *coupled_setup(job, job.variants[0], job.days[day]);
}

// What a copy does after noon is what the original does, to the last bit, also
// where water stands in pipes, a battery holds charge and steam pushes into the vessel.
TEST(Simulation, a_copy_goes_on_as_the_original)
{
    for (const Arrangement& a : presets()) {
        Simulation original(setup_of(a.key, 1));
        original.spin_up();
        ASSERT_TRUE(original.advance(noon_s));
        Simulation copy = original;
        original.advance(day_s);
        EXPECT_EQ(copy.now_s(), noon_s) << a.key;
        copy.advance(day_s);
        EXPECT_EQ(copy.temperatures(), original.temperatures()) << a.key;
        EXPECT_EQ(copy.engine(), original.engine()) << a.key;
        EXPECT_EQ(copy.pressure().present(), original.pressure().present());
        if (copy.pressure().present()) {
            EXPECT_EQ(copy.pressure().pa(), original.pressure().pa()) << a.key;
        }
        EXPECT_EQ(copy.hydraulics().power().charge(), original.hydraulics().power().charge()) << a.key;
    }
}

// Copies are not heard by who listens to the original.
TEST(Simulation, listeners_stay_with_the_original)
{
    Simulation s(setup_of("glycol-coil"));
    s.spin_up();
    FigureCounter figures(s);
    s.add(figures);
    Simulation copy = s;
    copy.advance(noon_s);
    EXPECT_EQ(figures.finished(s).needed_j, 0);
    s.advance(noon_s);
    EXPECT_GT(figures.finished(s).needed_j, 0);
}

// Stopped every seven minutes, as a bench does, the day comes to the same within
// what steps of other lengths may differ by.
TEST(Simulation, in_pieces_it_comes_to_the_same)
{
    for (const char* key : {"glycol-coil", "drainback", "pv-battery"}) {
        Simulation whole(setup_of(key)), pieces(setup_of(key));
        for (Simulation* s : {&whole, &pieces})
            s->spin_up();
        FigureCounter a(whole), b(pieces);
        whole.add(a);
        pieces.add(b);
        whole.advance(day_s);
        for (double t = 420; t < day_s; t += 420) {
            pieces.advance(t);
            ASSERT_EQ(pieces.now_s(), t);
        }
        pieces.advance(day_s);
        const Figures x = a.finished(whole), y = b.finished(pieces);
        EXPECT_NEAR(y.heat.to_store / x.heat.to_store, 1, 0.005) << key;
        EXPECT_NEAR(y.starts(), x.starts(), std::max(1.0, 0.02 * x.starts())) << key;
        EXPECT_LT(std::fabs(y.residual_j()), 1e-6 * x.heat.absorbed) << key;
    }
}

// A switch moved in the middle of a day acts at the unit's next sample; the past stays.
TEST(Simulation, a_switch_moved_at_noon_acts_from_then_on)
{
    Simulation s(setup_of("glycol-coil"));
    s.spin_up();
    s.advance(noon_s);
    ASSERT_TRUE(s.decisions()[0].on);
    s.set_mode(0, Mode::off);
    s.advance(noon_s + 1);
    EXPECT_FALSE(s.decisions()[0].on);
    EXPECT_EQ(s.decisions()[0].priority, Priority::off_switch);
    s.advance(noon_s + 600);
    EXPECT_FALSE(s.decisions()[0].on);
    s.set_mode(0, Mode::automatic);
    s.advance(noon_s + 601);
    EXPECT_TRUE(s.decisions()[0].on);
}

// After the last day of the setup its weather repeats.
TEST(Simulation, goes_on_beyond_its_days)
{
    Simulation s(setup_of("glycol-coil"));
    s.spin_up();
    EXPECT_EQ(s.length_s(), day_s);
    ASSERT_TRUE(s.advance(2 * day_s + noon_s));
    EXPECT_EQ(s.now_s(), 2 * day_s + noon_s);
    EXPECT_EQ(s.time_of_day_s(), noon_s);
}

} // namespace
} // namespace vernal
