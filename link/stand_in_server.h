// The stand-in's server: on loopback by TCP, or RTU on a pseudo-terminal; it answers as ill as it is
// told to.
#pragma once

#include "stand_in.h"

#include <boost/asio/io_context.hpp>
#include <boost/asio/ip/tcp.hpp>
#include <boost/asio/posix/stream_descriptor.hpp>
#include <boost/asio/steady_timer.hpp>

#include <chrono>
#include <list>

namespace vernal {

// How it answers.
enum class Manner : std::uint8_t { well,
    slow,      // after so many seconds
    garbled,   // a byte of the answer is another
    cut_short, // its last bytes are missing
    wrong_crc, // of TCP, which has none: the answer is to another request
    flooding,  // bytes without end before it
    reordered, // after the answer to the next request
    busy,      // by an exception
    lost };    // not at all: the link is down
inline constexpr std::array manner_keys{"well", "slow", "garbled", "cut-short", "wrong-crc", "flooding", "reordered", "busy", "lost"};

struct Manners {
    Manner how = Manner::well;
    double seconds = 0; // slow: so long; lost: so long, 0: until told otherwise
    int count = 0;      // so many answers; 0: until told otherwise
};

class StandInServer {
public:
    // io and unit outlive it.
    StandInServer(boost::asio::io_context& io, StandIn& unit);
    ~StandInServer();
    StandInServer(const StandInServer&) = delete;
    StandInServer& operator=(const StandInServer&) = delete;

    // port 0: a free one. On 127.0.0.1 only. Gives the port.
    Result<int> listen_tcp(int port);
    // Gives the terminal's path.
    Result<std::string> open_pty();
    void set_manners(Manners m);
    const Manners& manners() const { return manners_; }
    int answered() const { return answered_; }

    struct Line; // a connection or the terminal

private:
    void accept();
    void read(const std::shared_ptr<Line>& line);
    void silence(const std::shared_ptr<Line>& line);
    void take(const std::shared_ptr<Line>& line, bool silent);
    void reply(const std::shared_ptr<Line>& line, std::uint8_t station, const Bytes& request, std::uint16_t transaction);
    void send(const std::shared_ptr<Line>& line, Bytes bytes);
    void send_first(const std::shared_ptr<Line>& line);
    void spoil(Bytes& bytes, bool tcp) const;
    bool down() const;
    boost::asio::io_context& io_;
    StandIn& unit_;
    boost::asio::ip::tcp::acceptor acceptor_;
    std::list<std::weak_ptr<Line>> lines_;
    Manners manners_;
    std::chrono::steady_clock::time_point lost_until_;
    int answered_ = 0, terminal_ = -1;
};

// One line typed on the stand-in's standard input; the answer to it. A word it does not know says
// which there are.
struct Obeyed {
    std::string said;
    bool quit = false;
    std::optional<double> speed; // from now on
};
Obeyed obey(StandIn& unit, StandInServer& server, const std::string& line);

} // namespace vernal
