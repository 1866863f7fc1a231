// The server's side of Modbus: requests answered from tables, and both framings. MODBUS
// Application Protocol Specification V1.1b3 (requests, exceptions), MODBUS Messaging on TCP/IP
// Implementation Guide V1.0b (the header of 7 bytes), MODBUS over Serial Line V1.02 (RTU, CRC).
#pragma once

#include "register_map.h"

namespace vernal {

using Bytes = std::vector<std::uint8_t>;

enum class Refusal : std::uint8_t { none = 0, // exception codes of the specification, chapter 7
    function = 1,
    address = 2,
    value = 3,
    failure = 4,
    busy = 6 };

// What the requests read and write.
class Tables {
public:
    Tables() = default;
    Tables(const Tables&) = delete;
    Tables& operator=(const Tables&) = delete;
    virtual ~Tables() = default;
    // words: one each register or bit.
    virtual Refusal read(Table t, int address, int count, std::vector<std::uint16_t>& words) = 0;
    // All of them or none.
    virtual Refusal write(Table t, int address, std::span<const std::uint16_t> words) = 0;
};

// Function code and data of the answer; an exception where it is refused. Functions 1 to 6, 15 and 16.
Bytes answer(std::span<const std::uint8_t> request, Tables& tables);

// --- TCP: header of 7 bytes, then the request ----------------------------------------------
struct TcpFrame {
    std::uint16_t transaction = 0;
    std::uint8_t station = 0;
    Bytes pdu;
};
// Takes the first whole frame off the buffer. Bytes that can be no frame empty it and set `broken`:
// of a stream nobody knows where the next begins.
std::optional<TcpFrame> take_tcp(Bytes& buffer, bool& broken);
Bytes tcp_bytes(const TcpFrame& frame);

// --- RTU: station, request, CRC -------------------------------------------------------------
std::uint16_t crc16(std::span<const std::uint8_t> bytes); // sent low byte first
Bytes rtu_bytes(std::uint8_t station, std::span<const std::uint8_t> pdu);
// Length of the request frame that begins so, with its CRC; 0: more bytes are needed to tell; −1: no request of these functions.
int rtu_request_length(std::span<const std::uint8_t> begun);
struct RtuFrame {
    std::uint8_t station = 0;
    Bytes pdu;
};
// Takes the first whole request off the buffer; a wrong CRC empties it: the next begins after a silence.
std::optional<RtuFrame> take_rtu(Bytes& buffer);
// What stands there when the line falls silent, of whichever function; the buffer is empty then.
std::optional<RtuFrame> take_rtu_at_silence(Bytes& buffer);

} // namespace vernal
