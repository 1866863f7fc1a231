#include "new_verb.h"
#include "in_out.h"

#include "core/job/field_path.h"
#include "core/weather/zone.h"
#include "files/disk.h"
#include "files/job_file.h"
#include "files/place_list.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <ostream>

namespace vernal {
namespace {

std::string option_of(const LoopQuestion& q)
{
    std::string option = q.key;
    std::replace(option.begin(), option.end(), '_', '-');
    return option;
}

} // namespace

CLI::App* NewVerb::add_to(CLI::App& app)
{
    CLI::App* c = app.add_subcommand("new", "A new job, from a preset or from answers about the loop");
    std::string names;
    for (const Arrangement& p : presets())
        names += (names.empty() ? "" : ", ") + p.key;
    c->add_option("--preset", preset_, "one of " + names);
    for (const LoopQuestion& q : loop_questions()) {
        std::string can;
        for (const auto& a : q.answers)
            can += (can.empty() ? "" : ", ") + std::string(a.key) + " (" + a.text + ")";
        c->add_option("--" + option_of(q), answers_[q.key], std::string(q.text) + " " + can);
    }
    c->add_option("--probes", probes_, "of the unit: 3, or 2 without one at the tank's top; 1 where the water circulates by itself");
    c->add_option("--title", title_, "of the job");
    c->add_option("--place", place_, "name of the place; one of the shipped list brings coordinates and zone");
    c->add_option("--customer", customer_, "whose it is");
    c->add_option("--zone", zone_, "of the clock, like Europe/Oslo");
    c->add_option("--latitude", latitude_, "degrees, north positive");
    c->add_option("--longitude", longitude_, "degrees, east positive");
    c->add_option("--altitude", altitude_, "m");
    c->add_flag("--json", json_, "answer as JSON: what was answered, and what was assumed");
    c->add_option("--out", out_, "file to write, never one that is there; - is standard output")->required();
    return c;
}

Result<int> NewVerb::run(const Streams& s)
{
    GivenAnswers given;
    for (const auto& [key, value] : answers_)
        if (!value.empty())
            given[key] = value;
    auto job = new_job_of(given, preset_, probes_);
    if (!job)
        return job.error();
    job->title = title_.empty() ? "New loop" : title_;
    job->site.name = place_;
    job->site.customer = customer_;
    // A place of the list, unless it is told where it lies.
    if (!place_.empty() && std::isnan(latitude_) && std::isnan(longitude_)) {
        if (const auto found = find_places(place_, 1); !found.empty()) {
            job->site.place.latitude_deg = found.front()->place.latitude_deg;
            job->site.place.longitude_deg = found.front()->place.longitude_deg;
            job->site.place.zone = found.front()->place.zone;
            job->site.name = found.front()->name;
            words_beside(s, out_) << found.front()->text() << ", by the list of places; " << (std::isnan(altitude_) ? "its altitude is not in it: --altitude\n" : "\n");
        } else {
            s.err << "“" << place_ << "” is not in the list of places: state --latitude, --longitude, --altitude and --zone\n";
        }
    }
    if (!zone_.empty()) {
        if (!zone_known(zone_))
            return Error{"“" + zone_ + "” is no time zone", "zone", "A name like Europe/Oslo"};
        job->site.place.zone = zone_;
    }
    for (const auto& [path, value] : {std::pair{"site/place/latitude_deg", latitude_}, {"site/place/longitude_deg", longitude_}, {"site/place/altitude_m", altitude_}})
        if (!std::isnan(value))
            if (const auto done = set_setting(*job, 0, path, value); !done)
                return done.error();
    move_fresh_job(*job, Place(job->site.place));
    std::error_code none;
    if (!is_standard(out_) && std::filesystem::exists(out_, none))
        return Error{"there is a file of that name", out_, "Choose another name; new writes over nothing"};
    if (const auto done = write_job(s, *job, out_); !done)
        return done.error();
    std::ostream& out = words_beside(s, out_);
    const LoopAnswers& answers = job->variants.front().loop.answers;
    if (json_) {
        nlohmann::ordered_json answered, assumed;
        for (const LoopQuestion& q : loop_questions())
            (given.contains(q.key) ? answered : assumed)[q.key] = q.answers[q.get(answers)].key;
        out << nlohmann::ordered_json{{"job", job->title}, {"file", out_}, {"loop", arrangement_of(answers).title}, {"preset", preset_}, {"answered", answered}, {"assumed", assumed}}.dump(2) << "\n";
        return exit_fine;
    }
    out << out_ << ": " << arrangement_of(answers).title << "\n";
    for (const LoopQuestion& q : loop_questions())
        if (!given.contains(q.key) && preset_.empty())
            out << "  assumed: " << q.text << " " << q.answers[q.get(answers)].text << " (--" << option_of(q) << " " << q.answers[q.get(answers)].key << ")\n";
    return exit_fine;
}

} // namespace vernal
