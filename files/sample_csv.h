// The per-sample CSV of a run: time, every signal, every output (0/1), and the
// deciding rule per output. Reads back as a trace.
#pragma once

#include "core/job/job.h"

namespace vernal {

class SampleCsv {
public:
    explicit SampleCsv(const Variant& variant);
    // Air and irradiance that are not finite stay empty.
    void add(const SampleRow& row);
    const std::string& text() const { return text_; }

private:
    const Variant& variant_;
    std::string text_;
    bool pressure_ = false;           // a closed loop has it
    bool supply_ = false;             // a rule reads it
    std::vector<std::size_t> speeds_; // outputs with one
};

} // namespace vernal
