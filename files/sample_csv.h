// The per-sample CSV of a run: time, every signal, every output (0/1), and the
// deciding rule per output. Reads back as a trace.
#pragma once

#include "core/job/job.h"
#include "core/run/listener.h"
#include "csv/writer.h"

namespace vernal {

class SampleCsv {
public:
    // Rows go to the sink as they come; finish() hands over the last of them.
    SampleCsv(const Variant& variant, CsvWriter::Sink sink);
    // Air and irradiance that are not finite stay empty.
    void add(const SampleRow& row);
    void finish() { csv_.finish(); }

private:
    const Variant& variant_;
    CsvWriter csv_;
    bool pressure_ = false;           // a closed loop has it
    bool supply_ = false;             // a rule reads it
    std::vector<std::size_t> speeds_; // outputs with one
};

} // namespace vernal
