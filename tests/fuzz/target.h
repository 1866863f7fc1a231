// A fuzz target: one reader fed with bytes. What it accepts is written and read
// again, and must be equal then; anything thrown or trapped is a fault. With
// clang's fuzzer (preset `fuzz`, scripts/fuzz.sh), and over the small corpus in
// every test run (replay.cpp).
#pragma once

#include <cstddef>
#include <cstdint>
#include <cstdio>
#include <cstdlib>
#include <string>

namespace vernal::fuzz {

inline void must(bool good, const char* what)
{
    if (good)
        return;
    std::fprintf(stderr, "%s\n", what);
    std::abort();
}

inline std::string text_of(const std::uint8_t* data, std::size_t size) { return {reinterpret_cast<const char*>(data), size}; }

} // namespace vernal::fuzz

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size);
