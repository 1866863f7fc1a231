// A unit that is not there: a job's loop and unit, advanced in time, behind a register map.
#pragma once

#include "modbus.h"

#include "core/bench/rig.h"

#include <deque>
#include <memory>

namespace vernal {

class StandIn : public Tables {
public:
    // The day has run to this hour, and the log with it. Error: the loop cannot be run.
    static Result<std::unique_ptr<StandIn>> make(const Job& job, std::size_t variant, const Day& day, RegisterMap map, double hour = 12);

    void advance(double seconds); // of the unit's time, by whole samples
    Refusal read(Table t, int address, int count, std::vector<std::uint16_t>& words) override;
    Refusal write(Table t, int address, std::span<const std::uint16_t> words) override;

    Rig& rig() { return *rig_; }
    const RegisterMap& map() const { return map_; }
    // As the unit is set now.
    const Job& job() const { return job_; }
    const Variant& variant() const { return job_.variants[at_]; }

    // What is wrong with it, by key (core/bench/bench_faults.h); "none": nothing. The loop begins anew.
    Result<std::monostate> put_fault(const std::string& key);
    // A setting by its path, as somebody at the unit's keys would.
    Result<std::monostate> set(const std::string& path, const std::string& value);

private:
    StandIn(const Job& job, std::size_t variant, const Day& day, RegisterMap map);
    Result<std::monostate> begin(const std::string& fault, double hour);
    void index();
    void hold_settings();
    double raw_now(const MapRegister& r, const WireImage* settings) const;
    Refusal take(Job& job, const MapRegister& r, std::span<const std::uint16_t> words) const;
    Refusal commit(Job job);
    void write_row();
    std::uint16_t word_of_log(int at) const;
    std::optional<std::uint16_t> word_at(Table t, int address) const;
    Job job_;
    std::size_t at_;
    Day day_;
    RegisterMap map_;
    std::unique_ptr<Rig> rig_;
    std::map<std::pair<Table, int>, std::size_t> where_; // which register begins or goes on there
    WireImage settings_;
    std::optional<RuleSet> before_fault_;
    std::deque<std::vector<std::uint16_t>> rows_; // of the log, the newest first
    std::uint16_t sequence_ = 0;
    double owed_s_ = 0, next_row_s_ = 0;
};

} // namespace vernal
