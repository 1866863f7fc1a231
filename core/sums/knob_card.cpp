#include "knob_card.h"

#include "switching.h"

#include <algorithm>

namespace vernal {

std::vector<CardRow> whole_card(const Variant& v, const Units& units)
{
    std::vector<CardRow> out = settings_card(v, units);
    for (std::size_t r = 0; r < v.unit.rules.size(); ++r) {
        const Rule& rule = v.unit.rules[r];
        if (!std::holds_alternative<LinkedDifference>(rule.body))
            continue;
        const std::string group = std::string(kind_of(rule).title) + " · " + rule.output;
        const StoreRange range = store_range(v, r);
        std::vector<CardRow> pairs;
        for (const double store_c : {range.low_c, range.high_c})
            if (const auto points = real_points(v, r, {store_c, BudgetState{}.air_c}))
                pairs.push_back({group, "Really, store at " + to_text(store_c, Quantity::temperature, units), "on at " + to_text(points->on.real_k(), Quantity::difference, units) + ", off at " + to_text(points->off.real_k(), Quantity::difference, units), rule.enabled});
        const auto behind = std::find_if(out.rbegin(), out.rend(), [&](const CardRow& row) { return row.group == group; }).base();
        out.insert(behind, pairs.begin(), pairs.end());
    }
    return out;
}

} // namespace vernal
