#include "frost_watch.h"

#include "simulation.h"

namespace vernal {

FrostWatch::FrostWatch(const Network& network)
{
    for (std::size_t i = 0; i < network.size(); ++i)
        for (unsigned drained = 0; drained < wet_.size(); ++drained)
            if (network.can_freeze(i, drained))
                wet_[drained].push_back({i, network.freezing_c(i)});
}

void FrostWatch::passed(const Simulation& s, double h, Figures& f)
{
    if (s.hydraulics().emptied())
        return;
    bool frozen = false, burst = false;
    const Network& network = s.network();
    const std::vector<double>& t = s.temperatures();
    for (const auto& [i, freezing_c] : wet_[s.hydraulics().drained()]) {
        const double left = t[i] - freezing_c;
        if (left >= 0 && left >= least_left_k_)
            continue;
        if (left < least_left_k_) {
            least_left_k_ = left;
            coldest_node_ = i;
            f.coldest_wet_c = t[i];
        }
        if (left >= 0)
            continue;
        frozen = true;
        burst = burst || t[i] < network.burst_c(i);
        if (std::isnan(f.first_freeze_s)) {
            f.first_freeze_s = s.now_s();
            f.first_freeze_at = network.place_text(i);
        }
    }
    f.freezing_s += frozen ? h : 0.0;
    f.burst_s += burst ? h : 0.0;
}

void FrostWatch::finish(const Network& network, Figures& f) const
{
    if (coldest_node_ < network.size())
        f.coldest_wet_at = network.place_text(coldest_node_);
}

} // namespace vernal
