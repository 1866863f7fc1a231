#pragma once

#include "core/probe/identify.h"
#include "verb.h"

namespace vernal {

// probe convert | curves | fit | identify | budget | chart
class ProbeVerb : public Verb {
public:
    CLI::App* add_to(CLI::App& app) override;
    Result<int> run(const Streams& s) override;

private:
    struct Task {
        CLI::App* command;
        Result<int> (ProbeVerb::*run)(const Streams& s);
    };
    CLI::App* add(CLI::App& probe, const char* name, const char* what, Result<int> (ProbeVerb::*work)(const Streams& s));
    Result<int> convert(const Streams& s);
    Result<int> curves(const Streams& s);
    Result<int> fit(const Streams& s);
    Result<int> identify(const Streams& s);
    Result<int> budget(const Streams& s);
    Result<int> chart(const Streams& s);
    Result<CurveBook> book() const;
    Result<std::vector<CurvePoint>> points() const;
    std::vector<Task> tasks_;
    CLI::App* convert_ = nullptr;
    std::string curve_, temp_, curve_file_, points_file_, law_ = "best", job_, variant_, store_ = "40 C", air_ = "15 C";
    double ohm_ = 0, thermometer_k_ = 0.5, meter_percent_ = 0.5;
    bool json_ = false, fahrenheit_ = false;
};

} // namespace vernal
