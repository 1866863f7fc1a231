// Puts rules into conditions and clauses: what the kinds of rules compile with.
#pragma once

#include "core/units/reads.h"
#include "kind.h"
#include "knob.h"
#include "program.h"

#include <array>
#include <map>
#include <string>
#include <vector>

namespace vernal {

struct RuleSet;
enum class OnFault : std::uint8_t;

// A latch of a rule and the fields that move its two edges.
struct LatchOrigin {
    std::int16_t rule = -1;
    const char* set_field = "";
    const char* clear_field = "";
};
struct OutOfAction {
    std::size_t rule;
    std::string reason;
    bool no_room = false; // the unit is full
};
struct Compiled {
    Program program;
    std::vector<LatchOrigin> origins;       // by latch
    std::vector<const char*> speed_fields;  // by speed: the field of the temperature it holds; empty: it holds none
    std::vector<OutOfAction> out_of_action; // rules that cannot work; the program leaves them out
    Compiled();
    Compiled(const Compiled&);
    Compiled(Compiled&&) noexcept;
    Compiled& operator=(const Compiled&);
    Compiled& operator=(Compiled&&) noexcept;
    ~Compiled();
};

// Thrown while a rule is compiled: why it is out of action.
struct Refused {
    std::string why;
    bool no_room = false;
};

class RuleCompiler {
public:
    RuleCompiler(const RuleSet& set, const std::vector<std::string>& probes, const std::vector<Reads>& reads);
    Compiled go();

    // --- for the kinds; all speak of the rule that is being compiled -----------

    // What others look at comes first: limits of one store, what collects by
    // itself, what gives way to that, what follows any of them.
    static constexpr int first_pass = 0, usual_pass = 1, giving_way_pass = 2, last_pass = 3;

    Program& program() { return draft_.out.program; }
    const Knob& knob() const;
    std::size_t own() const { return output_; } // its output
    OutputTimers& timers() { return program().timers[output_]; }
    std::int16_t rule() const { return rule_; }

    // Index of an output, channel of a probe; refused where there is none, or where it reads something else.
    std::size_t output(const std::string& key) const;
    std::uint8_t probe(const std::string& key, Reads reads = Reads::temperature) const;
    // Of a value in its inside unit, where a channel of this kind has it.
    static double reading(double inside, Reads reads) { return inside / inside_per_reading(reads); }
    std::uint8_t averaged(std::uint8_t from, double over_s); // channel of its average
    std::uint8_t fixed(MilliKelvin value) { return spare_channel(value); }

    // Bit of a latch over plus less minus. Its readings count for the faults of the output.
    struct Edges {
        MilliKelvin set, clear;
        const char *set_field, *clear_field;
        const char* without_band = no_hysteresis;
    };
    Bits latch(std::uint8_t plus, std::uint8_t minus, const Edges& edges);
    struct Fields {
        const char* set = "limit_c";
        const char* clear = "hysteresis_k";
        const char* without_band = no_hysteresis;
    };
    // Sets at `set` and above, clears at `clear` and below.
    Bits high(const std::string& probe, Temperature set, Temperature clear, const Fields& names);
    // The other way round; values in the unit of the channel.
    Bits low(std::uint8_t channel, double set, double clear, const Fields& names);
    Bits low(const std::string& probe, Temperature set, Temperature clear, const Fields& names);
    void delay(const Bits& latch, double set_s, double clear_s);
    ChannelBits last_reads() const { return draft_.out.program.latch_reads.back(); }

    // Latch of a difference with what stops loading its store.
    Expr difference(const DifferenceOf& d, const char* set_field = "on_k", const char* clear_field = "off_k");
    void limit_store(const std::string& store, const Bits& latch); // silences what loads it
    void collects(const Expr& when) { draft_.collectors[output_].push_back(when); }
    const std::vector<Expr>& collectors() const { return draft_.collectors[output_]; }

    Gate& gate(Gate::Kind kind, Expr when = {});
    // Of either kind; what it looks for is filled in by its rule.
    Gate& guard(Gate::Kind kind, std::uint8_t channel, double check_s, double pause_s, double retries);
    std::uint8_t timer();  // a free slot
    std::uint8_t button(); // a free one
    static Bits bit_of(const Gate& gate);
    Bits bursts(const Expr& when, double on_s, double every_s); // on first, then a pause; every_s above on_s
    Bits term(const Expr& when);
    Bits window(double from_h, double to_h);
    Bits season(double first_day, double last_day); // of a year of 366; 0, no bit: every day
    template <class Windows>
    Bits windows(const Windows& all)
    {
        Gate& c = gate(Gate::Kind::window);
        for (const auto& w : all)
            add_span(c, w.from_h, w.to_h);
        return bit_of(c);
    }
    // Holds its output on in the freeze rank while none of these latches is set, whoever states them.
    void hold_unless(const Bits& frost);
    // Whether a later rule of the same kind in use holds the same output.
    bool overridden() const;

    void clause(Priority priority, const Expr& when, bool wants_on, bool resting_only = false) { clause_for(output_, priority, when, wants_on, resting_only); }
    void clause_for(std::size_t output, Priority priority, const Expr& when, bool wants_on, bool resting_only = false);
    void speed(const Speed& s, const char* at_field = ""); // one an output; its output and readings are filled in
    void use(std::size_t output, ChannelBits channels);    // an output hangs on these readings
    ChannelBits reads(std::uint8_t channel) const;

    static Millis millis(double s);
    static Millis of_day(double hours);
    static std::int32_t per_mille(double share);

    static constexpr const char* no_hysteresis = "the hysteresis is not above zero";
    static constexpr const char* no_band = "it stops at or above the difference at which it starts";

private:
    void try_rule(std::size_t i);
    void finish();
    std::uint8_t spare_channel(MilliKelvin value);
    OnFault on_fault(std::size_t output, std::size_t channel) const;
    static void add_span(Gate& c, double from_h, double to_h);

    // Latches have the bits from 0 on, gates those from max_latches on until
    // finish() moves them up behind the latches.
    struct Draft {
        Compiled out;
        std::map<std::pair<std::size_t, std::string>, Bits> store_limits;
        std::array<std::vector<Expr>, max_outputs> collectors;
        struct Held {
            Bits unless;
            std::int16_t first = -1; // rule
        };
        std::map<std::size_t, Held> held; // by output
    };

    const RuleSet& set_;
    const std::vector<std::string>& probes_;
    const std::vector<Reads>& reads_;
    Draft draft_;
    std::int16_t rule_ = -1;
    std::size_t output_ = 0;
};

} // namespace vernal
