// Requests and frames against the published examples (all from memory): MODBUS Application Protocol
// Specification V1.1b3, 6.1 to 6.12 and 7; MODBUS over Serial Line V1.02, appendix B; MODBUS Messaging
// on TCP/IP Implementation Guide V1.0b, 4.2.
#include "link/modbus.h"

#include <gtest/gtest.h>
#include <rapidcheck.h>

namespace vernal {
namespace {

// The memory of the specification's examples, which number from 1 what is addressed from 0.
class Example : public Tables {
public:
    std::map<std::pair<Table, int>, std::uint16_t> held;
    Refusal refuses = Refusal::none;
    Refusal read(Table t, int address, int count, std::vector<std::uint16_t>& words) override
    {
        words.clear();
        for (int a = address; a < address + count; ++a)
            words.push_back(held[{t, a}]);
        return refuses;
    }
    Refusal write(Table t, int address, std::span<const std::uint16_t> words) override
    {
        for (std::size_t i = 0; refuses == Refusal::none && i < words.size(); ++i)
            held[{t, address + static_cast<int>(i)}] = words[i];
        return refuses;
    }
    void bits(Table t, int from, const Bytes& bytes)
    {
        for (std::size_t i = 0; i < bytes.size() * 8; ++i)
            held[{t, from + static_cast<int>(i)}] = static_cast<std::uint16_t>(bytes[i / 8] >> i % 8 & 1U);
    }
};

} // namespace

TEST(Modbus, reads_coils_as_in_6_1)
{
    Example e;
    e.bits(Table::coil, 19, {0xCD, 0x6B, 0x05});
    EXPECT_EQ(answer(Bytes{0x01, 0x00, 0x13, 0x00, 0x13}, e), (Bytes{0x01, 0x03, 0xCD, 0x6B, 0x05}));
}

TEST(Modbus, reads_discrete_inputs_as_in_6_2)
{
    Example e;
    e.bits(Table::discrete, 196, {0xAC, 0xDB, 0x35});
    EXPECT_EQ(answer(Bytes{0x02, 0x00, 0xC4, 0x00, 0x16}, e), (Bytes{0x02, 0x03, 0xAC, 0xDB, 0x35}));
}

TEST(Modbus, reads_holding_registers_as_in_6_3)
{
    Example e;
    e.held[{Table::holding, 107}] = 0x022B;
    e.held[{Table::holding, 109}] = 100;
    EXPECT_EQ(answer(Bytes{0x03, 0x00, 0x6B, 0x00, 0x03}, e), (Bytes{0x03, 0x06, 0x02, 0x2B, 0x00, 0x00, 0x00, 0x64}));
}

TEST(Modbus, reads_input_registers_as_in_6_4)
{
    Example e;
    e.held[{Table::input, 8}] = 10;
    EXPECT_EQ(answer(Bytes{0x04, 0x00, 0x08, 0x00, 0x01}, e), (Bytes{0x04, 0x02, 0x00, 0x0A}));
}

TEST(Modbus, writes_as_in_6_5_6_6_6_11_and_6_12)
{
    Example e;
    const Bytes coil{0x05, 0x00, 0xAC, 0xFF, 0x00}, word{0x06, 0x00, 0x01, 0x00, 0x03};
    EXPECT_EQ(answer(coil, e), coil);
    EXPECT_EQ((e.held[{Table::coil, 172}]), 1);
    EXPECT_EQ(answer(word, e), word);
    EXPECT_EQ((e.held[{Table::holding, 1}]), 3);
    EXPECT_EQ(answer(Bytes{0x0F, 0x00, 0x13, 0x00, 0x0A, 0x02, 0xCD, 0x01}, e), (Bytes{0x0F, 0x00, 0x13, 0x00, 0x0A}));
    std::vector<std::uint16_t> written;
    e.read(Table::coil, 19, 10, written);
    EXPECT_EQ(written, (std::vector<std::uint16_t>{1, 0, 1, 1, 0, 0, 1, 1, 1, 0}));
    EXPECT_EQ(answer(Bytes{0x10, 0x00, 0x01, 0x00, 0x02, 0x04, 0x00, 0x0A, 0x01, 0x02}, e), (Bytes{0x10, 0x00, 0x01, 0x00, 0x02}));
    EXPECT_EQ((e.held[{Table::holding, 1}]), 0x000A);
    EXPECT_EQ((e.held[{Table::holding, 2}]), 0x0102);
}

TEST(Modbus, refuses_as_in_7)
{
    Example e;
    e.refuses = Refusal::address;
    EXPECT_EQ(answer(Bytes{0x01, 0x04, 0xA1, 0x00, 0x01}, e), (Bytes{0x81, 0x02}));
    e.refuses = Refusal::none;
    EXPECT_EQ(answer(Bytes{0x2B, 0x0E}, e), (Bytes{0xAB, 0x01})) << "an unknown function";
    EXPECT_EQ(answer(Bytes{0x03, 0, 0, 0, 126}, e), (Bytes{0x83, 0x03})) << "more than fits into an answer";
    EXPECT_EQ(answer(Bytes{0x03, 0xFF, 0xFF, 0, 2}, e), (Bytes{0x83, 0x02})) << "beyond the table";
    EXPECT_EQ(answer(Bytes{0x05, 0, 0, 0x12, 0x34}, e), (Bytes{0x85, 0x03})) << "neither on nor off";
    EXPECT_EQ(answer(Bytes{0x10, 0, 1, 0, 2, 3, 0, 1, 0}, e), (Bytes{0x90, 0x03})) << "its count of bytes is another";
    EXPECT_EQ((e.held[{Table::holding, 1}]), 0) << "nothing was written";
}

TEST(Modbus, crc_is_that_of_the_serial_lines_appendix)
{
    EXPECT_EQ(crc16(Bytes{0x02, 0x07}), 0x1241);
    EXPECT_EQ(rtu_bytes(0x02, Bytes{0x07}), (Bytes{0x02, 0x07, 0x41, 0x12}));
    // CRC-16/MODBUS of the digits 1 to 9: the usual check of its catalogues (from memory).
    EXPECT_EQ(crc16(Bytes{'1', '2', '3', '4', '5', '6', '7', '8', '9'}), 0x4B37);
}

TEST(Modbus, tcp_header_is_that_of_the_messaging_guide)
{
    Bytes in{0x15, 0x01, 0x00, 0x00, 0x00, 0x06, 0xFF, 0x03, 0x00, 0x04, 0x00, 0x01};
    bool broken = false;
    const auto f = take_tcp(in, broken);
    ASSERT_TRUE(f && !broken && in.empty());
    EXPECT_EQ(f->transaction, 0x1501);
    Example e;
    e.held[{Table::holding, 4}] = 5;
    EXPECT_EQ(tcp_bytes({f->transaction, f->station, answer(f->pdu, e)}), (Bytes{0x15, 0x01, 0x00, 0x00, 0x00, 0x05, 0xFF, 0x03, 0x02, 0x00, 0x05}));
}

// Whatever comes is answered, within the longest answer there can be.
TEST(Modbus, any_request_is_answered)
{
    EXPECT_TRUE(rc::check([](const Bytes& request) {
        Example e;
        const Bytes out = answer(request, e);
        RC_ASSERT(out.size() >= 2U);
        RC_ASSERT(out.size() <= 253U);
    }));
}

TEST(Modbus, frames_are_found_however_they_are_cut)
{
    EXPECT_TRUE(rc::check([] {
        const bool tcp = *rc::gen::arbitrary<bool>();
        const auto count = *rc::gen::inRange<std::size_t>(1, 6);
        Bytes all;
        std::vector<Bytes> sent;
        for (std::size_t i = 0; i < count; ++i) {
            Bytes pdu{static_cast<std::uint8_t>(*rc::gen::inRange(1, 7))};
            for (int k = 0; k < 4; ++k)
                pdu.push_back(*rc::gen::arbitrary<std::uint8_t>());
            const Bytes one = tcp ? tcp_bytes({static_cast<std::uint16_t>(i), 1, pdu}) : rtu_bytes(1, pdu);
            all.insert(all.end(), one.begin(), one.end());
            sent.push_back(pdu);
        }
        Bytes buffer;
        std::vector<Bytes> got;
        bool broken = false;
        for (std::size_t at = 0; at < all.size();) {
            const auto n = *rc::gen::inRange<std::size_t>(1, 9);
            const std::size_t end = std::min(at + n, all.size());
            buffer.insert(buffer.end(), all.begin() + static_cast<std::ptrdiff_t>(at), all.begin() + static_cast<std::ptrdiff_t>(end));
            at = end;
            if (tcp)
                while (auto f = take_tcp(buffer, broken))
                    got.push_back(f->pdu);
            else
                while (auto f = take_rtu(buffer))
                    got.push_back(f->pdu);
        }
        RC_ASSERT(got == sent);
        RC_ASSERT(!broken);
    }));
}

TEST(Modbus, a_damaged_serial_frame_is_not_taken)
{
    EXPECT_TRUE(rc::check([] {
        Bytes frame = rtu_bytes(1, Bytes{3, 0, *rc::gen::arbitrary<std::uint8_t>(), 0, 1});
        const auto at = *rc::gen::inRange<std::size_t>(0, frame.size());
        frame[at] = static_cast<std::uint8_t>(frame[at] ^ *rc::gen::inRange(1, 256));
        Bytes copy = frame;
        RC_ASSERT(!take_rtu(copy));
        RC_ASSERT(!take_rtu_at_silence(frame));
    }));
}

} // namespace vernal
