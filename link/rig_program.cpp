#include "rig_program.h"

#include "map_file.h"
#include "stand_in_server.h"

#include "files/disk.h"
#include "files/job_file.h"

#include <CLI/CLI.hpp>

#include <boost/asio/read_until.hpp>
#include <boost/asio/streambuf.hpp>

#include <algorithm>
#include <iostream>
#include <unistd.h>

namespace vernal {
namespace {

namespace asio = boost::asio;
using boost::system::error_code;

constexpr int bad_input = 2;

// Lets the unit's time pass, and reads what is typed.
class Running {
public:
    Running(asio::io_context& io, StandIn& unit, StandInServer& server, double speed, bool until_end)
        : io_(io), unit_(unit), server_(server), tick_(io), typed_(io, ::dup(STDIN_FILENO)), speed_(speed), until_end_(until_end)
    {
        last_ = std::chrono::steady_clock::now();
        tick();
        listen();
    }

private:
    void tick()
    {
        constexpr std::chrono::milliseconds each{50};
        tick_.expires_after(each);
        tick_.async_wait([this](error_code cancelled) {
            if (cancelled)
                return;
            const auto now = std::chrono::steady_clock::now();
            constexpr double most_s = 1; // after a pause of the machine it does not run to catch up
            unit_.advance(speed_ * std::min(most_s, std::chrono::duration<double>(now - last_).count()));
            last_ = now;
            tick();
        });
    }

    void listen()
    {
        asio::async_read_until(typed_, buffer_, '\n', [this](error_code failed, std::size_t) {
            if (failed) {
                if (until_end_)
                    io_.stop();
                return;
            }
            std::istream in(&buffer_);
            std::string line;
            std::getline(in, line);
            const Obeyed o = obey(unit_, server_, line);
            if (o.speed)
                speed_ = *o.speed;
            if (!o.said.empty())
                std::cout << o.said << std::endl;
            o.quit ? io_.stop() : listen();
        });
    }

    asio::io_context& io_;
    StandIn& unit_;
    StandInServer& server_;
    asio::steady_timer tick_;
    asio::posix::stream_descriptor typed_;
    asio::streambuf buffer_{1U << 16U};
    std::chrono::steady_clock::time_point last_;
    double speed_ = 1;
    bool until_end_;
};

int refuse(const Error& e)
{
    std::cerr << e.text() << "\n";
    return bad_input;
}

Result<RegisterMap> chosen_map(const std::string& file, const Variant& v)
{
    if (file.empty())
        return fresh_map(v);
    const auto text = read_file(file);
    return text ? read_register_map(*text, file) : Result<RegisterMap>(text.error());
}

} // namespace

int run_rig_program(int argc, const char* const* argv)
{
    CLI::App app("A unit that is not there: the loop and unit of a job behind a register map, by Modbus. It listens on this machine only.", "vernal-relay-rig");
    std::string job_file, map_file, write_map, variant;
    int port = -1;
    double speed = 1, hour = 12;
    bool pty = false, detached = false;
    app.add_option("JOB", job_file, "Job file")->required();
    app.add_option("--variant", variant, "Its name; the first where it is left out");
    app.add_option("--map", map_file, "Register map; without one all that the unit has is laid out");
    app.add_option("--write-map", write_map, "Writes the map into this file and ends");
    auto* tcp_option = app.add_option("--tcp", port, "Port on 127.0.0.1; 0: a free one, which it says")->check(CLI::Range(0, 65535));
    app.add_flag("--pty", pty, "RTU on a pseudo-terminal, whose path it says")->excludes(tcp_option);
    app.add_option("--speed", speed, "Times the clock")->check(CLI::Range(0.0, 3600.0));
    app.add_option("--hour", hour, "Of the day at which it begins")->check(CLI::Range(0.0, 23.0));
    app.add_flag("--detached", detached, "Goes on when its standard input ends");
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& e) {
        return app.exit(e) == 0 ? 0 : bad_input;
    }
    const auto opened = open_job(job_file);
    if (!opened)
        return refuse(opened.error());
    const Job& job = *opened;
    std::size_t at = 0;
    while (!variant.empty() && at < job.variants.size() && job.variants[at].name != variant && job.variants[at].id != variant)
        ++at;
    if (at >= job.variants.size())
        return refuse({"there is no variant “" + variant + "”", job_file, {}});
    auto map = chosen_map(map_file, job.variants[at]);
    if (!map)
        return refuse(map.error());
    if (!write_map.empty()) {
        const auto written = write_file_atomically(write_map, write_register_map(*map));
        return written ? 0 : refuse(written.error());
    }
    const auto day = std::find_if(job.days.begin(), job.days.end(), [](const Day& d) { return d.kind == DayKind::generated; });
    if (day == job.days.end())
        return refuse({"the job has no day with weather of its own", job_file, "Add one"});
    auto unit = StandIn::make(job, at, *day, std::move(*map), hour);
    if (!unit)
        return refuse(unit.error());
    asio::io_context io(1);
    StandInServer server(io, **unit);
    if (pty) {
        const auto path = server.open_pty();
        if (!path)
            return refuse(path.error());
        std::cout << "listens on " << *path << std::endl;
    } else {
        const auto listens = server.listen_tcp(std::max(port, 0));
        if (!listens)
            return refuse(listens.error());
        std::cout << "listens on 127.0.0.1:" << *listens << std::endl;
    }
    const Running running(io, **unit, server, speed, !detached);
    io.run();
    return 0;
}

} // namespace vernal
