#include "bench_record.h"

namespace vernal {

BenchRecord::BenchRecord() = default;
BenchRecord::BenchRecord(const BenchRecord&) = default;
BenchRecord::BenchRecord(BenchRecord&&) noexcept = default;
BenchRecord& BenchRecord::operator=(const BenchRecord&) = default;
BenchRecord& BenchRecord::operator=(BenchRecord&&) noexcept = default;
BenchRecord::~BenchRecord() = default;
bool BenchRecord::operator==(const BenchRecord&) const = default;

} // namespace vernal
