// A unit on the wire: the window against the stand-in as a program, the link against a stand-in that
// answers ill, and against an independent server (libmodbus).
#include "app/bench/bench_station.h"
#include "app/wire/wire_page.h"
#include "core/job/field_path.h"
#include "fixture.h"
#include "link/map_file.h"
#include "tests/link/served.h"

#include <QCheckBox>
#include <QComboBox>
#include <QElapsedTimer>
#include <QLineEdit>
#include <QListWidget>
#include <QSpinBox>
#include <QTabBar>

#include <arpa/inet.h>
#include <fcntl.h>
#include <modbus/modbus.h>
#include <poll.h>
#include <termios.h>
#include <unistd.h>

using namespace vernal;

namespace {

using State = WireLink::State;

// How long the window's thread was not to be had.
class Heart : public QObject {
public:
    Heart()
    {
        since_.start();
        startTimer(5, Qt::PreciseTimer);
    }
    qint64 longest_ms = 0;

protected:
    void timerEvent(QTimerEvent*) override { longest_ms = std::max(longest_ms, since_.restart()); }

private:
    QElapsedTimer since_;
};

// Ten times the goal, beside other tests on two cores; by hand the figure itself is printed.
constexpr qint64 stall_ms = 1000;

bool wait_for(const std::function<bool()>& what, int ms = 15000) { return QTest::qWaitFor(what, ms); }

RegisterMap quick(const Variant& v)
{
    RegisterMap map = fresh_map(v, 300);
    map.wait_s = 0.3;
    return map;
}

WireAddress address_of(const Served& s)
{
    WireAddress a;
    a.tcp = s.port > 0;
    a.port = s.port;
    a.terminal = QString::fromStdString(s.path);
    a.parity = WireAddress::Parity::none;
    return a;
}

// Everything that was said and written.
struct Heard {
    explicit Heard(WireLink& link)
    {
        QObject::connect(&link, &WireLink::said, [this](const QString& w) { said << w; });
        QObject::connect(&link, &WireLink::left, [this](const QString& w) { left << w; });
        QObject::connect(&link, &WireLink::wrote, [this](const WireWrite&, bool stands, const QString& w) { wrote << (stands ? QStringLiteral("stands: ") : QStringLiteral("not: ")) + w; });
    }
    QStringList said, left, wrote;
};

WireWrite start_write(const WireLink& link, const Job& job, double k)
{
    Job wanted = job;
    for (const Rule& r : job.variants.front().unit.rules)
        if (kind_of(r).key == std::string("differential"))
            (void)set_setting(wanted, 0, "rule/" + r.id + "/on_k", k);
    const auto d = wire_differences(link.map(), link.image(), wanted, 0, {});
    return d.empty() || !d.front().write ? WireWrite{} : *d.front().write;
}

double start_of(const Variant& v)
{
    for (const Rule& r : v.unit.rules)
        if (const auto* d = std::get_if<Differential>(&r.body))
            return d->on.in_kelvin();
    return NAN;
}

} // namespace

class WireWindowTest : public WindowFixture {
    Q_OBJECT
private slots:
    void from_the_stand_in_to_a_log_among_the_days();
    void what_is_wrong_is_said_and_nothing_is_written_unarmed();
    void leaving_returns_outputs_to_auto();
    void however_it_answers_it_ends_in_a_clear_state_data();
    void however_it_answers_it_ends_in_a_clear_state();
    void what_was_forced_is_returned_when_the_link_is_back();
    void works_with_an_independent_server();
    void a_map_is_kept_with_the_job();
    void a_procedure_reads_the_unit_and_waits_for_hands();

private:
    WirePage& page() { return *window->findChild<WirePage*>(); }
    void show_page()
    {
        open_demo();
        settle();
        window->show_station(station_index("bench"));
        window->findChild<BenchStation*>()->show_page(BenchStation::Page::wire);
        laid_out();
    }
};

