#include "target.h"

#include "link/modbus.h"

using namespace vernal;

namespace {

class Empty : public Tables {
public:
    Refusal read(Table, int, int count, std::vector<std::uint16_t>& words) override
    {
        words.assign(static_cast<std::size_t>(count), 1);
        return Refusal::none;
    }
    Refusal write(Table, int address, std::span<const std::uint16_t> words) override
    {
        fuzz::must(address >= 0 && address + static_cast<int>(words.size()) <= table_size, "a write beyond the table");
        return Refusal::none;
    }
};

} // namespace

int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size)
{
    Empty tables;
    constexpr std::size_t longest = 253;
    const Bytes all(data, data + size);
    Bytes tcp = all, rtu = all;
    bool broken = false;
    while (const auto f = take_tcp(tcp, broken))
        fuzz::must(answer(f->pdu, tables).size() <= longest, "an answer that is too long");
    while (const auto f = take_rtu(rtu))
        fuzz::must(answer(f->pdu, tables).size() <= longest, "an answer that is too long");
    if (const auto f = take_rtu_at_silence(rtu))
        answer(f->pdu, tables);
    return 0;
}
