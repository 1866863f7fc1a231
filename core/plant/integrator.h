// Steps the network in time: the three-stage Rosenbrock method ROS3 (Sandu et
// al., Atmos. Environ. 31 (1997) 3459), third order with an embedded second-order
// result, stable at any flow; two evaluations of the rates, three solves. The
// heat flows are integrated with the same weights, so that the energy balance
// closes to rounding.
#pragma once

#include "network.h"

namespace vernal {

class Integrator {
public:
    // At rest the tolerance may be much narrower than while something flows; what is
    // then cut off from every probe (fluid standing in pipes and coils) weighs only
    // `cut_off_weight` in a trial's error, 0…1.
    explicit Integrator(const Network& network, double cut_off_weight = 1.0);

    // A copy goes on as the original would; heat() asks for an attempt of its own first.
    Integrator(const Integrator& other);

    // One trial step of h > 0 seconds from t under surroundings a → b.
    // The results are kept until the next call; so must t be for heat().
    struct Trial {
        double error_k = 0;              // largest difference to the second-order result, weighted: a quarter of it in pipes where no probe sits
        const std::vector<double>* next; // temperatures at the end
    };
    const Trial& attempt(const std::vector<double>& t, const Flows& flows, const Surroundings& a, const Surroundings& b, double h);

    // Heat of the last attempt, J.
    HeatFlows heat();

    // Inside the last attempt: the cubic through both ends with the rates there
    // (Hermite), share 0…1. close() works out the rates at the end, once an attempt;
    // the next attempt begins with them where nothing has changed.
    void close();
    double inside(std::size_t node, double share) const; // °C; after close()
    struct Span {
        double low, high;
    };
    Span span(std::size_t node, double share) const; // of the cubic from the beginning to there

    // The whole state there; closes. Kept until the next call of part() or attempt().
    struct Part {
        double error_k = 0; // largest distance to the parabola without the end's rate, weighted as the trial's
        const std::vector<double>* temps;
    };
    const Part& part(double share);
    // Heat of that part, J: the same cubic, so that the balance closes as the whole step's does.
    HeatFlows heat_of_part();

private:
    struct Factors {
        double h = 0;
        Flows flows;
        std::uint64_t slopes = 0, last_used = 0;
        const SparsePattern* pattern = nullptr; // of the network, which outlives it
        SparseLu lu;
        std::vector<Network::NonlinearSlopes> slopes_at;
    };
    const std::vector<double>& weight() const;                        // of the last attempt's flows
    HeatFlows flows_at(const Surroundings& s, const double* t) const; // W
    const Factors& factors(const std::vector<double>& t, double air_c, double h);

    const Network& network_;
    Flows flows_;
    std::uint64_t clock_ = 0;
    std::vector<double> weight_, rest_weight_, k_, matrix_, f0_, f1_, drift_, rhs_, k1_, k2_, k3_, middle_, next_, f_end_, part_temps_;
    std::vector<Factors> cache_;
    Trial trial_;
    Part part_;
    double share_ = 0;
    bool closed_ = false; // f_end_ is of the last attempt
    // The last attempt, for heat().
    const double* t0_ = nullptr;
    Surroundings a_, b_, inside_;
    double h_ = 0;
    const Factors* used_ = nullptr;
};

} // namespace vernal
