// A unit on the wire, by Modbus over TCP or a serial line: what it holds is read round and round,
// what is written is read back. Nothing here waits: every answer comes by a signal.
#pragma once

#include "link/as_found.h"

#include <QDateTime>
#include <QModbusDataUnit>
#include <QObject>
#include <QTimer>

#include <deque>
#include <functional>
#include <memory>
#include <set>

class QModbusClient;
class QModbusReply;

namespace vernal {

struct WireAddress {
    bool tcp = true;
    QString host = QStringLiteral("127.0.0.1");
    int port = 502;
    QString terminal; // of a serial line: "/dev/ttyUSB0"
    int baud = 19200; // with even parity what MODBUS over Serial Line V1.02, 3.2 and 2.5.1, asks for first (from memory)
    enum class Parity : std::uint8_t { none,
        even,
        odd } parity = Parity::even;
    QString text() const;
};

class WireLink : public QObject {
    Q_OBJECT
public:
    enum class State { apart,
        joining,
        joined,
        lost }; // it answered once and does not now; it is asked again and again
    explicit WireLink(QObject* parent = nullptr);
    ~WireLink() override; // leave_and_wait() comes before, while everything else still stands

    void join(const RegisterMap& map, const WireAddress& at);
    // Outputs that were forced from here go back to AUTO first; left() tells when it is done.
    void leave();
    void leave_and_wait(); // likewise, not longer than its answers may take; for the end of the program
    State state() const { return state_; }
    bool whole() const { return whole_; } // every setting has been read since it joined
    const RegisterMap& map() const { return map_; }
    const WireImage& image() const { return image_; }
    const WireAddress& address() const { return address_; }
    const QDateTime& heard() const { return heard_; } // the last answer

    bool armed() const { return armed_; }
    void arm(bool on); // falls when the link is lost
    // Ends by wrote(). Not armed, not joined or no such register: at once, nothing is sent.
    void write(const WireWrite& w);
    // The switch of every output to OFF, whether armed or not, before anything else that waits.
    void all_off();
    const std::set<std::string>& forced() const { return forced_; } // outputs whose switch was moved from here and is not on AUTO
    void release();                                                 // these to AUTO, the link stays; when it is lost, as soon as it is back
    void read_settings();
    bool under_way() const { return asked_.has_value() || !tasks_.empty(); }

    // What goes on at the unit without anybody, as it was last read; empty: nothing is known to.
    QStringList stays_on() const;

    void read_log(); // ends by log_read() or log_failed()
    void stop_log();

signals:
    void changed();                  // state, or what was read
    void said(const QString& words); // what has happened, for the person
    void wrote(const vernal::WireWrite& w, bool stands, const QString& words);
    void left(const QString& words);
    void log_progress(int done, int all);
    void log_read(int rows);
    void log_failed(const QString& why);

private:
    struct Task {
        WireBlock block;
        std::vector<std::uint16_t> words;                // to be written; none: it reads
        std::function<void(const QString& failed)> then; // empty: it worked
        bool tried = false, tells = false;               // tells: somebody waits for what comes of it
    };
    void connect_now();
    void drop_client();
    void put(Task t);
    void send_next();
    void finished(QModbusReply* reply, int id);
    void failed(const QString& why, bool silent, bool for_good = false);
    void lose(const QString& why);
    void poll();
    void read_all(const std::function<void(const QString&)>& then);
    void read_blocks(const std::vector<WireBlock>& blocks, const std::function<void(const QString&)>& then);
    void write_and_check(const WireWrite& w, const std::function<void(bool, const QString&)>& then);
    void check(const WireWrite& w, const QString& failed, const std::function<void(bool, const QString&)>& then);
    void release_then(const std::function<void(const QString&)>& then);
    void log_rows(int rows, std::uint16_t sequence);
    void part(const QString& words);
    std::optional<std::uint16_t> word(int address) const { return image_.at(map_.log.table, address); }
    RegisterMap map_;
    WireAddress address_;
    WireImage image_;
    std::unique_ptr<QModbusClient> client_;
    State state_ = State::apart;
    std::deque<Task> tasks_;
    std::optional<Task> asked_;
    std::set<int> refused_; // blocks that it does not have, by table and address
    std::set<std::string> forced_;
    QTimer poll_, again_, watch_;
    QDateTime heard_;
    int id_ = 0, silent_ = 0, log_tries_ = 0; // id: of the request under way
    bool armed_ = false, whole_ = false, leaving_ = false, log_wanted_ = false, paused_ = false, release_wanted_ = false;
};

} // namespace vernal
