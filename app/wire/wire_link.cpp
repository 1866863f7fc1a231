#include "wire_link.h"

#include "app/shell/session.h"

#include <QEventLoop>
#include <QModbusRtuSerialClient>
#include <QModbusTcpClient>
#include <QRegularExpression>
#include <QVariant>

#include <algorithm>
#include <cmath>
#include <utility>

namespace vernal {
namespace {

constexpr int poll_ms = 500, again_ms = 2000;
constexpr int silent_most = 2; // answers that did not come, one after the other

QModbusDataUnit::RegisterType type_of(Table t)
{
    constexpr std::array types{QModbusDataUnit::Coils, QModbusDataUnit::DiscreteInputs, QModbusDataUnit::InputRegisters, QModbusDataUnit::HoldingRegisters};
    return types[static_cast<std::size_t>(t)];
}

// Why it refuses, by the code of its exception (MODBUS Application Protocol Specification V1.1b3, 7).
QString refusal(int code)
{
    switch (code) {
    case 1: return WireLink::tr("it does not know this request");
    case 2: return WireLink::tr("it has no such address");
    case 3: return WireLink::tr("it does not take this value");
    case 4: return WireLink::tr("it failed at it");
    case 6: return WireLink::tr("it is busy");
    default: return WireLink::tr("it answers with exception %1").arg(code);
    }
}

int key_of(const WireBlock& b) { return static_cast<int>(b.table) * table_size + b.address; }

QString place(const WireBlock& b) { return b.count == 1 ? QStringLiteral("%1 %2").arg(QLatin1String(table_text(b.table))).arg(b.address) : QStringLiteral("%1s %2 to %3").arg(QLatin1String(table_text(b.table))).arg(b.address).arg(b.address + b.count - 1); }

// Of bits there are as many as fill their bytes.
bool answers(const QModbusDataUnit& unit, const WireBlock& b)
{
    constexpr qsizetype byte = 8;
    const auto count = static_cast<qsizetype>(unit.valueCount());
    return unit.registerType() == type_of(b.table) && (count == b.count || (of_bits(b.table) && count == (b.count + byte - 1) / byte * byte));
}

// Of a message of the system what stands between its brackets, without its full stop.
QString plain(QString words)
{
    static const QRegularExpression inner(QStringLiteral("\\((.+)\\)"));
    if (const auto m = inner.match(words); m.hasMatch())
        words = m.captured(1);
    while (words.endsWith(QLatin1Char('.')))
        words.chop(1);
    return words;
}

} // namespace

QString WireAddress::text() const { return tcp ? QStringLiteral("%1:%2").arg(host).arg(port) : terminal; }

WireLink::WireLink(QObject* parent) : QObject(parent)
{
    watch_.setSingleShot(true);
    connect(&watch_, &QTimer::timeout, this, [this] {
        if (asked_)
            failed(tr("its answer was not whole within %1 s").arg(map_.wait_s), true);
    });
    poll_.setInterval(poll_ms);
    connect(&poll_, &QTimer::timeout, this, &WireLink::poll);
    again_.setInterval(again_ms);
    connect(&again_, &QTimer::timeout, this, [this] {
        if (state_ == State::lost && !client_) // else an attempt is under way, however slow
            connect_now();
    });
}

WireLink::~WireLink() { drop_client(); }

void WireLink::leave_and_wait()
{
    if (state_ == State::joined && !forced_.empty()) {
        constexpr int answers = 3, look_ms = 5;
        const auto longest_ms = static_cast<int>(answers * 1000 * map_.wait_s * static_cast<double>(forced_.size()));
        QEventLoop wait;
        QTimer look;
        connect(&look, &QTimer::timeout, &wait, [&] {
            if (state_ == State::apart)
                wait.quit();
        });
        look.start(look_ms);
        QTimer::singleShot(longest_ms, &wait, &QEventLoop::quit);
        leave();
        if (state_ != State::apart)
            wait.exec(QEventLoop::ExcludeUserInputEvents);
    }
    leave();
}

void WireLink::drop_client()
{
    paused_ = false;
    watch_.stop();
    if (!client_)
        return;
    ++id_; // what still comes is nobody's
    asked_.reset();
    client_->disconnect(this);
    client_->disconnectDevice();
    client_.release()->deleteLater(); // it may be its own signal that led here
}

void WireLink::join(const RegisterMap& map, const WireAddress& at)
{
    drop_client();
    map_ = map;
    address_ = at;
    image_.clear();
    tasks_.clear();
    refused_.clear();
    forced_.clear();
    armed_ = whole_ = leaving_ = log_wanted_ = release_wanted_ = false;
    silent_ = 0;
    heard_ = {};
    state_ = State::joining;
    connect_now();
    emit changed();
}

void WireLink::connect_now()
{
    drop_client();
    if (address_.tcp) {
        auto c = std::make_unique<QModbusTcpClient>();
        c->setConnectionParameter(QModbusDevice::NetworkAddressParameter, address_.host);
        c->setConnectionParameter(QModbusDevice::NetworkPortParameter, address_.port);
        client_ = std::move(c);
    } else {
        auto c = std::make_unique<QModbusRtuSerialClient>();
        constexpr std::array parities{0, 2, 3}; // QSerialPort::Parity
        c->setConnectionParameter(QModbusDevice::SerialPortNameParameter, address_.terminal);
        c->setConnectionParameter(QModbusDevice::SerialBaudRateParameter, address_.baud);
        c->setConnectionParameter(QModbusDevice::SerialParityParameter, parities[static_cast<std::size_t>(address_.parity)]);
        c->setConnectionParameter(QModbusDevice::SerialDataBitsParameter, 8);
        c->setConnectionParameter(QModbusDevice::SerialStopBitsParameter, address_.parity == WireAddress::Parity::none ? 2 : 1);
        client_ = std::move(c);
    }
    client_->setTimeout(static_cast<int>(std::lround(map_.wait_s * 1000)));
    client_->setNumberOfRetries(0); // a write is never sent twice unseen
    constexpr int later_ms = 100;
    watch_.setInterval(client_->timeout() + later_ms); // its own clock stops at the first bytes of an answer
    QModbusClient* now = client_.get();
    connect(now, &QModbusDevice::stateChanged, this, [this, now](QModbusDevice::State s) {
        if (client_.get() != now)
            return;
        if (s == QModbusDevice::ConnectedState && (state_ == State::joining || state_ == State::lost)) {
            silent_ = 0;
            read_all([this](const QString& why) {
                if (!why.isEmpty() || state_ == State::apart)
                    return;
                const bool back = state_ == State::lost;
                state_ = State::joined;
                whole_ = true;
                poll_.start();
                again_.stop();
                for (const MapRegister& r : map_.registers)
                    if (const auto raw = image_.raw(map_, r); r.is == RegisterIs::mode && raw && mode_of(r, *raw) == Mode::automatic)
                        forced_.erase(r.of);
                emit said(back ? tr("The link is back; everything has been read anew. It is read-only again.") : tr("Joined with %1; everything has been read. Nothing is written until you arm it.").arg(address_.text()));
                emit changed();
                if (std::exchange(release_wanted_, false))
                    release();
            });
        } else if (s == QModbusDevice::ConnectedState) {
            send_next();
        } else if (s == QModbusDevice::UnconnectedState && state_ != State::apart) {
            lose(state_ == State::joining && !now->errorString().isEmpty() ? plain(now->errorString()) : tr("the connection has ended"));
        }
    });
    if (!now->connectDevice() && client_.get() == now)
        lose(plain(now->errorString()));
    else { // a host that says nothing at all
        constexpr int connect_ms = 3000;
        QTimer::singleShot(connect_ms, now, [this, now] {
            if (client_.get() == now && now->state() == QModbusDevice::ConnectingState)
                lose(tr("nobody answers"));
        });
    }
}

void WireLink::lose(const QString& why)
{
    const State was = state_;
    if (asked_)
        tasks_.push_front(std::move(*asked_));
    drop_client();
    poll_.stop();
    armed_ = whole_ = false;
    auto open = std::move(tasks_);
    tasks_.clear();
    if (log_wanted_) {
        log_wanted_ = false;
        emit log_failed(tr("the link was lost"));
    }
    if (was == State::joining || leaving_) {
        state_ = State::apart;
        again_.stop();
        if (leaving_)
            return part(tr("The link was lost before everything was back on AUTO. %1").arg(stays_on().join(QLatin1Char(' '))));
        emit said(tr("%1 could not be joined: %2. Check address, cable and station %3, and whether another program has it.").arg(address_.text(), why).arg(map_.station));
        emit changed();
        return;
    }
    state_ = State::lost;
    again_.start();
    for (Task& t : open)
        if (t.tells)
            t.then(tr("the link was lost"));
    if (was != State::lost) {
        const QStringList on = stays_on();
        emit said(tr("LINK LOST at %1: %2. %3").arg(QDateTime::currentDateTime().toString(QStringLiteral("HH:mm:ss")), why, on.isEmpty() ? tr("The unit goes on by its own rules.") : on.join(QLatin1Char(' '))));
    }
    emit changed();
}

QStringList WireLink::stays_on() const
{
    QStringList forced, others;
    std::set<std::string> told;
    for (const MapRegister& r : map_.registers) {
        const auto raw = image_.raw(map_, r);
        std::optional<Mode> m;
        if (r.is == RegisterIs::mode && raw)
            m = mode_of(r, *raw);
        const bool ours = r.is == RegisterIs::mode && forced_.count(r.of) != 0;
        if (m == Mode::on || m == Mode::off || ours) {
            const QString to = m == Mode::off ? tr("OFF") : tr("ON");
            forced << (ours ? tr("%1 stays %2, as it was put from here: move its switch at the unit, or cut its supply.").arg(qs(r.of), to) : tr("%1 stays %2, as it was found.").arg(qs(r.of), to));
            told.insert(r.of);
        }
    }
    for (const MapRegister& r : map_.registers)
        if (const auto raw = image_.raw(map_, r); r.is == RegisterIs::live && raw && *raw != 0 && told.insert(r.of).second)
            others << tr("%1 was running and goes on by the unit's own rules.").arg(qs(r.of));
    return forced + others;
}

void WireLink::arm(bool on)
{
    armed_ = on && state_ == State::joined;
    emit changed();
}

void WireLink::put(Task t)
{
    tasks_.push_back(std::move(t));
    send_next();
}

void WireLink::send_next()
{
    if (asked_ || paused_ || tasks_.empty() || !client_ || client_->state() != QModbusDevice::ConnectedState)
        return;
    asked_ = std::move(tasks_.front());
    tasks_.pop_front();
    const WireBlock& b = asked_->block;
    QModbusDataUnit unit(type_of(b.table), b.address, static_cast<quint16>(b.count));
    for (std::size_t i = 0; i < asked_->words.size(); ++i)
        unit.setValue(static_cast<qsizetype>(i), asked_->words[i]);
    QModbusReply* reply = asked_->words.empty() ? client_->sendReadRequest(unit, map_.station) : client_->sendWriteRequest(unit, map_.station);
    if (!reply)
        return failed(client_->errorString(), true);
    connect(reply, &QModbusReply::finished, this, [this, reply, id = ++id_] {
        finished(reply, id);
        reply->deleteLater();
    });
    watch_.start();
}

void WireLink::finished(QModbusReply* reply, int id)
{
    if (id != id_ || !asked_)
        return;
    if (reply->error() == QModbusDevice::ProtocolError) {
        silent_ = 0;
        heard_ = QDateTime::currentDateTime();
        constexpr int value = 3; // the codes up to it say that it never will
        return failed(refusal(reply->rawResult().exceptionCode()), false, reply->rawResult().exceptionCode() <= value);
    }
    if (reply->error() != QModbusDevice::NoError)
        return failed(reply->error() == QModbusDevice::TimeoutError ? tr("it has not answered within %1 s").arg(map_.wait_s) : plain(reply->errorString()), true);
    const Task done = std::move(*asked_);
    const QModbusDataUnit unit = reply->result();
    if (done.words.empty() && !answers(unit, done.block)) {
        asked_ = done;
        return failed(tr("its answer is that to another question"), true);
    }
    asked_.reset();
    watch_.stop();
    silent_ = 0;
    heard_ = QDateTime::currentDateTime();
    for (int i = 0; done.words.empty() && i < done.block.count; ++i)
        image_.put(done.block.table, done.block.address + i, unit.value(i));
    if (done.then)
        done.then({});
    send_next();
}

// silent: there was no answer, or none that can be trusted; else the unit has refused, for_good or now.
void WireLink::failed(const QString& why, bool silent, bool for_good)
{
    Task t = std::move(*asked_);
    asked_.reset();
    watch_.stop();
    ++id_;
    if (!silent) {
        if (t.words.empty()) {
            if (for_good && refused_.insert(key_of(t.block)).second)
                emit said(tr("The unit refuses %1: %2. Is this its register map?").arg(place(t.block), why));
            if (t.then)
                t.then(t.tells ? why : QString()); // the others are read all the same
        } else {
            t.then(why);
        }
        return send_next();
    }
    if (++silent_ >= silent_most || (t.words.empty() && t.tried)) {
        tasks_.push_front(std::move(t));
        return lose(why);
    }
    // What is still under way on the line belongs to nobody: by TCP a new connection, on a serial
    // line a pause as long as an answer may take.
    paused_ = true;
    if (t.words.empty()) {
        t.tried = true;
        tasks_.push_front(std::move(t));
    } else {
        t.then(why);
    }
    if (address_.tcp) {
        paused_ = false;
        connect_now();
        return;
    }
    QTimer::singleShot(static_cast<int>(map_.wait_s * 1000), client_.get(), [this] {
        paused_ = false;
        send_next();
    });
}

void WireLink::poll()
{
    if (under_way() || state_ != State::joined)
        return;
    read_blocks(live_blocks(map_), [this](const QString&) { emit changed(); });
}

void WireLink::read_blocks(const std::vector<WireBlock>& blocks, const std::function<void(const QString&)>& then)
{
    std::vector<WireBlock> wanted;
    std::copy_if(blocks.begin(), blocks.end(), std::back_inserter(wanted), [this](const WireBlock& b) { return refused_.count(key_of(b)) == 0; });
    if (wanted.empty())
        return then({});
    for (std::size_t i = 0; i < wanted.size(); ++i) {
        Task t;
        t.block = wanted[i];
        if (i + 1 == wanted.size())
            t.then = then;
        tasks_.push_back(std::move(t));
    }
    send_next();
}

void WireLink::read_all(const std::function<void(const QString&)>& then)
{
    std::vector<WireBlock> all = setting_blocks(map_);
    const auto live = live_blocks(map_);
    all.insert(all.end(), live.begin(), live.end());
    read_blocks(all, then);
}

void WireLink::read_settings()
{
    if (state_ == State::joined)
        read_all([this](const QString&) { emit changed(); });
}

void WireLink::leave()
{
    if (state_ != State::joined || leaving_) {
        if (state_ != State::apart && !leaving_)
            part(state_ == State::lost ? tr("Left without a link. %1").arg(stays_on().join(QLatin1Char(' '))) : QString());
        return;
    }
    leaving_ = true;
    poll_.stop();
    tasks_.clear();
    release_then([this](const QString& words) { part(words.isEmpty() ? tr("Left. Nothing was forced from here.") : tr("Left. %1").arg(words)); });
}

void WireLink::part(const QString& words)
{
    drop_client();
    poll_.stop();
    again_.stop();
    tasks_.clear();
    armed_ = whole_ = leaving_ = log_wanted_ = release_wanted_ = false;
    state_ = State::apart;
    emit left(words);
    emit changed();
}

} // namespace vernal