void WireWindowTest::from_the_stand_in_to_a_log_among_the_days()
{
    show_page();
    WireLink& link = page().link();
    QVERIFY2(!StandInProcess::program().isEmpty(), "vernal-relay-rig is not built");
    click("Start a stand-in");
    QVERIFY(wait_for([&] { return link.state() == State::joined; }));
    auto* readings = find<QTableWidget>("wireReadings");
    QVERIFY(readings->rowCount() >= 5);
    QVERIFY(readings->item(0, 1)->text().contains(QStringLiteral("°C")));
    QVERIFY(find<QLabel>("wireDiffers")->text().contains(QStringLiteral("set as")));

    // A wrong setting at the unit is found, shown before it is written, written and read back.
    page().card().stand_in().say(QStringLiteral("fault start_high"));
    QVERIFY(wait_for([&] {
        click("Read anew");
        QTest::qWait(100);
        return find<QLabel>("wireDiffers")->text().contains(QStringLiteral("Otherwise"));
    }));
    const auto ticks = window->findChildren<QCheckBox*>(QRegularExpression(QStringLiteral("^wire/rule/.*/on_k$")));
    QCOMPARE(ticks.size(), 1);
    QVERIFY(!find<QPushButton>("wireWrite")->isEnabled());
    QTest::mouseClick(find<QCheckBox>("wireArm"), Qt::LeftButton);
    ticks.front()->click();
    QVERIFY(find<QPushButton>("wireWrite")->isEnabled());

    // As found first, so that it stands in the job.
    click("As found, as a variant");
    const Variant& found = job().variants.back();
    QVERIFY(start_of(found) > start_of(document().variant()) + 2);
    QVERIFY(found.name.find("as found") == 0);

    const auto again = window->findChildren<QCheckBox*>(QRegularExpression(QStringLiteral("^wire/rule/.*/on_k$")));
    QCOMPARE(again.size(), 1);
    again.front()->setChecked(true);
    click("Write the chosen …");
    QVERIFY(find<QLabel>("wireAsks")->text().contains(QStringLiteral("holding register")));
    click("Write it");
    QVERIFY(wait_for([&] { return find<QLabel>("wireSaid")->text().contains(QStringLiteral("Written and read back")); }));
    QVERIFY(wait_for([&] { return find<QLabel>("wireDiffers")->text().contains(QStringLiteral("set as")); }));

    const std::size_t days = job().days.size();
    click("Its log into Days");
    QVERIFY(wait_for([&] { return job().days.size() > days; }));
    QCOMPARE(job().days.back().kind, DayKind::recorded);
    const Trace& log = *job().traces.at(job().days.back().trace);
    QVERIFY(log.time_s.size() > 700);
    QVERIFY(log.find("collector") && log.find("P1"));

    // The one key, armed or not.
    QTest::mouseClick(find<QCheckBox>("wireArm"), Qt::LeftButton);
    QVERIFY(!link.armed());
    QTest::keyClick(window.get(), Qt::Key_F9);
    QVERIFY(wait_for([&] { return find<QLabel>("wireSaid")->text().contains(QStringLiteral("All outputs are OFF")); }));
    QCOMPARE(link.forced().size(), std::size_t{1});

    // Going to another page returns it.
    window->findChild<BenchStation*>()->show_page(BenchStation::Page::rig);
    QVERIFY(wait_for([&] { return link.forced().empty(); }));
    window->findChild<BenchStation*>()->show_page(BenchStation::Page::wire);
    click("Leave");
    QVERIFY(wait_for([&] { return link.state() == State::apart; }));
    click("Stop the stand-in");
    QVERIFY(wait_for([&] { return !page().card().stand_in().runs(); }));
}

void WireWindowTest::what_is_wrong_is_said_and_nothing_is_written_unarmed()
{
    const Job demo = *open_job(VERNAL_DEMO "/job.json");
    Served served(demo, false, quick(demo.variants.front()));
    WireLink link;
    Heard heard(link);
    WireAddress nowhere;
    nowhere.port = 1; // nobody listens there
    link.join(quick(demo.variants.front()), nowhere);
    QVERIFY(wait_for([&] { return link.state() == State::apart && !heard.said.isEmpty(); }));
    QVERIFY2(heard.said.last().contains(QStringLiteral("could not be joined")), qPrintable(heard.said.last()));

    RegisterMap other = quick(demo.variants.front());
    other.station = 7;
    MapRegister& r = other.registers.front();
    r.address = 60000; // which the unit has not
    link.join(other, address_of(served));
    QVERIFY(wait_for([&] { return link.state() == State::apart && heard.said.size() > 1; }));
    other.station = 1;
    link.join(other, address_of(served));
    QVERIFY(wait_for([&] { return link.state() == State::joined; }));
    QVERIFY2(heard.said.join(' ').contains(QStringLiteral("refuses input register 60000: it has no such address")), qPrintable(heard.said.join('\n')));

    WireWrite w = start_write(link, demo, 11);
    QVERIFY(!w.words.empty());
    link.write(w);
    QCOMPARE(heard.wrote.size(), 1);
    QVERIFY(heard.wrote.last().contains(QStringLiteral("read-only")));
    QCOMPARE(served.variant().unit, demo.variants.front().unit);
    link.arm(true);
    w.at = 0; // a reading
    link.write(w);
    QVERIFY(heard.wrote.last().contains(QStringLiteral("cannot be written")));
    QTest::qWait(200);
    QCOMPARE(served.variant().unit, demo.variants.front().unit);
}

