// A stand-in for tests, served in a thread.
#pragma once

#include "link/map_file.h"
#include "link/stand_in_server.h"

#include <boost/asio/post.hpp>

#include <functional>
#include <future>
#include <stdexcept>
#include <thread>

namespace vernal {

// A stand-in that is served in a thread of its own.
class Served {
public:
    explicit Served(const Job& job, bool pty = false, RegisterMap map = {})
    {
        auto made = StandIn::make(job, 0, job.days.front(), map.registers.empty() ? fresh_map(job.variants.front()) : std::move(map));
        if (!made)
            throw std::runtime_error(made.error().text());
        unit = std::move(*made);
        server.emplace(io, *unit);
        if (pty) {
            const auto p = server->open_pty();
            if (!p)
                throw std::runtime_error(p.error().text());
            path = *p;
        } else {
            const auto p = server->listen_tcp(0);
            if (!p)
                throw std::runtime_error(p.error().text());
            port = *p;
        }
        thread = std::jthread([this] { io.run(); });
    }
    ~Served()
    {
        io.stop();
        thread.join();
    }
    // Done in the server's thread.
    std::string obeys(const std::string& line)
    {
        std::promise<std::string> said;
        boost::asio::post(io, [&] { said.set_value(obey(*unit, *server, line).said); });
        return said.get_future().get();
    }
    void pass(double seconds)
    {
        in_thread([&] { unit->advance(seconds); });
    }
    // As it is set now.
    Variant variant()
    {
        Variant v;
        in_thread([&] { v = unit->variant(); });
        return v;
    }
    void in_thread(const std::function<void()>& act)
    {
        std::promise<void> done;
        boost::asio::post(io, [&] {
            act();
            done.set_value();
        });
        done.get_future().get();
    }
    std::unique_ptr<StandIn> unit;
    std::string path;
    int port = 0;

private:
    boost::asio::io_context io{1};
    std::optional<StandInServer> server;
    std::jthread thread;
};

} // namespace vernal
