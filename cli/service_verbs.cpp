#include "service_verbs.h"

#include "chosen_variant.h"
#include "core/bench/pump_triage.h"
#include "core/units/ascii.h"
#include "core/units/calendar.h"
#include "core/visit/call_back.h"
#include "core/visit/over_the_seasons.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <ostream>

namespace vernal {
namespace {

using Json = nlohmann::ordered_json;

Result<std::vector<PhoneAnswer>> answers_of(const std::vector<std::string>& yes, const std::vector<std::string>& no)
{
    std::vector<PhoneAnswer> out;
    for (const auto* all : {&yes, &no})
        for (const std::string& key : *all) {
            const auto& known = phone_questions();
            if (std::none_of(known.begin(), known.end(), [&](const PhoneQuestion& q) { return key == q.key; })) {
                std::string keys;
                for (const PhoneQuestion& q : known)
                    keys += (keys.empty() ? "" : ", ") + std::string(q.key);
                return Error{"there is no question “" + key + "”", "", "One of " + keys};
            }
            out.push_back({key, all == &yes});
        }
    return out;
}

const char* question_text(const std::string& key)
{
    for (const PhoneQuestion& q : phone_questions())
        if (key == q.key)
            return q.text;
    return "";
}

long percent_of(double share) { return std::lround(100 * share); }

} // namespace

CLI::App* CallVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("call", "A customer calls: what it is likely, what to ask, what is safe on the phone");
    c->add_option("job", job_, "job file")->required();
    c->add_option("words", words_, "what the customer says");
    c->add_option("--complaint", complaints_, "in place of words, or beside them; may be given several times")->check(CLI::IsMember(std::vector<std::string>(complaint_keys.begin(), complaint_keys.end())));
    c->add_option("--yes", yes_, "key of a question answered yes; may be given several times");
    c->add_option("--no", no_, "key of a question answered no; may be given several times");
    c->add_option("--variant", variant_, "this variant; else the first");
    c->add_flag("--json", json_, "answer as JSON");
    return c;
}

Result<int> CallVerb::run(const Streams& s)
{
    const auto chosen = chosen_variant(job_, variant_);
    if (!chosen)
        return chosen.error();
    auto complaints = complaints_in(words_);
    for (const std::string& key : complaints_) {
        const auto c = static_cast<Complaint>(std::find(complaint_keys.begin(), complaint_keys.end(), key) - complaint_keys.begin());
        if (std::find(complaints.begin(), complaints.end(), c) == complaints.end())
            complaints.push_back(c);
    }
    if (complaints.empty()) {
        std::string all;
        for (const char* key : complaint_keys)
            all += (all.empty() ? "" : ", ") + std::string(key);
        return Error{words_.empty() ? "nothing was said" : "“" + words_ + "” names no complaint that is known", "", "Say it in other words, or --complaint with one of " + all};
    }
    const auto answers = answers_of(yes_, no_);
    if (!answers)
        return answers.error();
    const CallBack now = call_back(chosen->first, chosen->first.variants[chosen->second], complaints, *answers);
    if (json_) {
        Json j{{"complaints", Json::array()}, {"causes", Json::array()}, {"ask", Json::array()}};
        for (const Complaint c : complaints)
            j["complaints"].push_back(complaint_keys[static_cast<std::size_t>(c)]);
        for (const CauseNow& c : now.causes)
            j["causes"].push_back({{"key", c.key}, {"title", c.title}, {"likelihood", c.likelihood}, {"because", c.because}, {"on_phone", c.on_phone}, {"take_along", c.spares}});
        for (const std::string& key : now.ask)
            j["ask"].push_back({{"key", key}, {"question", question_text(key)}});
        s.out << j.dump(2) << "\n";
        return exit_fine;
    }
    s.out << "Complaint:";
    for (const Complaint c : complaints)
        s.out << (c == complaints.front() ? " " : ", ") << complaint_text(c);
    s.out << "\n";
    constexpr std::size_t most_causes = 5, most_questions = 3;
    for (std::size_t i = 0; i < std::min(most_causes, now.causes.size()); ++i) {
        const CauseNow& c = now.causes[i];
        s.out << "  " << percent_of(c.likelihood) << " %  " << c.title << "\n";
        for (const std::string& b : c.because)
            s.out << "        because " << b << "\n";
        s.out << "        On the phone: " << c.on_phone << " Take along: " << c.spares << "\n";
    }
    for (std::size_t i = 0; i < std::min(most_questions, now.ask.size()); ++i)
        s.out << (i == 0 ? "Ask next:\n" : "") << "  " << now.ask[i] << ": " << question_text(now.ask[i]) << "\n";
    s.out << "Nobody opens the unit, climbs or lets a hot loop off on the phone.\n";
    return exit_fine;
}

