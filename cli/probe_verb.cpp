#include "probe_verb.h"

#include "core/probe/curve.h"
#include "core/units/quantity.h"
#include "files/csv_trace.h"

#include <nlohmann/json.hpp>

#include <iomanip>
#include <ostream>

namespace vernal {

CLI::App* ProbeVerb::add_to(CLI::App& app)
{
    CLI::App* probe = app.add_subcommand("probe", "Probes: ohms and degrees");
    probe->require_subcommand(1);
    CLI::App* convert = probe->add_subcommand("convert", "Ohms to degrees, or degrees to ohms");
    convert->add_option("--curve", curve_, "pt1000, pt100, ntc:r25=10000,beta=3950, abc:A,B,C, table:0=32650,25=10000")->required();
    auto* ohm = convert->add_option("--ohm", ohm_, "resistance, Ω");
    auto* temp = convert->add_option("--temp", temp_, "temperature, °C, or with a unit: 77F")->excludes(ohm);
    ohm->excludes(temp);
    convert->add_flag("--json", json_, "answer as JSON");
    convert_ = convert;
    return probe;
}

Result<int> ProbeVerb::run(const Streams& s)
{
    const auto curve = parse_curve(curve_);
    if (!curve)
        return curve.error();
    if (convert_->count("--ohm") + convert_->count("--temp") != 1)
        return Error{"one of --ohm and --temp is needed", "", ""};
    double t = 0, r = ohm_;
    if (convert_->count("--temp") > 0) {
        const auto typed = parse(temp_, Quantity::temperature, {});
        if (!typed)
            return typed.error();
        t = *typed;
        const auto ohm = ohm_at(*curve, Temperature::celsius(t));
        if (!ohm)
            return ohm.error();
        r = *ohm;
    } else {
        const auto found = temperature_at(*curve, r);
        if (!found)
            return found.error();
        t = found->in_celsius();
    }
    if (json_)
        s.out << nlohmann::ordered_json{{"curve", curve_text(*curve)}, {"ohm", r}, {"temp_c", t}, {"temp_f", Temperature::celsius(t).in_fahrenheit()}}.dump(2) << "\n";
    else
        s.out << std::fixed << std::setprecision(2) << r << " Ω = " << t << " °C = " << Temperature::celsius(t).in_fahrenheit() << " °F\n";
    return exit_fine;
}

} // namespace vernal
