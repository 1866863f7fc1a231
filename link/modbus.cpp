#include "modbus.h"

#include <boost/crc.hpp>

namespace vernal {
namespace {

constexpr std::uint8_t read_coils = 1, read_discrete = 2, read_holding = 3, read_input = 4, write_coil = 5, write_register = 6, write_coils = 15, write_registers = 16, is_refused = 0x80;
constexpr int most_read_bits = 2000, most_read_words = 125, most_written_bits = 1968, most_written_words = 123; // 6.1, 6.3, 6.11, 6.12
constexpr std::uint16_t coil_on = 0xFF00;
constexpr std::size_t header_bytes = 7, longest_pdu = 253;

std::uint16_t word_at(std::span<const std::uint8_t> b, std::size_t at) { return static_cast<std::uint16_t>(b[at] << 8U | b[at + 1]); }

void put_word(Bytes& b, unsigned word)
{
    b.push_back(static_cast<std::uint8_t>(word >> 8U));
    b.push_back(static_cast<std::uint8_t>(word));
}

Bytes refused(std::uint8_t function, Refusal why) { return {static_cast<std::uint8_t>(function | is_refused), static_cast<std::uint8_t>(why)}; }

Bytes read(std::span<const std::uint8_t> request, Tables& tables)
{
    constexpr std::array of{Table::coil, Table::discrete, Table::holding, Table::input};
    const std::uint8_t function = request[0];
    const Table table = of[function - 1U];
    if (request.size() != 5)
        return refused(function, Refusal::value);
    const int address = word_at(request, 1), count = word_at(request, 3);
    if (count < 1 || count > (of_bits(table) ? most_read_bits : most_read_words))
        return refused(function, Refusal::value);
    if (address + count > table_size)
        return refused(function, Refusal::address);
    std::vector<std::uint16_t> words;
    if (const Refusal no = tables.read(table, address, count, words); no != Refusal::none)
        return refused(function, no);
    Bytes out{function, 0};
    if (of_bits(table)) {
        out.resize(2 + (words.size() + 7) / 8, 0);
        for (std::size_t i = 0; i < words.size(); ++i)
            out[2 + i / 8] = static_cast<std::uint8_t>(out[2 + i / 8] | (words[i] != 0 ? 1U << i % 8 : 0U));
    } else {
        for (const std::uint16_t w : words)
            put_word(out, w);
    }
    out[1] = static_cast<std::uint8_t>(out.size() - 2);
    return out;
}

Bytes write_one(std::span<const std::uint8_t> request, Tables& tables)
{
    const std::uint8_t function = request[0];
    if (request.size() != 5)
        return refused(function, Refusal::value);
    std::uint16_t word = word_at(request, 3);
    if (function == write_coil) {
        if (word != 0 && word != coil_on)
            return refused(function, Refusal::value);
        word = word == coil_on;
    }
    const Refusal no = tables.write(function == write_coil ? Table::coil : Table::holding, word_at(request, 1), std::span(&word, 1));
    return no == Refusal::none ? Bytes(request.begin(), request.end()) : refused(function, no); // an echo
}

Bytes write_many(std::span<const std::uint8_t> request, Tables& tables)
{
    const std::uint8_t function = request[0];
    constexpr std::size_t head = 6;
    if (request.size() < head)
        return refused(function, Refusal::value);
    const bool bits = function == write_coils;
    const int address = word_at(request, 1), count = word_at(request, 3);
    const std::size_t bytes = bits ? static_cast<std::size_t>(count + 7) / 8 : 2 * static_cast<std::size_t>(count);
    if (count < 1 || count > (bits ? most_written_bits : most_written_words) || request[5] != bytes || request.size() != head + bytes)
        return refused(function, Refusal::value);
    if (address + count > table_size)
        return refused(function, Refusal::address);
    std::vector<std::uint16_t> words;
    for (std::size_t i = 0; i < static_cast<std::size_t>(count); ++i)
        words.push_back(bits ? static_cast<std::uint16_t>(request[head + i / 8] >> i % 8 & 1U) : word_at(request, head + 2 * i));
    const Refusal no = tables.write(bits ? Table::coil : Table::holding, address, words);
    return no == Refusal::none ? Bytes(request.begin(), request.begin() + 5) : refused(function, no);
}

} // namespace

Bytes answer(std::span<const std::uint8_t> request, Tables& tables)
{
    if (request.empty())
        return refused(0, Refusal::function);
    switch (request[0]) {
    case read_coils:
    case read_discrete:
    case read_holding:
    case read_input: return read(request, tables);
    case write_coil:
    case write_register: return write_one(request, tables);
    case write_coils:
    case write_registers: return write_many(request, tables);
    default: return refused(request[0], Refusal::function);
    }
}

std::optional<TcpFrame> take_tcp(Bytes& buffer, bool& broken)
{
    if (buffer.size() < header_bytes + 1)
        return {};
    const std::size_t length = word_at(buffer, 4); // of what follows it: station and request
    if (word_at(buffer, 2) != 0 || length < 2 || length > longest_pdu + 1) {
        buffer.clear();
        broken = true;
        return {};
    }
    if (buffer.size() < header_bytes - 1 + length)
        return {};
    const auto end = buffer.begin() + static_cast<std::ptrdiff_t>(header_bytes - 1 + length);
    TcpFrame f{word_at(buffer, 0), buffer[header_bytes - 1], Bytes(buffer.begin() + header_bytes, end)};
    buffer.erase(buffer.begin(), end);
    return f;
}

Bytes tcp_bytes(const TcpFrame& frame)
{
    Bytes out;
    put_word(out, frame.transaction);
    put_word(out, 0);
    put_word(out, static_cast<unsigned>(frame.pdu.size() + 1));
    out.push_back(frame.station);
    out.insert(out.end(), frame.pdu.begin(), frame.pdu.end());
    return out;
}

std::uint16_t crc16(std::span<const std::uint8_t> bytes)
{
    boost::crc_optimal<16, 0x8005, 0xFFFF, 0, true, true> crc;
    crc.process_bytes(bytes.data(), bytes.size());
    return static_cast<std::uint16_t>(crc.checksum());
}

Bytes rtu_bytes(std::uint8_t station, std::span<const std::uint8_t> pdu)
{
    Bytes out;
    out.reserve(pdu.size() + 3);
    out.push_back(station);
    for (const std::uint8_t b : pdu)
        out.push_back(b);
    const std::uint16_t crc = crc16(out);
    out.push_back(static_cast<std::uint8_t>(crc));
    out.push_back(static_cast<std::uint8_t>(crc >> 8U));
    return out;
}

int rtu_request_length(std::span<const std::uint8_t> begun)
{
    constexpr int fixed = 8, head = 9;
    constexpr std::size_t count_at = 6;
    if (begun.size() < 2)
        return 0;
    if (begun[1] >= read_coils && begun[1] <= write_register)
        return fixed;
    if (begun[1] != write_coils && begun[1] != write_registers)
        return -1;
    return begun.size() <= count_at ? 0 : head + begun[count_at];
}

namespace {

std::optional<RtuFrame> checked(std::span<const std::uint8_t> frame)
{
    constexpr std::size_t least = 4;
    if (frame.size() < least)
        return {};
    const std::size_t n = frame.size() - 2;
    const std::uint16_t crc = crc16(frame.first(n));
    if (frame[n] != (crc & 0xFFU) || frame[n + 1] != crc >> 8U)
        return {};
    return RtuFrame{frame[0], Bytes(frame.begin() + 1, frame.begin() + static_cast<std::ptrdiff_t>(n))};
}

} // namespace

std::optional<RtuFrame> take_rtu(Bytes& buffer)
{
    const int length = rtu_request_length(buffer);
    if (length <= 0 || buffer.size() < static_cast<std::size_t>(length))
        return {};
    auto frame = checked(std::span(buffer).first(static_cast<std::size_t>(length)));
    frame ? void(buffer.erase(buffer.begin(), buffer.begin() + length)) : buffer.clear();
    return frame;
}

std::optional<RtuFrame> take_rtu_at_silence(Bytes& buffer)
{
    auto frame = checked(buffer);
    buffer.clear();
    return frame;
}

} // namespace vernal