CLI::App* TriageVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("triage", "What is the matter with a pump, from what is heard, seen and measured at it");
    c->add_option("--seen", seen_, "hum=yes, current=none, shaft=stands …; may be given several times; without any the list");
    c->add_flag("--direct", direct_, "a pump on direct current");
    c->add_flag("--json", json_, "answer as JSON");
    return c;
}

Result<int> TriageVerb::run(const Streams& s)
{
    PumpSeen seen{};
    for (const std::string& said : seen_) {
        const auto is = said.find('=');
        const std::string key = lower_ascii(trimmed(said.substr(0, is))), value = is == std::string::npos ? "" : lower_ascii(trimmed(said.substr(is + 1)));
        std::string known;
        bool found = false;
        for (std::size_t k = 0; k < pump_looks && !found; ++k) {
            const PumpLookText& look = pump_look_text(static_cast<PumpLook>(k));
            known += (known.empty() ? "" : ", ") + std::string(look.key);
            if (key != look.key)
                continue;
            std::string answers;
            for (std::size_t a = 0; a < look.answers.size(); ++a) {
                answers += (answers.empty() ? "" : ", ") + std::string(look.answers[a]);
                if (!found && !value.empty() && lower_ascii(look.answers[a]).starts_with(value)) { // "more" is enough
                    seen[k] = static_cast<int>(a);
                    found = true;
                }
            }
            if (!found)
                return Error{"“" + value + "” is no answer to “" + key + "”", "--seen", "One of " + answers};
        }
        if (!found)
            return Error{"“" + key + "” is nothing that is looked at", "--seen", "One of " + known};
    }
    const PumpVerdict now = pump_verdict(seen, direct_);
    if (json_) {
        Json j{{"causes", Json::array()}, {"next", nullptr}};
        for (const PumpCause& c : now.causes)
            j["causes"].push_back({{"title", c.title}, {"sure", c.sure}, {"what_to_do", c.what_to_do}, {"caution", c.caution}});
        if (now.next)
            j["next"] = {{"key", pump_look_text(*now.next).key}, {"ask", pump_look_text(*now.next).ask}, {"answers", pump_look_text(*now.next).answers}};
        s.out << j.dump(2) << "\n";
        return exit_fine;
    }
    constexpr std::size_t most_causes = 4;
    if (!seen_.empty())
        for (std::size_t i = 0; i < std::min(most_causes, now.causes.size()); ++i) {
            const PumpCause& c = now.causes[i];
            s.out << percent_of(c.sure) << " %  " << c.title << "\n      " << c.what_to_do << "\n";
            if (!c.caution.empty())
                s.out << "      Caution: " << c.caution << "\n";
        }
    const auto put = [&](const PumpLookText& look) {
        s.out << "  " << look.key << ": " << look.ask << " (";
        for (std::size_t a = 0; a < look.answers.size(); ++a)
            s.out << (a == 0 ? "" : ", ") << look.answers[a];
        s.out << ")\n";
    };
    if (seen_.empty()) {
        s.out << "To look at, in any order:\n";
        for (std::size_t k = 0; k < pump_looks; ++k)
            put(pump_look_text(static_cast<PumpLook>(k)));
    } else if (now.next) {
        s.out << "Look next:\n";
        put(pump_look_text(*now.next));
    }
    return exit_fine;
}

CLI::App* SeasonsVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("seasons", "How a loop went from visit to visit: pressure, first start, heat, flow, fluid …");
    c->add_option("job", job_, "job file")->required();
    c->add_flag("--json", json_, "answer as JSON");
    return c;
}

Result<int> SeasonsVerb::run(const Streams& s)
{
    const auto chosen = chosen_variant(job_, "");
    if (!chosen)
        return chosen.error();
    const auto courses = over_the_seasons(chosen->first, s.units);
    const auto lives = life_lines(chosen->first);
    if (json_) {
        Json j{{"seasons", Json::array()}, {"lives", lives}};
        for (const SeasonCourse& c : courses) {
            Json points = Json::array();
            for (const SeasonPoint& p : c.points)
                points.push_back({{"date", date_text(Day1970{std::chrono::days(std::lround(p.day))})}, {"value", p.value}, {"visit", p.from}});
            j["seasons"].push_back({{"key", c.key}, {"title", c.title}, {"unit", c.unit}, {"points", points}, {"says", c.says}});
        }
        s.out << j.dump(2) << "\n";
        return exit_fine;
    }
    if (courses.empty())
        s.out << "Fewer than two visits read the same thing: nothing to compare yet\n";
    for (const SeasonCourse& c : courses) {
        s.out << c.title << (c.unit.empty() ? "" : " [" + c.unit + "]") << ":";
        for (const SeasonPoint& p : c.points)
            s.out << "  " << date_text(Day1970{std::chrono::days(std::lround(p.day))}) << " " << to_text(p.value, Quantity::number, Units::metric());
        s.out << "\n  " << c.says << "\n";
    }
    for (const std::string& l : lives)
        s.out << l << "\n";
    return exit_fine;
}

} // namespace vernal
