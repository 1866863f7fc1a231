// What is written to a unit on the wire, and read back.
#include "wire_link.h"

#include "app/shell/session.h"

namespace vernal {
namespace {

WireBlock block_of(const RegisterMap& map, const WireWrite& w) { return {map.registers[w.at].table, map.registers[w.at].address, words_of(map.registers[w.at].type)}; }

} // namespace

void WireLink::write_and_check(const WireWrite& w, const std::function<void(bool, const QString&)>& then)
{
    const MapRegister& r = map_.registers[w.at];
    if (r.is == RegisterIs::mode) { // even if no answer comes it may have been taken
        const auto m = mode_of(r, w.to);
        m == Mode::automatic ? void(0) : void(forced_.insert(r.of));
    }
    Task t;
    t.block = block_of(map_, w);
    t.words = w.words;
    t.tells = true;
    t.then = [this, w, then](const QString& why) { check(w, why, then); };
    put(std::move(t));
}

// What stands there now, whether the write was answered or not.
void WireLink::check(const WireWrite& w, const QString& failed, const std::function<void(bool, const QString&)>& then)
{
    if (state_ == State::lost || state_ == State::apart)
        return then(false, tr("Nobody knows whether it was written: %1.").arg(failed));
    Task t;
    t.block = block_of(map_, w);
    t.tells = true;
    t.then = [this, w, failed, then](const QString& why) {
        const MapRegister& r = map_.registers[w.at];
        const auto now = image_.raw(map_, r);
        if (!why.isEmpty() || !now)
            return then(false, tr("It could not be read back: %1.").arg(why.isEmpty() ? tr("it is no number") : why));
        if (*now == w.to) {
            if (r.is == RegisterIs::mode && mode_of(r, w.to) == Mode::automatic)
                forced_.erase(r.of);
            return then(true, failed.isEmpty() ? tr("Written and read back.") : tr("There was no good answer (%1), but it reads back as written.").arg(failed));
        }
        if (r.is == RegisterIs::mode && mode_of(r, *now) == Mode::automatic)
            forced_.erase(r.of);
        then(false, *now == w.from ? tr("Not written: %1. It stands as before.").arg(failed.isEmpty() ? tr("the unit has not taken it") : failed) : tr("It reads back %1, which is neither what was there nor what was written.").arg(*now));
    };
    put(std::move(t));
}

void WireLink::write(const WireWrite& w)
{
    if (state_ != State::joined || !armed_ || w.at >= map_.registers.size() || !writable(map_.registers[w.at]) || w.words.size() != static_cast<std::size_t>(words_of(map_.registers[w.at].type))) {
        emit wrote(w, false, state_ != State::joined ? tr("Nothing was sent: there is no link.") : !armed_ ? tr("Nothing was sent: it is read-only.")
                                                                                                           : tr("Nothing was sent: this register cannot be written."));
        return;
    }
    write_and_check(w, [this, w](bool stands, const QString& words) {
        emit wrote(w, stands, words);
        emit changed();
    });
}

void WireLink::all_off()
{
    if (state_ != State::joined) {
        emit said(tr("There is no link: switch off at the unit, or cut its supply."));
        return;
    }
    // Of what waits, reading can wait longer, and what was to be written is not any more.
    auto open = std::move(tasks_);
    tasks_.clear();
    for (Task& t : open)
        if (t.tells)
            t.then(tr("everything was switched off instead"));
    tasks_.clear();
    struct Tally {
        int open = 0;
        QStringList bad;
    };
    auto tally = std::make_shared<Tally>();
    std::vector<WireWrite> all;
    for (const MapRegister& r : map_.registers)
        if (r.is == RegisterIs::mode)
            if (auto w = mode_write(map_, image_, r.of, Mode::off))
                all.push_back(std::move(*w));
    if (all.empty()) {
        emit said(tr("The map has no switch that can be written: switch off at the unit, or cut its supply."));
        return;
    }
    tally->open = static_cast<int>(all.size());
    for (const WireWrite& w : all) {
        // Behind the other switches, before everything else: each is checked when all are written.
        write_and_check(w, [this, w, tally](bool stands, const QString& words) {
            if (!stands)
                tally->bad << tr("%1: %2").arg(qs(map_.registers[w.at].of), words);
            if (--tally->open > 0)
                return;
            emit said(tally->bad.isEmpty() ? tr("All outputs are OFF, read back. This is no isolation: before hands go to a pump or an element, cut its supply.") : tr("NOT all outputs are off: %1 Switch off at the unit, or cut its supply.").arg(tally->bad.join(QLatin1Char(' '))));
            emit changed();
        });
    }
}

void WireLink::release_then(const std::function<void(const QString&)>& then)
{
    std::vector<WireWrite> all;
    for (const std::string& of : forced_)
        if (auto w = mode_write(map_, image_, of, Mode::automatic))
            all.push_back(std::move(*w));
    if (all.empty())
        return then({});
    auto open = std::make_shared<int>(static_cast<int>(all.size()));
    for (const WireWrite& w : all)
        write_and_check(w, [this, open, then](bool, const QString&) {
            if (--*open == 0)
                then(forced_.empty() ? tr("Every output that was forced from here is on AUTO again.") : tr("Not every output is back on AUTO. %1").arg(stays_on().join(QLatin1Char(' '))));
        });
}

void WireLink::release()
{
    armed_ = false;
    release_wanted_ = state_ == State::lost && !forced_.empty();
    if (state_ == State::joined && !forced_.empty())
        release_then([this](const QString& words) {
            emit said(words);
            emit changed();
        });
    else
        emit changed();
}

} // namespace vernal
