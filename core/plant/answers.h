// The answers that a loop is put together from, and which of them cannot go together.
#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace vernal {

enum class Array : std::uint8_t { flat,
    selective,
    tubes,
    unglazed,
    hose,
    air,
    trickle }; // open: a film of water runs down the absorber
enum class Carrier : std::uint8_t { water,
    glycol,
    air };
enum class Empties : std::uint8_t { full, // stays full
    reservoir,
    open_tank,
    valve };
enum class Transfer : std::uint8_t { straight,
    coil,
    exchanger };
enum class ExchangerPumps : std::uint8_t { one, // output drives both
    two };
enum class Store : std::uint8_t { tank,
    two_tanks,
    pool,
    slab,
    room };
enum class Fields : std::uint8_t { one,
    two };
enum class PoweredBy : std::uint8_t { mains,
    panel,
    battery,
    none }; // the water circulates by itself
enum class Excess : std::uint8_t { none,
    cooler,
    house,
    circulation }; // the tap circulation, run longer
enum class Backup : std::uint8_t { none,
    element,
    heater_after }; // fed by the solar tank
enum class Circulates : std::uint8_t { none,
    taps };

struct LoopAnswers {
    Array array = Array::selective;
    Fields fields = Fields::one;
    Carrier carrier = Carrier::glycol;
    Empties empties = Empties::full;
    Transfer transfer = Transfer::coil;
    ExchangerPumps exchanger_pumps = ExchangerPumps::one;
    Store store = Store::tank;
    PoweredBy power = PoweredBy::mains;
    Excess excess = Excess::none;
    Backup backup = Backup::none;
    Circulates circulation = Circulates::none;
    bool operator==(const LoopAnswers&) const = default;
};

// A question, and how its answer is kept.
struct LoopQuestion {
    struct Answer {
        const char* key;
        const char* text;
    };
    const char* key;             // in the job file; with hyphens the option of the command line
    const char* text;            // "What collects?"
    std::vector<Answer> answers; // by the value of the enumeration
    std::size_t (*get)(const LoopAnswers&);
    void (*set)(LoopAnswers&, std::size_t);
};
const std::vector<LoopQuestion>& loop_questions();
// Keys of a question's answers, by the value of the enumeration. It exists.
const std::vector<const char*>& answer_keys(const std::string& question);
const LoopQuestion* find_question(const std::string& key); // nullptr: unknown

// All answers in one line, "array=flat fields=1 …"; none: it is not such a line.
std::string answers_text(const LoopAnswers& answers);
std::optional<LoopAnswers> answers_of_text(const std::string& text);

// Why these answers cannot go together; empty: they can. Of questions left open, by
// their place in loop_questions(), nothing is held against the rest.
using OpenQuestions = std::vector<bool>; // empty: none is open
std::string cannot_combine(const LoopAnswers& answers, const OpenQuestions& open = {});

// Every set of answers that can go together.
std::vector<LoopAnswers> all_answers();

} // namespace vernal
