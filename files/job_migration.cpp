#include "job_migration.h"

#include "core/plant/loop.h"

#include <array>
#include <string>

namespace vernal {
namespace {

using Json = nlohmann::ordered_json;

// Calls f with each entry of the list at key; of what is no list, with none. A
// migration never complains: what is wrong is told by the reader, in its place.
template <class F>
void each(Json& object, const char* key, F f)
{
    if (const auto list = object.is_object() ? object.find(key) : object.end(); list != object.end() && list->is_array())
        for (Json& item : *list)
            f(item);
}

void rename_key(Json& object, const char* from, const char* to)
{
    if (!object.is_object() || !object.contains(from) || object.contains(to))
        return;
    Json renamed = Json::object();
    for (auto& [key, value] : object.items())
        renamed[key == from ? to : key] = value;
    object = std::move(renamed);
}

// 2: "grain" of a speed rule is called "resolution". Ids came too; what has none gets one.
void to_version_2(Json& body)
{
    each(body, "variants", [](Json& variant) {
        if (variant.is_object() && variant.contains("unit"))
            each(variant["unit"], "rules", [](Json& rule) { rename_key(rule, "grain", "resolution"); });
    });
}

// 3: the answers a loop is put together from stand in place of the name of an
// arrangement; the pump on the store's side of an exchanger has a name of its own.
void to_version_3(Json& body)
{
    each(body, "variants", [](Json& variant) {
        if (!variant.is_object() || !variant.contains("loop") || !variant["loop"].is_object())
            return;
        Json& loop = variant["loop"];
        const std::string name = loop.contains("arrangement") && loop["arrangement"].is_string() ? loop["arrangement"].get<std::string>() : loop.contains("arrangement") ? ""
                                                                                                                                                                         : "glycol-coil";
        const Arrangement* preset = find_preset(name);
        if (!preset)
            return;
        LoopAnswers answers = preset->answers;
        bool element = loop.contains("element");
        if (variant.contains("unit"))
            each(variant["unit"], "outputs", [&](Json& output) { element = element || (output.is_object() && output.contains("drives") && output["drives"] == "element"); });
        if (element && preset->has(Part::tank))
            answers.backup = Backup::element;
        if (preset->has(Part::exchanger))
            rename_key(loop, "pump_2", "exchanger_pump");
        Json joined = Json::object();
        for (const LoopQuestion& q : loop_questions())
            joined[q.key] = q.answers[q.get(answers)].key;
        rename_key(loop, "arrangement", "answers");
        loop["answers"] = std::move(joined);
    });
}

// 4: a heater after the tank, the tap circulation, loops without a pump, what the unit lives
// on. What is not said is as it was: none of them, and the mains. Flat plates had the values
// of selective ones, which are told apart now.
void to_version_4(Json& body)
{
    each(body, "variants", [](Json& variant) {
        if (!variant.is_object() || !variant.contains("loop") || !variant["loop"].is_object() || !variant["loop"].contains("answers"))
            return;
        if (Json& answers = variant["loop"]["answers"]; answers.is_object() && answers.contains("array") && answers["array"] == "flat")
            answers["array"] = "selective";
    });
}

// 5: hand valves, with what a day begins, instruments and the rules that read them, an open
// absorber. What is not said is as it was.
void to_version_5(Json&) {}

// 6: horizon and shades, three more skies, snow, days of several days. What is not said is as it was.
void to_version_6(Json&) {}

// 7: faults painted on a day. What is not said is as it was: none.
void to_version_7(Json&) {}

// 8: what procedures found on the bench. What is not said is as it was: nothing.
void to_version_8(Json&) {}

// 9: the logbook. What is not said is as it was: no visits.
void to_version_9(Json&) {}

// 10: from which wind a collector's report counts. What is not said is as it was: from still air.
void to_version_10(Json&) {}

constexpr std::array steps{to_version_2, to_version_3, to_version_4, to_version_5, to_version_6, to_version_7, to_version_8, to_version_9, to_version_10}; // steps[i] makes version i + 2 of version i + 1
static_assert(steps.size() + 1 == job_format_version);

} // namespace

void migrate_job(Json& body, int version)
{
    for (std::size_t i = static_cast<std::size_t>(version) - 1; i < steps.size(); ++i)
        steps[i](body);
}

} // namespace vernal
