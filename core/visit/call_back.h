// A customer calls: what it is likely, what to ask, what can be done safely on the phone.
#pragma once

#include "core/findings/findings.h"

namespace vernal {

// What the customer complains of.
enum class Complaint : std::uint8_t { cold,
    too_hot,
    runs_at_night,
    never_runs,
    often_on_off,
    noise,
    wet, // drips, discharge, pressure low
    lamp,
    never_stops };
inline constexpr std::array complaint_keys{"cold", "too_hot", "runs_at_night", "never_runs", "often_on_off", "noise", "wet", "lamp", "never_stops"};
const char* complaint_text(Complaint c);
// What is in the customer's words, likeliest first; empty: nothing that is known.
std::vector<Complaint> complaints_in(const std::string& words);

struct PhoneQuestion {
    const char* key;
    const char* text; // asked on the phone; answered yes or no
};
const std::vector<PhoneQuestion>& phone_questions();

struct PhoneAnswer {
    std::string question;
    bool yes = false;
};

struct CauseNow {
    std::string key, title;
    double likelihood = 0;            // 0…1 of all causes that are left
    std::vector<std::string> because; // of this loop's history
    std::string on_phone, spares;
};
struct CallBack {
    std::vector<CauseNow> causes; // likeliest first
    std::vector<std::string> ask; // keys of the questions that tell most, first first
};

// Bayes' rule over a table of causes: how often each is (estimates), what this loop can have, what
// its last visits and findings make likelier, what was answered.
CallBack call_back(const Job& job, const Variant& v, const std::vector<Complaint>& complaints, const std::vector<PhoneAnswer>& answers);

} // namespace vernal
