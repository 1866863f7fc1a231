// What is wrong with drawings, each with the first loop that has it.
#pragma once

#include "app/shell/session.h"

#include <map>

namespace vernal {

using Faults = std::map<QString, QString>;

inline QString told_of(const Faults& faults)
{
    QString all;
    for (const auto& [fault, where] : faults)
        all += QStringLiteral("\n%1: %2").arg(fault, where);
    return all;
}

} // namespace vernal
