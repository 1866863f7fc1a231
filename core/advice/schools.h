// The schools of setting such a unit: all numbers chosen from the loop, the
// probes and a few plain answers, each with its reason and with what was not
// chosen. What the schools ask for are estimates of this program.
#pragma once

#include "core/findings/findings.h"

namespace vernal {

// What running the pump costs: harvest first, even-handed, power saving.
enum class PumpPower : std::uint8_t { cheap,
    usual,
    scarce };
enum class FrostNights : std::uint8_t { never,
    rare,
    winter };
enum class PowerInFrost : std::uint8_t { stays,
    may_fail };
enum class StoreHeat : std::uint8_t { low,
    usual,
    high };
enum class SummerAbsence : std::uint8_t { none,
    weeks };

struct Answers {
    PumpPower pump = PumpPower::usual;
    FrostNights frost = FrostNights::winter;
    PowerInFrost power = PowerInFrost::may_fail;
    StoreHeat heat = StoreHeat::usual;
    SummerAbsence absence = SummerAbsence::none;
    bool operator==(const Answers&) const = default;
};

// A question with its possible answers, in the order of the enumeration.
struct Question {
    const char* key; // on the command line
    const char* text;
    std::vector<const char*> answers;
    const char* why; // it is asked
};
const std::vector<Question>& questions();
// By index of questions() and of its answers.
void answer(Answers& answers, std::size_t question, std::size_t choice);
std::size_t answered(const Answers& answers, std::size_t question);

// What is likely, by the loop and the days of the job: offered first.
Answers likely_answers(const Job& job, const Variant& v);

struct Choice {
    std::string what;  // "Start and stop of P1"
    std::string value; // "8.0 K, 4.0 K"
    std::string why;
    std::string not_chosen;              // and why not; may be empty
    std::function<void(Variant&)> apply; // empty: nothing to set
};
std::vector<Choice> choose_settings(const Job& job, const Variant& v, const Answers& answers, const Units& units);

// All of them, as one change.
void take_all(const std::vector<Choice>& choices, Variant& v);

} // namespace vernal
