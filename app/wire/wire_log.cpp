// The log of a unit on the wire.
#include "wire_link.h"

#include <algorithm>

namespace vernal {

void WireLink::read_log()
{
    if (state_ != State::joined || map_.log.rows == 0 || log_wanted_) {
        if (!log_wanted_)
            emit log_failed(map_.log.rows == 0 ? tr("the map has no log") : tr("there is no link"));
        return;
    }
    log_wanted_ = true;
    log_tries_ = 0;
    const MapLog& log = map_.log;
    read_blocks({{log.table, log.count_address, 1}, {log.table, log.sequence_address, 1}}, [this](const QString&) {
        const auto count = word(map_.log.count_address), sequence = word(map_.log.sequence_address);
        if (!log_wanted_)
            return;
        if (!count || !sequence || *count == 0) {
            log_wanted_ = false;
            emit log_failed(count && *count == 0 ? tr("the unit's log is empty so far") : tr("the unit does not tell how many rows there are"));
            return;
        }
        log_rows(std::min<int>(*count, map_.log.rows), *sequence);
    });
}

void WireLink::stop_log()
{
    if (!log_wanted_)
        return;
    log_wanted_ = false;
    emit log_failed(tr("stopped; nothing was kept"));
}

// A row that is written meanwhile moves all others: then they are read once more.
void WireLink::log_rows(int rows, std::uint16_t sequence)
{
    const auto blocks = log_blocks(map_.log, rows);
    const int all = static_cast<int>(blocks.size());
    for (int i = 0; i < all; ++i) {
        Task t;
        t.block = blocks[static_cast<std::size_t>(i)];
        t.then = [this, i, all](const QString&) {
            if (log_wanted_)
                emit log_progress(i + 1, all);
        };
        tasks_.push_back(std::move(t));
    }
    Task last;
    last.block = {map_.log.table, map_.log.sequence_address, 1};
    last.then = [this, rows, sequence](const QString&) {
        if (!log_wanted_)
            return;
        constexpr int most_tries = 3;
        const auto now = word(map_.log.sequence_address);
        if (now && *now != sequence && ++log_tries_ < most_tries)
            return log_rows(rows, *now);
        log_wanted_ = false;
        now&&* now == sequence ? emit log_read(rows) : emit log_failed(tr("the unit writes rows faster than they can be read"));
    };
    tasks_.push_back(std::move(last));
    send_next();
}

} // namespace vernal
