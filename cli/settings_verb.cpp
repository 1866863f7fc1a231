#include "settings_verb.h"
#include "in_out.h"

#include "chosen_variant.h"
#include "core/advice/schools.h"
#include "core/sums/knob_card.h"
#include "files/card_csv.h"
#include "files/disk.h"
#include "files/job_file.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <ostream>

namespace vernal {

CLI::App* SettingsVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("settings", "Every setting of a variant, as on the card");
    c->add_option("job", job_, "job file, .vrelay or job.json")->required();
    c->add_option("--variant", variant_, "this variant; else the first");
    c->add_flag("--csv", csv_, "as a table with columns for the unit's own code and for as found");
    c->add_flag("--fahrenheit", fahrenheit_, "temperatures and differences in °F");
    return c;
}

Result<int> SettingsVerb::run(const Streams& s)
{
    const auto chosen = chosen_variant(job_, variant_);
    if (!chosen)
        return chosen.error();
    Units units = s.units;
    units.fahrenheit |= fahrenheit_;
    const auto rows = whole_card(chosen->first.variants[chosen->second], units);
    if (csv_) {
        s.out << card_csv(rows);
        return exit_fine;
    }
    std::string group;
    for (const CardRow& r : rows) {
        if (r.group != group)
            s.out << (group = r.group) << (r.used ? "" : " (switched off)") << "\n";
        s.out << "  " << r.name << ": " << r.value << "\n";
    }
    return exit_fine;
}

CLI::App* ChooseVerb::add_to(CLI::App& app)
{
    std::string help = "Settings chosen from the loop, the probes and a few answers";
    CLI::App* c = app.add_subcommand("choose", help);
    c->add_option("job", job_, "job file, .vrelay or job.json")->required();
    c->add_option("--variant", variant_, "this variant; else the first");
    std::string keys;
    for (const Question& q : questions()) {
        keys += (keys.empty() ? "" : "; ") + std::string(q.key) + "=1 … " + std::to_string(q.answers.size()) + ": " + q.text;
    }
    c->add_option("--answer", answers_, keys);
    c->add_option("--out", out_, "writes the job with these settings here");
    c->add_flag("--json", json_, "answer as JSON");
    return c;
}

Result<int> ChooseVerb::run(const Streams& s)
{
    const auto chosen = chosen_variant(job_, variant_);
    if (!chosen)
        return chosen.error();
    Job job = chosen->first;
    Variant& v = job.variants[chosen->second];
    Answers answers = likely_answers(job, v);
    for (const std::string& given : answers_) {
        const std::size_t equals = given.find('=');
        const auto q = std::find_if(questions().begin(), questions().end(), [&](const Question& x) { return given.substr(0, equals) == x.key; });
        const int choice = equals == std::string::npos ? 0 : std::atoi(given.c_str() + equals + 1);
        if (q == questions().end() || choice < 1 || choice > static_cast<int>(q->answers.size()))
            return Error{"“" + given + "” answers no question", "--answer", "Write for example pump=2; --help lists the questions"};
        answer(answers, static_cast<std::size_t>(q - questions().begin()), static_cast<std::size_t>(choice - 1));
    }
    const auto choices = choose_settings(job, v, answers, json_ ? Units::metric() : s.units);
    auto list = nlohmann::ordered_json::array();
    for (const Choice& c : choices)
        if (json_)
            list.push_back({{"what", c.what}, {"value", c.value}, {"why", c.why}, {"not_chosen", c.not_chosen}});
        else
            s.out << c.what << ": " << c.value << "\n  " << c.why << "\n"
                  << (c.not_chosen.empty() ? "" : "  Not chosen: " + c.not_chosen + "\n");
    if (json_)
        s.out << nlohmann::ordered_json{{"job", job.title}, {"variant", v.name}, {"choices", list}}.dump(2) << "\n";
    if (out_.empty())
        return exit_fine;
    take_all(choices, v);
    if (const auto done = write_job(s, job, out_); !done)
        return done.error();
    return exit_fine;
}

} // namespace vernal