void WireWindowTest::leaving_returns_outputs_to_auto()
{
    const Job demo = *open_job(VERNAL_DEMO "/job.json");
    for (const bool pty : {false, true}) {
        Served served(demo, pty, quick(demo.variants.front()));
        WireLink link;
        Heard heard(link);
        link.join(quick(demo.variants.front()), address_of(served));
        QVERIFY2(wait_for([&] { return link.state() == State::joined; }), qPrintable(heard.said.join('\n')));
        link.arm(true);
        link.write(*mode_write(link.map(), link.image(), "P1", Mode::on));
        QVERIFY(wait_for([&] { return !heard.wrote.isEmpty(); }));
        QVERIFY2(heard.wrote.last().startsWith(QStringLiteral("stands")), qPrintable(heard.wrote.last()));
        QCOMPARE(served.variant().unit.outputs.front().mode, Mode::on);
        QVERIFY(link.stays_on().join(' ').contains(QStringLiteral("P1 stays ON")));
        if (pty) {
            link.leave();
            QVERIFY(wait_for([&] { return link.state() == State::apart; }));
            QVERIFY(heard.left.last().contains(QStringLiteral("AUTO again")));
        } else {
            link.leave_and_wait(); // as a window that closes
            QCOMPARE(link.state(), State::apart);
        }
        QCOMPARE(served.variant().unit.outputs.front().mode, Mode::automatic);
    }
}

void WireWindowTest::however_it_answers_it_ends_in_a_clear_state_data()
{
    QTest::addColumn<QString>("ill");
    QTest::addColumn<bool>("pty");
    for (const char* ill : {"lost", "slow 0.2", "slow 0.8", "cut-short", "cut-short 1", "wrong-crc", "wrong-crc 1", "flooding", "flooding 1", "reordered", "reordered 1", "busy", "busy 1", "garbled 1", "lost 1"})
        for (const bool pty : {false, true})
            QTest::addRow("%s, %s", ill, pty ? "terminal" : "network") << QString::fromLatin1(ill) << pty;
}

