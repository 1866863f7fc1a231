// The list of kinds of rules. A new kind is a file beside this one, its include and its place in RuleBody.
#pragma once

#include "collector_minimum.h"
#include "cut_out.h"
#include "differential.h"
#include "disinfection.h"
#include "divert.h"
#include "drain_down.h"
#include "drain_time.h"
#include "dry_run.h"
#include "exercise.h"
#include "fill.h"
#include "fixed_difference.h"
#include "flow_guard.h"
#include "follow.h"
#include "freeze.h"
#include "heat_once.h"
#include "heating.h"
#include "linked_difference.h"
#include "look.h"
#include "low_voltage.h"
#include "mixing_limit.h"
#include "night_cooling.h"
#include "pressure_alarm.h"
#include "run_times.h"
#include "second_store.h"
#include "series_thermostat.h"
#include "speed_by_difference.h"
#include "speed_to_rise.h"
#include "speed_to_temperature.h"
#include "store_limit.h"
#include "sun_start.h"
#include "tap_circulation.h"
#include "thermostat.h"
#include "timer.h"

#include <variant>

namespace vernal {

using RuleBody = std::variant<Differential, StoreLimit, CutOut, RunTimes, Divert, LinkedDifference, FixedDifference, SecondStore, SpeedByDifference, SpeedToRise, SpeedToTemperature, MixingLimit, SeriesThermostat, CollectorMinimum, Freeze,
    DrainDown, NightCooling, DrainTime, Fill, DryRun, LowVoltage, Look, Heating, HeatOnce, Disinfection, Thermostat, Timer, Exercise, Follow, TapCirculation, FlowGuard, PressureAlarm, SunStart>;

} // namespace vernal
