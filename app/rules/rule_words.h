// What a rule's sentence is made of besides its numbers.
#pragma once

#include "core/job/field_lists.h"

#include <QString>

#include <map>

namespace vernal {

// The choices of a rule by the key of the field, such as how a speed is driven: which
// of which names.
using RuleChoices = std::map<std::string, std::pair<std::size_t, std::vector<std::string>>>;
RuleChoices choices_of(const Rule& rule);
std::vector<SwitchFields::Found> switches_of(const Rule& rule);
QString words_of(const std::string& choice); // in a sentence

// What a line shows besides its numbers: it is made anew when that changes.
QString shape_of(const Rule& rule);

// Some detail of the rule is not as a new one has it, so that it is always shown.
bool details_said(const Variant& v, const Rule& rule);

} // namespace vernal
