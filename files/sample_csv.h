// The per-sample CSV of a run: time, every signal, every output (0/1), what decided
// for it and by which rule, and whose readings are distrusted. Reads back as a trace.
#pragma once

#include "core/job/job.h"
#include "core/run/listener.h"
#include "csv/writer.h"

namespace vernal {

class SampleCsv {
public:
    enum class Of : std::uint8_t { run,
        replay }; // has rows that are made up
    // Rows go to the sink as they come; finish() hands over the last of them.
    SampleCsv(const Variant& variant, Of of, CsvWriter::Sink sink);
    // Air and irradiance that are not finite stay empty; a reading that is not valid is the word
    // “invalid”, since an empty cell would be held for two samples in a replay.
    void add(const SampleRow& row);
    void finish() { csv_.finish(); }

private:
    std::string distrusted(ChannelBits faults) const;
    const Variant& variant_;
    Of of_;
    CsvWriter csv_;
    bool pressure_ = false;           // a closed loop has it
    bool supply_ = false;             // a rule reads it
    std::vector<std::size_t> speeds_; // outputs with one
};

} // namespace vernal
