// The stand-in, asked by an independent client (libmodbus) over loopback sockets and a pseudo-terminal.
#include "core/job/field_path.h"
#include "link/as_found.h"
#include "link/map_file.h"
#include "served.h"

#include <gtest/gtest.h>
#include <modbus/modbus.h>

#include <cmath>
#include <fstream>
#include <set>
#include <sstream>
#include <sys/stat.h>
#include <thread>
#include <unistd.h>

namespace vernal {
namespace {

class Client {
public:
    explicit Client(const Served& to)
    {
        constexpr int baud = 19200, bits = 8, wait_us = 300000;
        modbus = to.port > 0 ? modbus_new_tcp("127.0.0.1", to.port) : modbus_new_rtu(to.path.c_str(), baud, 'N', bits, 1);
        modbus_set_slave(modbus, 1);
        modbus_set_response_timeout(modbus, 0, wait_us);
        joined = modbus_connect(modbus) == 0;
    }
    ~Client()
    {
        modbus_close(modbus);
        modbus_free(modbus);
    }
    bool read(const WireBlock& b, WireImage& image)
    {
        std::vector<std::uint16_t> words(static_cast<std::size_t>(b.count));
        std::vector<std::uint8_t> bits(words.size());
        const int n = b.table == Table::coil ? modbus_read_bits(modbus, b.address, b.count, bits.data()) : b.table == Table::discrete ? modbus_read_input_bits(modbus, b.address, b.count, bits.data())
                                                                                                       : b.table == Table::input      ? modbus_read_input_registers(modbus, b.address, b.count, words.data())
                                                                                                                                      : modbus_read_registers(modbus, b.address, b.count, words.data());
        for (int i = 0; i < n; ++i)
            image.put(b.table, b.address + i, of_bits(b.table) ? bits[static_cast<std::size_t>(i)] : words[static_cast<std::size_t>(i)]);
        return n == b.count;
    }
    bool read_all(const RegisterMap& map, WireImage& image)
    {
        bool all = true;
        for (const auto& blocks : {setting_blocks(map), live_blocks(map)})
            for (const WireBlock& b : blocks)
                all = read(b, image) && all;
        return all;
    }
    bool write(const RegisterMap& map, const WireWrite& w)
    {
        const MapRegister& r = map.registers[w.at];
        if (r.table == Table::coil)
            return modbus_write_bit(modbus, r.address, w.words.front()) == 1;
        const int n = static_cast<int>(w.words.size());
        return n == 1 ? modbus_write_register(modbus, r.address, w.words.front()) == 1 : modbus_write_registers(modbus, r.address, n, w.words.data()) == n;
    }
    modbus_t* modbus = nullptr;
    bool joined = false;
};

const MapRegister& find(const RegisterMap& map, RegisterIs is, const std::string& of_or_field)
{
    for (const MapRegister& r : map.registers)
        if (r.is == is && (r.of == of_or_field || r.field == of_or_field))
            return r;
    throw std::runtime_error("no such register");
}

} // namespace

// Everything of every loop is read, and the unit is found as the job has it.
TEST(StandIn, is_found_as_its_job_on_every_loop)
{
    for (const Arrangement& a : presets()) {
        const Job job = new_job(a.key);
        const Served served(job);
        Client client(served);
        ASSERT_TRUE(client.joined) << a.key;
        WireImage image;
        const RegisterMap& map = served.unit->map();
        ASSERT_TRUE(client.read_all(map, image)) << a.key << ": " << modbus_strerror(errno);
        const auto found = as_found(map, image, job, 0);
        EXPECT_EQ(found.variant, job.variants.front()) << a.key;
        EXPECT_TRUE(found.left.empty()) << a.key << ": " << found.left.front();
        // Two statements of the readings: the rig's own and what came over the wire.
        Rig& rig = served.unit->rig();
        for (std::size_t p = 0; p < rig.probes(); ++p) {
            const MapRegister& r = find(map, RegisterIs::reading, job.variants.front().probes[p].key);
            const double read = value_of(map, r, image, quantity_of(r)) / inside_per_reading(reads_at(job.variants.front().probes[p].place));
            EXPECT_NEAR(read, rig.reading(p).mk / 1000.0, r.scale) << a.key;
        }
    }
}

TEST(StandIn, is_found_the_same_over_a_pseudo_terminal)
{
    const Job job = new_job("glycol-coil");
    Served served(job, true);
    Client client(served);
    ASSERT_TRUE(client.joined) << served.path;
    WireImage image;
    ASSERT_TRUE(client.read_all(served.unit->map(), image)) << modbus_strerror(errno);
    EXPECT_EQ(as_found(served.unit->map(), image, job, 0).variant, job.variants.front());
    const auto on = mode_write(served.unit->map(), image, "P1", Mode::on);
    ASSERT_TRUE(on);
    ASSERT_TRUE(client.write(served.unit->map(), *on)) << modbus_strerror(errno);
    EXPECT_EQ(served.variant().unit.outputs.front().mode, Mode::on);
}

// What is shown before it is written is what stands there afterwards, and nothing else moves.
TEST(StandIn, takes_what_is_written_and_nothing_else)
{
    const Job job = new_job("glycol-coil");
    Job wanted = job;
    std::string on, limit;
    for (const Rule& r : job.variants.front().unit.rules)
        if (kind_of(r).key == std::string("differential"))
            on = "rule/" + r.id + "/on_k";
        else if (kind_of(r).key == std::string("store_limit"))
            limit = "rule/" + r.id + "/limit_c";
    ASSERT_TRUE(set_setting(wanted, 0, on, "9.25"));
    ASSERT_TRUE(set_setting(wanted, 0, limit, "61"));
    Served served(job);
    Client client(served);
    const RegisterMap& map = served.unit->map();
    WireImage image;
    ASSERT_TRUE(client.read_all(map, image));
    const auto differences = wire_differences(map, image, wanted, 0, {});
    ASSERT_EQ(differences.size(), 2U);
    for (const WireDifference& d : differences)
        ASSERT_TRUE(client.write(map, *d.write)) << d.sentence << modbus_strerror(errno);
    WireImage after;
    ASSERT_TRUE(client.read_all(map, after));
    EXPECT_TRUE(wire_differences(map, after, wanted, 0, {}).empty());
    EXPECT_EQ(as_found(map, after, job, 0).variant, wanted.variants.front());
    served.pass(60);
    EXPECT_EQ(served.unit->variant(), wanted.variants.front());
}

TEST(StandIn, refuses_what_it_does_not_have)
{
    const Job job = new_job("glycol-coil");
    const Served served(job);
    Client client(served);
    std::uint16_t word = 0;
    const RegisterMap& map = served.unit->map();
    EXPECT_EQ(modbus_read_registers(client.modbus, 60000, 1, &word), -1);
    EXPECT_EQ(errno, EMBXILADD);
    EXPECT_EQ(modbus_write_register(client.modbus, 60000, 1), -1);
    EXPECT_EQ(errno, EMBXILADD);
    const MapRegister& mode = find(map, RegisterIs::mode, "P1");
    EXPECT_EQ(modbus_write_register(client.modbus, mode.address, 7), -1) << "there is no such position";
    EXPECT_EQ(errno, EMBXILVAL);
    const MapRegister& limit = find(map, RegisterIs::setting, "limit_c");
    ASSERT_EQ(words_of(limit.type), 2);
    EXPECT_EQ(modbus_write_register(client.modbus, limit.address, 7), -1) << "half a number";
    EXPECT_EQ(errno, EMBXILADD);
    const std::array<std::uint16_t, 2> wild{0x7FFF, 0xFFFF};
    EXPECT_EQ(modbus_write_registers(client.modbus, limit.address, 2, wild.data()), -1) << "beyond its range";
    EXPECT_EQ(errno, EMBXILVAL);
    EXPECT_EQ(served.unit->variant(), job.variants.front()) << "nothing has moved";
}

TEST(StandIn, log_has_a_row_a_minute_and_comes_back_as_a_trace)
{
    const Job job = new_job("glycol-coil");
    Served served(job);
    Client client(served);
    const RegisterMap& map = served.unit->map();
    WireImage image;
    ASSERT_TRUE(client.read({map.log.table, map.log.count_address, 1}, image));
    const int rows = *image.at(map.log.table, map.log.count_address);
    EXPECT_EQ(rows, 12 * 60 + 1) << "since midnight";
    for (const WireBlock& b : log_blocks(map.log, rows))
        ASSERT_TRUE(client.read(b, image)) << modbus_strerror(errno);
    const Trace t = log_trace(map, image, job.variants.front(), rows, "2026-05-07T12:00:00");
    ASSERT_EQ(t.time_s.size(), static_cast<std::size_t>(rows));
    EXPECT_EQ(t.start, "2026-05-07T00:00:00");
    EXPECT_EQ(t.interval_s(), map.log.every_s);
    const TraceColumn* array = t.find("collector");
    ASSERT_TRUE(array && t.find("P1") && t.find("supply"));
    // The newest row is last: what the unit reads now, within what a minute changes.
    Rig& rig = served.unit->rig();
    EXPECT_NEAR(array->values.back(), rig.reading(0).mk / 1000.0, 1.5);
    EXPECT_LT(array->values.front(), array->values.back() - 10) << "the night was colder than noon";
    served.pass(120);
    WireImage later;
    ASSERT_TRUE(client.read({map.log.table, map.log.count_address, 1}, later));
    EXPECT_EQ(*later.at(map.log.table, map.log.count_address), rows + 2);
}

TEST(StandIn, faults_and_wrong_settings_are_put_in_by_a_word)
{
    Served served(new_job("glycol-coil"));
    EXPECT_EQ(served.obeys("fault probe_open"), "done");
    Client client(served);
    WireImage image;
    const RegisterMap& map = served.unit->map();
    ASSERT_TRUE(client.read_all(map, image));
    EXPECT_TRUE(std::isnan(value_of(map, find(map, RegisterIs::reading, "S1"), image, Quantity::temperature)));
    EXPECT_EQ(served.obeys("fault start_high"), "done");
    WireImage wrong;
    ASSERT_TRUE(client.read_all(map, wrong));
    EXPECT_EQ(wire_differences(map, wrong, new_job("glycol-coil"), 0, {}).size(), 1U) << "a wrong setting stands in its registers";
    EXPECT_EQ(served.obeys("fault none"), "done");
    WireImage sound;
    ASSERT_TRUE(client.read_all(map, sound));
    EXPECT_TRUE(wire_differences(map, sound, new_job("glycol-coil"), 0, {}).empty());
    EXPECT_NE(served.obeys("fault no_such").find("One of"), std::string::npos);
    EXPECT_EQ(served.obeys("set output/P1/mode OFF"), "done");
    EXPECT_NE(served.obeys("set loop/tank/volume_m3 1").find("no setting that its keys change"), std::string::npos);
    EXPECT_EQ(served.obeys("put S1 block 95"), "done");
    served.pass(600);
    WireImage hot;
    ASSERT_TRUE(client.read_all(map, hot));
    EXPECT_NEAR(value_of(map, find(map, RegisterIs::reading, "S1"), hot, Quantity::temperature), 95, 2);
    for (const char* bad : {"put S1 resistor", "put S9 hand", "lead S1 bent", "supply much", "power maybe", "speed -1", "slow", "garbled 0", "nonsense"})
        EXPECT_NE(served.obeys(bad), "done") << bad;
}

// However it answers, the client ends with an error, and is answered again once it answers well.
TEST(StandIn, answers_as_ill_as_it_is_told_to)
{
    for (const bool pty : {false, true})
        for (const char* ill : {"slow 0.6 1", "garbled 1", "cut-short 1", "wrong-crc 1", "flooding 1", "busy 1", "lost"}) {
            Served served(new_job("glycol-coil"), pty);
            WireImage image;
            const WireBlock b{Table::holding, 0, 1};
            {
                Client client(served);
                ASSERT_TRUE(client.read(b, image));
                ASSERT_EQ(served.obeys(ill), "done");
                WireImage other;
                const bool read = client.read(b, other);
                const bool garbled = std::string(ill) == "garbled 1"; // of TCP a wrong number may pass: nothing guards it
                EXPECT_FALSE(read && !(garbled && !pty)) << ill << (pty ? " on a terminal" : "");
            }
            ASSERT_EQ(served.obeys("well"), "done");
            std::this_thread::sleep_for(std::chrono::milliseconds(std::string(ill).starts_with("slow") ? 700 : 60));
            Client again(served);
            modbus_flush(again.modbus);
            EXPECT_TRUE(again.joined && again.read(b, image)) << ill << ": " << modbus_strerror(errno);
        }
}

TEST(StandIn, answers_another_station_on_a_terminal_with_silence)
{
    const Served served(new_job("glycol-coil"), true);
    Client client(served);
    WireImage image;
    modbus_set_slave(client.modbus, 2);
    EXPECT_FALSE(client.read({Table::holding, 0, 1}, image));
    modbus_set_slave(client.modbus, 1);
    EXPECT_TRUE(client.read({Table::holding, 0, 1}, image));
}

// Sockets of this process that listen, as the kernel lists them: all of them on 127.0.0.1.
TEST(StandIn, listens_on_loopback_only)
{
    const Served served(new_job("glycol-coil"));
    std::set<std::string> mine;
    for (int fd = 0; fd < 1024; ++fd) {
        struct stat s {};
        if (fstat(fd, &s) == 0 && S_ISSOCK(s.st_mode))
            mine.insert(std::to_string(s.st_ino));
    }
    int listening = 0;
    for (const char* table : {"/proc/self/net/tcp", "/proc/self/net/tcp6"}) {
        std::ifstream in(table);
        std::string line;
        std::getline(in, line);
        while (std::getline(in, line)) {
            std::istringstream words(line);
            std::string number, local, remote, state, skip, inode;
            words >> number >> local >> remote >> state;
            for (int i = 0; i < 6; ++i)
                words >> (i < 5 ? skip : inode);
            if (state != "0A" || mine.count(inode) == 0) // 0A: it listens
                continue;
            ++listening;
            char port[8];
            std::snprintf(port, sizeof port, "%04X", static_cast<unsigned>(served.port));
            EXPECT_EQ(local, "0100007F:" + std::string(port)) << line;
        }
    }
    EXPECT_EQ(listening, 1);
}

} // namespace vernal