// A write in the midst of it: the unit holds what was there or what was to be written, and nothing
// else has moved; what is said agrees with what stands there, or says that nobody knows.
void WireWindowTest::however_it_answers_it_ends_in_a_clear_state()
{
    QFETCH(QString, ill);
    QFETCH(bool, pty);
    const Job demo = *open_job(VERNAL_DEMO "/job.json");
    Served served(demo, pty, quick(demo.variants.front()));
    WireLink link;
    Heard heard(link);
    link.join(quick(demo.variants.front()), address_of(served));
    QVERIFY2(wait_for([&] { return link.state() == State::joined; }), qPrintable(heard.said.join('\n')));
    link.arm(true);
    const double was = start_of(served.variant()), to = was + 3;
    const WireWrite w = start_write(link, demo, to);
    QVERIFY(!w.words.empty());
    Heart heart;
    QCOMPARE(QString::fromStdString(served.obeys(ill.toStdString())), QStringLiteral("done"));
    if (link.state() == State::joined)
        link.write(w);
    QVERIFY2(wait_for([&] { return !heard.wrote.isEmpty(); }), "nothing was said of the write");
    QVERIFY(wait_for([&] { return link.state() == State::lost || (link.state() == State::joined && !link.under_way()); }));
    const double now = start_of(served.variant());
    QVERIFY2(std::abs(now - was) < 1e-6 || std::abs(now - to) < 1e-6, qPrintable(QString::number(now)));
    Variant but_for_it = served.variant();
    for (Rule& r : but_for_it.unit.rules)
        if (auto* d = std::get_if<Differential>(&r.body))
            d->on = TempDiff::kelvin(was);
    QCOMPARE(but_for_it.unit, demo.variants.front().unit);
    QCOMPARE(heard.wrote.size(), 1);
    if (heard.wrote.first().startsWith(QStringLiteral("stands")))
        QVERIFY(std::abs(now - to) < 1e-6);
    if (heard.wrote.first().contains(QStringLiteral("stands as before")))
        QVERIFY(std::abs(now - was) < 1e-6);
    QVERIFY2(!ill.endsWith(QStringLiteral(" 1")) || ill.startsWith(QStringLiteral("lost")) || ill.startsWith(QStringLiteral("busy")) || heard.wrote.first().startsWith(QStringLiteral("stands")), qPrintable(heard.wrote.first())); // one bad answer is got over
    if (link.state() == State::lost) {
        QVERIFY2(heard.said.join(' ').contains(QStringLiteral("LINK LOST")), qPrintable(heard.said.join('\n')));
        QVERIFY(!link.armed());
    }
    QVERIFY2(heart.longest_ms < stall_ms, qPrintable(QString::number(heart.longest_ms)));
    qInfo("longest stall %lld ms; %s", static_cast<long long>(heart.longest_ms), qPrintable(heard.wrote.join(QStringLiteral(" / ")) + QStringLiteral(" | ") + heard.said.mid(1).join(QStringLiteral(" / "))));
    // Once it answers well again, all is known again.
    served.obeys("well");
    QVERIFY(wait_for([&] { return link.state() == State::joined && link.whole(); }, 30000));
    link.read_settings();
    QVERIFY(wait_for([&] { return !link.under_way(); }));
    QVERIFY(wait_for([&] { return std::abs(start_of(as_found(link.map(), link.image(), demo, 0).variant) - now) < 1e-6; }));
    link.leave();
    QVERIFY(wait_for([&] { return link.state() == State::apart; }));
}

// The person has gone to another page while the link was lost; the unit comes back slowly.
void WireWindowTest::what_was_forced_is_returned_when_the_link_is_back()
{
    const Job demo = *open_job(VERNAL_DEMO "/job.json");
    RegisterMap map = quick(demo.variants.front());
    map.wait_s = 1;
    Served served(demo, false, map);
    WireLink link;
    Heard heard(link);
    link.join(map, address_of(served));
    QVERIFY(wait_for([&] { return link.state() == State::joined; }));
    link.arm(true);
    link.write(*mode_write(link.map(), link.image(), "P1", Mode::on));
    QVERIFY(wait_for([&] { return !heard.wrote.isEmpty(); }));
    served.obeys("lost");
    QVERIFY(wait_for([&] { return link.state() == State::lost; }));
    QVERIFY2(heard.said.last().contains(QStringLiteral("P1 stays ON, as it was put from here")), qPrintable(heard.said.last()));
    link.release();
    served.obeys("slow 0.4"); // all of it takes longer than it is tried again
    QVERIFY(wait_for([&] { return link.state() == State::joined && link.forced().empty(); }, 30000));
    QCOMPARE(served.variant().unit.outputs.front().mode, Mode::automatic);
}

// Two pseudo-terminals, what is written to the one is read at the other: a cable between the window and
// a server that needs a terminal of its own.
class Cable {
public:
    Cable()
    {
        for (std::size_t end = 0; end < 2; ++end) {
            ours_[end] = ::posix_openpt(O_RDWR | O_NOCTTY);
            ::grantpt(ours_[end]);
            ::unlockpt(ours_[end]);
            std::array<char, 128> name{};
            ::ptsname_r(ours_[end], name.data(), name.size());
            paths[end] = name.data();
            theirs_[end] = ::open(name.data(), O_RDWR | O_NOCTTY);
            termios raw{};
            ::tcgetattr(theirs_[end], &raw);
            ::cfmakeraw(&raw);
            ::tcsetattr(theirs_[end], TCSANOW, &raw);
        }
        carries_ = std::jthread([this](const std::stop_token& stop) {
            while (!stop.stop_requested()) {
                std::array<pollfd, 2> ready{{{ours_[0], POLLIN, 0}, {ours_[1], POLLIN, 0}}};
                constexpr int look_ms = 20;
                if (::poll(ready.data(), 2, look_ms) <= 0)
                    continue;
                for (std::size_t end = 0; end < 2; ++end) {
                    std::array<char, 512> bytes{};
                    if ((ready[end].revents & POLLIN) != 0)
                        if (const auto n = ::read(ours_[end], bytes.data(), bytes.size()); n > 0)
                            (void)!::write(ours_[1 - end], bytes.data(), static_cast<std::size_t>(n));
                }
            }
        });
    }
    ~Cable()
    {
        carries_.request_stop();
        carries_.join();
        for (const int fd : {ours_[0], ours_[1], theirs_[0], theirs_[1]})
            ::close(fd);
    }
    std::array<std::string, 2> paths;

private:
    std::array<int, 2> ours_{}, theirs_{};
    std::jthread carries_;
};

