// Procedures at a unit that is not on the rig: a person reads the words and acts, the unit is read by
// its registers. The unit is a stand-in, so that what is wrong with it is known.
#include "core/bench/bench_pair.h"
#include "link/as_found.h"
#include "link/map_file.h"
#include "link/stand_in.h"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <regex>

namespace vernal {
namespace {

// Does what the words say, and nothing that they do not.
class Person {
public:
    explicit Person(StandIn& unit) : unit_(unit), rig_(unit.rig()) {}
    void obey(const std::string& words)
    {
        std::smatch m;
        static const std::regex put("Put (.+) (into the bench's air|into a hand|into ice water|into the cup|into the dry block|back to where it belongs in the loop)\\."), block("Set the dry block to ((?:−)?[0-9.]+)[^0-9]*C(, slowly: ([0-9.]+)[^0-9]*K a minute)?\\."),
            cup("Pour the cup anew, at ([0-9.]+)[^0-9]*C\\."), resistor("In place of (.+) a resistor of ([0-9.]+)[^0-9]*, as at .*"), turn("Turn the switch of (.+) to (ON|OFF|AUTO)\\."), lead("(Open|Short|Join) the lead of (.+?)( as it was)?\\.");
        if (std::regex_match(words, m, put)) {
            const std::map<std::string, Medium> where{{"into the bench's air", Medium::air}, {"into a hand", Medium::hand}, {"into ice water", Medium::ice_water}, {"into the cup", Medium::cup}, {"into the dry block", Medium::block}, {"back to where it belongs in the loop", Medium::loop}};
            for (const std::size_t p : named(m[1], unit_.variant().probes))
                rig_.put(p, where.at(m[2]));
        } else if (std::regex_match(words, m, block)) {
            rig_.set_block(number(m[1]), m[3].matched ? number(m[3]) : 0);
        } else if (std::regex_match(words, m, resistor)) {
            for (const std::size_t p : named(m[1], unit_.variant().probes))
                rig_.put_resistor(p, number(m[2]));
        } else if (std::regex_match(words, m, cup)) {
            rig_.pour(number(m[1]));
        } else if (std::regex_match(words, m, turn)) {
            for (const std::size_t o : named(m[1], unit_.variant().unit.outputs))
                ASSERT_TRUE(unit_.set("output/" + unit_.variant().unit.outputs[o].key + "/mode", m[2]));
        } else if (std::regex_match(words, m, lead)) {
            for (const std::size_t p : named(m[2], unit_.variant().probes))
                rig_.set_lead(p, m[1] == "Open" ? LeadState::broken : m[1] == "Short" ? LeadState::shorted
                                                                                      : LeadState::sound);
        } else {
            FAIL() << "nobody can do that: " << words;
        }
    }
    // What an instrument of one's own shows; NaN: there is none.
    double reads(const Line& l, std::size_t source, std::size_t store) const
    {
        return l.captured == Captured::media_difference ? rig_.tip_c(source) - rig_.tip_c(store) : l.captured == Captured::forced ? forced()
                                                                                                                                  : NAN;
    }

private:
    static double number(const std::string& text)
    {
        std::string t = text;
        if (t.starts_with("−"))
            t.replace(0, std::string("−").size(), "-");
        return std::stod(t);
    }
    template <class List>
    static std::vector<std::size_t> named(const std::string& text, const List& list)
    {
        std::vector<std::size_t> out;
        for (std::size_t i = 0; i < list.size(); ++i)
            if (std::regex_search(text, std::regex("\\b" + list[i].key + "\\b")))
                out.push_back(i);
        EXPECT_FALSE(out.empty()) << text;
        return out;
    }
    double forced() const
    {
        double n = 0;
        for (std::size_t o = 0; o < rig_.outputs(); ++o)
            n += (rig_.mode(o) != Mode::automatic) + rig_.bypassed(o);
        return n;
    }
    StandIn& unit_;
    Rig& rig_;
};

UnitSeen read_now(StandIn& unit, const Variant& v)
{
    WireImage image;
    std::vector<std::uint16_t> words;
    for (const WireBlock& b : live_blocks(unit.map())) {
        EXPECT_EQ(unit.read(b.table, b.address, b.count, words), Refusal::none);
        for (int i = 0; i < b.count; ++i)
            image.put(b.table, b.address + i, words[static_cast<std::size_t>(i)]);
    }
    return seen_of(unit.map(), image, v);
}

ProcedureResult done_at_unit(const std::string& name, const std::string& fault)
{
    const Job job = new_job("glycol-coil");
    const Variant& written = job.variants.front();
    auto unit = StandIn::make(job, 0, job.days.front(), fresh_map(written, 0));
    auto clock = Rig::make(job, written, job.days.front());
    EXPECT_TRUE(unit && clock);
    EXPECT_TRUE((*unit)->put_fault(fault));
    Person person(**unit);
    const auto pair = bench_pair(written);
    EXPECT_TRUE(pair);
    const auto& all = shipped_procedures();
    const auto p = std::find_if(all.begin(), all.end(), [&](const Procedure& x) { return x.name == name; });
    EXPECT_TRUE(p != all.end()) << name;
    ProcedureRun run(*p, written, *clock);
    run.on_unit(read_now(**unit, written));
    constexpr double longest_s = 2 * 86400;
    while (clock->now_s() < longest_s && run.step() < run.result().steps.size()) {
        if (const Line* l = run.asked()) {
            if (run.is_act(*l)) {
                person.obey(run.act_text(*l, {}));
                run.answer(1);
            } else if (l->verb == Act::ask) {
                run.answer(1);
            } else {
                run.answer(person.reads(*l, pair->source, pair->store));
            }
        }
        (*unit)->advance(1);
        run.on_unit(read_now(**unit, written));
        run.advance(1);
    }
    return run.result();
}

} // namespace

TEST(OnUnit, a_sound_unit_passes_by_its_registers_and_a_persons_hands)
{
    for (const char* name : {"side-by-side", "start-by-warming", "stop-by-cooling", "tank-limit", "cut-out", "broken-and-shorted", "all-on-auto"}) {
        const ProcedureResult r = done_at_unit(name, "none");
        std::string said;
        for (const StepResult& s : r.steps)
            said += s.title + ": " + said_text(s, {}) + "\n";
        EXPECT_EQ(r.verdict(), StepVerdict::passed) << name << "\n"
                                                    << said;
    }
}

TEST(OnUnit, what_is_wrong_is_found_there_too)
{
    for (const auto& [name, fault] : {std::pair("side-by-side", "probe_offset"), std::pair("start-by-warming", "start_high"), std::pair("tank-limit", "limit_high"), std::pair("cut-out", "cut_out_high"), std::pair("broken-and-shorted", "relay_stuck_on"), std::pair("all-on-auto", "switch_left_on")})
        EXPECT_EQ(done_at_unit(name, fault).verdict(), StepVerdict::failed) << name << ", " << fault;
}

// What nobody has an instrument for is not judged, and that is said.
TEST(OnUnit, what_was_not_read_is_said)
{
    const Job job = new_job("glycol-coil");
    auto clock = Rig::make(job, job.variants.front(), job.days.front());
    ASSERT_TRUE(clock);
    const auto p = read_procedure("---\nname: x\ntitle: X\nneeds: outputs\n---\n\n## Gauge\n- capture: pressure = gauge\n- judge: pressure above 1 bar\n", "x.md");
    ASSERT_TRUE(p) << p.error().text();
    ProcedureRun run(*p, job.variants.front(), *clock);
    UnitSeen seen;
    seen.reads.assign(job.variants.front().probes.size(), 20);
    for (auto* list : {&seen.speed, &seen.watt})
        list->resize(clock->outputs());
    seen.on.resize(clock->outputs());
    seen.modes.resize(clock->outputs());
    run.on_unit(seen);
    run.advance(5);
    ASSERT_TRUE(run.asked());
    run.answer(NAN);
    run.advance(5);
    ASSERT_EQ(run.step(), 1U);
    EXPECT_EQ(run.result().steps.front().verdict, StepVerdict::passed);
    EXPECT_NE(said_text(run.result().steps.front(), {}).find("was not read"), std::string::npos);
}

} // namespace vernal
