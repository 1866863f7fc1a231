#include "stand_in_server.h"

#include <boost/asio/buffer.hpp>
#include <boost/asio/write.hpp>

#include <cmath>
#include <cstdlib>
#include <cstring>
#include <fcntl.h>
#include <termios.h>
#include <unistd.h>

namespace vernal {

namespace asio = boost::asio;
using boost::system::error_code;

struct StandInServer::Line {
    explicit Line(asio::io_context& io) : socket(io), terminal(io), quiet(io) {}
    bool tcp = true;
    asio::ip::tcp::socket socket;
    asio::posix::stream_descriptor terminal;
    asio::steady_timer quiet;
    std::array<std::uint8_t, 512> in{};
    Bytes buffer, held; // held: an answer that goes out behind the next
    std::list<Bytes> out;
    bool broken = false;

    template <class Done>
    void read_some(Done done)
    {
        tcp ? socket.async_read_some(asio::buffer(in), std::move(done)) : terminal.async_read_some(asio::buffer(in), std::move(done));
    }
    template <class Done>
    void write_all(const Bytes& bytes, Done done)
    {
        tcp ? asio::async_write(socket, asio::buffer(bytes), std::move(done)) : asio::async_write(terminal, asio::buffer(bytes), std::move(done));
    }
    void close()
    {
        error_code ignored;
        socket.close(ignored);
        quiet.cancel(ignored);
    }
};

StandInServer::StandInServer(asio::io_context& io, StandIn& unit) : io_(io), unit_(unit), acceptor_(io) {}

StandInServer::~StandInServer()
{
    if (terminal_ >= 0)
        ::close(terminal_);
}

Result<int> StandInServer::listen_tcp(int port)
{
    const asio::ip::tcp::endpoint at(asio::ip::address_v4::loopback(), static_cast<std::uint16_t>(port));
    error_code failed;
    acceptor_.open(at.protocol(), failed);
    if (!failed)
        acceptor_.set_option(asio::ip::tcp::acceptor::reuse_address(true), failed);
    if (!failed)
        acceptor_.bind(at, failed);
    if (!failed)
        acceptor_.listen(asio::socket_base::max_listen_connections, failed);
    if (failed)
        return Error{"it cannot listen on port " + std::to_string(port) + ": " + failed.message(), {}, "Another port, or 0 for a free one"};
    accept();
    return static_cast<int>(acceptor_.local_endpoint().port());
}

void StandInServer::accept()
{
    auto line = std::make_shared<Line>(io_);
    acceptor_.async_accept(line->socket, [this, line](error_code failed) {
        if (failed)
            return;
        error_code ignored;
        line->socket.set_option(asio::ip::tcp::no_delay(true), ignored);
        lines_.remove_if([](const auto& l) { return l.expired(); });
        lines_.push_back(line);
        down() ? line->close() : read(line);
        accept();
    });
}

Result<std::string> StandInServer::open_pty()
{
    const auto failed = [](const char* what) { return Error{std::string("no pseudo-terminal: ") + what + ": " + std::strerror(errno), {}, "--tcp instead"}; };
    const int ours = ::posix_openpt(O_RDWR | O_NOCTTY | O_CLOEXEC); // NOLINT(cppcoreguidelines-pro-type-vararg)
    if (ours < 0)
        return failed("posix_openpt");
    auto line = std::make_shared<Line>(io_);
    line->tcp = false;
    line->terminal.assign(ours);
    std::array<char, 128> name{};
    if (::grantpt(ours) != 0 || ::unlockpt(ours) != 0 || ::ptsname_r(ours, name.data(), name.size()) != 0)
        return failed("ptsname");
    // It stays open here, so that a client that leaves does not end it.
    terminal_ = ::open(name.data(), O_RDWR | O_NOCTTY | O_CLOEXEC); // NOLINT(cppcoreguidelines-pro-type-vararg)
    termios raw{};
    if (terminal_ < 0 || ::tcgetattr(terminal_, &raw) != 0)
        return failed(name.data());
    ::cfmakeraw(&raw);
    ::tcsetattr(terminal_, TCSANOW, &raw);
    lines_.push_back(line);
    read(line);
    return std::string(name.data());
}

bool StandInServer::down() const { return manners_.how == Manner::lost && (manners_.seconds <= 0 || std::chrono::steady_clock::now() < lost_until_); }

void StandInServer::set_manners(Manners m)
{
    manners_ = m;
    if (m.how != Manner::lost)
        return;
    lost_until_ = std::chrono::steady_clock::now() + std::chrono::milliseconds(std::llround(m.seconds * 1000));
    for (const auto& weak : lines_)
        if (const auto line = weak.lock(); line && line->tcp)
            line->close();
}

void StandInServer::read(const std::shared_ptr<Line>& line)
{
    line->read_some([this, line](error_code failed, std::size_t n) {
        if (failed)
            return line->close();
        line->buffer.insert(line->buffer.end(), line->in.begin(), line->in.begin() + static_cast<std::ptrdiff_t>(n));
        take(line, false);
        if (line->broken)
            return line->close();
        if (!line->tcp)
            silence(line);
        read(line);
    });
}

// On a serial line what is not whole when it falls silent is dropped.
void StandInServer::silence(const std::shared_ptr<Line>& line)
{
    constexpr std::chrono::milliseconds silent{50};
    line->quiet.expires_after(silent);
    line->quiet.async_wait([this, line](error_code cancelled) {
        if (!cancelled)
            take(line, true);
    });
}

void StandInServer::take(const std::shared_ptr<Line>& line, bool silent)
{
    constexpr std::size_t most = 4096; // more than any request, of somebody who floods
    if (line->tcp)
        while (auto f = take_tcp(line->buffer, line->broken))
            reply(line, f->station, f->pdu, f->transaction);
    else
        while (auto f = silent ? take_rtu_at_silence(line->buffer) : take_rtu(line->buffer))
            reply(line, f->station, f->pdu, 0);
    if (line->buffer.size() > most)
        line->buffer.clear();
}

void StandInServer::reply(const std::shared_ptr<Line>& line, std::uint8_t station, const Bytes& request, std::uint16_t transaction)
{
    if (manners_.how == Manner::lost && !down())
        manners_ = {};
    constexpr std::uint8_t any_station = 0xFF; // of TCP, where the address says who is meant
    if (manners_.how == Manner::lost || (station != unit_.map().station && !(line->tcp && (station == any_station || station == 0))))
        return; // of a serial line: another one is meant, or all are, which is not answered
    const Bytes pdu = manners_.how == Manner::busy && !request.empty() ? Bytes{static_cast<std::uint8_t>(request[0] | 0x80U), static_cast<std::uint8_t>(Refusal::busy)} : answer(request, unit_);
    ++answered_;
    Bytes bytes = line->tcp ? tcp_bytes({transaction, station, pdu}) : rtu_bytes(station, pdu);
    spoil(bytes, line->tcp);
    const Manners now = manners_;
    if (manners_.count > 0 && --manners_.count == 0)
        manners_ = {};
    if (now.how == Manner::reordered && line->held.empty()) {
        line->held = std::move(bytes);
        return;
    }
    if (now.how == Manner::slow) {
        auto later = std::make_shared<asio::steady_timer>(io_, std::chrono::milliseconds(std::llround(now.seconds * 1000)));
        later->async_wait([this, line, bytes, later](error_code cancelled) {
            if (!cancelled && !down())
                send(line, bytes);
        });
        return;
    }
    send(line, std::move(bytes));
    if (!line->held.empty())
        send(line, std::exchange(line->held, {}));
}

void StandInServer::spoil(Bytes& bytes, bool tcp) const
{
    constexpr std::size_t noise = 2000, missing = 3;
    constexpr std::uint8_t flip = 0x5A;
    switch (manners_.how) {
    case Manner::garbled: bytes[bytes.size() / 2] ^= flip; break;
    case Manner::cut_short: bytes.resize(bytes.size() - std::min(missing, bytes.size())); break;
    case Manner::wrong_crc: bytes[tcp ? 1 : bytes.size() - 1] ^= flip; break;
    case Manner::flooding: bytes.insert(bytes.begin(), noise, flip); break;
    default: break;
    }
}

void StandInServer::send(const std::shared_ptr<Line>& line, Bytes bytes)
{
    line->out.push_back(std::move(bytes));
    if (line->out.size() == 1)
        send_first(line);
}

void StandInServer::send_first(const std::shared_ptr<Line>& line)
{
    line->write_all(line->out.front(), [this, line](error_code failed, std::size_t) {
        line->out.pop_front();
        if (failed)
            line->out.clear();
        else if (!line->out.empty())
            send_first(line);
    });
}

} // namespace vernal