// libmodbus with tables of its own: the job's settings, S1 at 61.5 °C, the switch on AUTO.
class Independent {
public:
    Independent(const Job& job, const RegisterMap& map, const std::string& terminal)
    {
        constexpr int baud = 19200, bits = 8;
        server_ = terminal.empty() ? modbus_new_tcp("127.0.0.1", 0) : modbus_new_rtu(terminal.c_str(), baud, 'N', bits, 1);
        modbus_set_slave(server_, map.station);
        tables = modbus_mapping_new(size, size, size, size);
        for (const MapRegister& r : map.registers) {
            const std::string path = setting_path(r, job.variants.front());
            if (!of_rule(r.is) || path.empty())
                continue;
            const auto s = setting_at(job, 0, path);
            if (r.is == RegisterIs::in_use) {
                tables->tab_bits[r.address] = s->value == "true";
                continue;
            }
            const auto words = words_for(r.type, *raw_for(r, std::stod(s->value), s->quantity), false);
            std::copy(words->begin(), words->end(), tables->tab_registers + r.address);
        }
        const auto mode = std::find_if(map.registers.begin(), map.registers.end(), [](const MapRegister& r) { return r.is == RegisterIs::mode; });
        tables->tab_registers[mode->address] = 1;
        tables->tab_input_registers[map.registers.front().address] = 615;
        if (terminal.empty()) {
            listener_ = modbus_tcp_listen(server_, 1);
            sockaddr_in at{};
            socklen_t length = sizeof at;
            ::getsockname(listener_, reinterpret_cast<sockaddr*>(&at), &length);
            port = ntohs(at.sin_port);
        } else {
            modbus_connect(server_);
        }
        serves_ = std::jthread([this](const std::stop_token& stop) {
            if (listener_ >= 0)
                modbus_tcp_accept(server_, &listener_);
            std::array<std::uint8_t, MODBUS_TCP_MAX_ADU_LENGTH> query{};
            modbus_set_indication_timeout(server_, 0, 100000);
            while (!stop.stop_requested()) {
                const int n = modbus_receive(server_, query.data());
                if (n > 0)
                    modbus_reply(server_, query.data(), n, tables);
                else if (n < 0 && errno == ECONNRESET)
                    break;
            }
        });
    }
    ~Independent()
    {
        serves_.request_stop();
        serves_.join();
        modbus_close(server_);
        if (listener_ >= 0)
            ::close(listener_);
        modbus_mapping_free(tables);
        modbus_free(server_);
    }
    static constexpr int size = 3000;
    modbus_mapping_t* tables = nullptr;
    int port = 0;

private:
    modbus_t* server_ = nullptr;
    int listener_ = -1;
    std::jthread serves_;
};

void WireWindowTest::works_with_an_independent_server()
{
    const Job demo = *open_job(VERNAL_DEMO "/job.json");
    RegisterMap map = quick(demo.variants.front());
    for (const bool serial : {false, true}) {
        const std::unique_ptr<Cable> cable = serial ? std::make_unique<Cable>() : nullptr;
        Independent server(demo, map, serial ? cable->paths[0] : std::string());
        WireLink link;
        Heard heard(link);
        WireAddress to;
        to.tcp = !serial;
        to.port = server.port;
        to.terminal = serial ? QString::fromStdString(cable->paths[1]) : QString();
        to.baud = 19200;
        to.parity = WireAddress::Parity::none;
        link.join(map, to);
        QVERIFY2(wait_for([&] { return link.state() == State::joined; }), qPrintable(heard.said.join('\n')));
        QCOMPARE(as_found(map, link.image(), demo, 0).variant, demo.variants.front());
        QVERIFY(std::abs(value_of(map, map.registers.front(), link.image(), Quantity::temperature) - 61.5) < 1e-9);
        const auto all = [&] { return std::vector<std::uint16_t>(server.tables->tab_registers, server.tables->tab_registers + Independent::size); };
        const auto before = all();
        const WireWrite w = start_write(link, demo, start_of(demo.variants.front()) + 2);
        link.arm(true);
        link.write(w);
        QVERIFY(wait_for([&] { return !heard.wrote.isEmpty(); }));
        QVERIFY2(heard.wrote.last().startsWith(QStringLiteral("stands")), qPrintable(heard.wrote.last()));
        const auto after = all();
        int moved = 0;
        for (std::size_t i = 0; i < before.size(); ++i)
            moved += before[i] != after[i];
        QCOMPARE(moved, 1);
        QCOMPARE(static_cast<double>(after[static_cast<std::size_t>(map.registers[w.at].address)]), w.to);
        link.leave();
        QVERIFY(wait_for([&] { return link.state() == State::apart; }));
    }
}

void WireWindowTest::a_map_is_kept_with_the_job()
{
    show_page();
    RegisterMap map = fresh_map(document().variant());
    map.name = "Machine room";
    const auto broken = page().card().take_map(QStringLiteral("x.map.json"), "{\n\"format\": 1}");
    QVERIFY(broken.has_value());
    QVERIFY(broken->text().find("x.map.json") != std::string::npos);
    QVERIFY(!page().card().take_map(QStringLiteral("x.map.json"), write_register_map(map)));
    QCOMPARE(find<QComboBox>("wireMap")->currentText(), QStringLiteral("Machine room"));
    QVERIFY(page().card().map() == map);
    document().undo_stack().undo();
    QVERIFY(find<QComboBox>("wireMap")->currentText() != QStringLiteral("Machine room"));
}

// Ice water and a cup under a person's hands, read over the wire; the stand-in's wires are moved as told.
void WireWindowTest::a_procedure_reads_the_unit_and_waits_for_hands()
{
    show_page();
    click("Start a stand-in");
    WireLink& link = page().link();
    QVERIFY(wait_for([&] { return link.state() == State::joined; }));
    auto& station = *window->findChild<BenchStation*>();
    station.show_page(BenchStation::Page::rig);
    laid_out();
    auto* list = find<QListWidget>("procedure");
    for (int i = 0; i < list->count(); ++i)
        if (list->item(i)->data(Qt::UserRole).toString() == QStringLiteral("broken-and-shorted"))
            list->setCurrentRow(i);
    auto* at_unit = find<QCheckBox>("readAtUnit");
    QVERIFY(at_unit->isVisible());
    QTest::mouseClick(at_unit, Qt::LeftButton);
    click("Begin");
    const ProcedureRun& run = *station.model().run();
    QVERIFY(run.is_on_unit());
    QVERIFY(wait_for([&] { return find<QLabel>("benchAsks")->text().contains(QStringLiteral("switch of P1 to AUTO")); }));
    QVERIFY(find<QPushButton>("answerYes")->isVisible());
    QCOMPARE(find<QPushButton>("answerYes")->text(), QStringLiteral("Done"));
    QVERIFY(!find<QPushButton>("answerNo")->isVisible());
    // The unit goes away in the midst of it: the procedure is left, and told so.
    page().card().stand_in().say(QStringLiteral("lost 1"));
    QVERIFY(wait_for([&] { return !station.model().run(); }));
    QVERIFY(find<QLabel>("benchVerdict")->text().contains(QStringLiteral("link to the unit was lost")));
    QVERIFY(wait_for([&] { return link.state() == State::joined; }));
    QVERIFY(wait_for([&] { return find<QPushButton>("resumeProcedure")->isVisible(); }));
    click("Resume");
    QVERIFY(station.model().run() && station.model().run()->is_on_unit());
    find<QLineEdit>("notPossibleReason")->setText(QStringLiteral("only trying"));
    while (station.model().run()->step() < station.model().run()->result().steps.size()) {
        find<QLineEdit>("notPossibleReason")->setText(QStringLiteral("only trying"));
        click("Not possible");
    }
    QVERIFY(!job().bench.empty());
    QCOMPARE(job().bench.back().read_at, ReadAt::wire);
}

int main(int argc, char** argv) { return run_window_test<WireWindowTest>(argc, argv); }
#include "wire_window_test.moc"
