#include "wire_card.h"

#include "app/bench/bench_parts.h"
#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "files/attachment.h"
#include "files/disk.h"
#include "link/map_file.h"

#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSerialPortInfo>
#include <QSignalBlocker>
#include <QSpinBox>
#include <QVBoxLayout>

namespace vernal {
namespace {

template <class W>
W* named(W* w, const char* name, const QString& says)
{
    w->setObjectName(QLatin1String(name));
    w->setAccessibleName(says);
    return w;
}

} // namespace

WireCard::WireCard(Session& session, const Dialogs& dialogs, WireLink& link, QWidget* parent) : QWidget(parent), session_(session), dialogs_(dialogs), link_(link)
{
    which_ = named(new QComboBox, "wireMap", tr("Register map"));
    which_->setToolTip(tr("Which address of the unit holds what; docs/register-maps.md has its file"));
    which_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    auto* open = named(new QPushButton(tr("From a file …")), "openMap", tr("Register map from a file"));
    auto* save = named(new QPushButton(tr("To a file …")), "saveMap", tr("Register map to a file"));
    join_ = named(new QPushButton(tr("Join")), "wireJoin", tr("Join the unit, or leave it"));
    state_ = wrapped_label("wireState");
    auto* files = new QHBoxLayout;
    files->addWidget(open, 1);
    files->addWidget(save, 1);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(6);
    box->addWidget(heading(tr("Unit")));
    box->addWidget(remark(tr("Register map")));
    box->addWidget(which_);
    box->addLayout(files);
    box->addWidget(make_address());
    box->addWidget(join_);
    box->addWidget(state_);
    box->addSpacing(8);
    box->addWidget(make_stand_in());
    box->addStretch(1);
    connect(open, &QPushButton::clicked, this, [this] {
        const auto error = take_own_file(this, tr("Open a register map"), tr("Register maps (*.json);;All files (*)"), [this](const QString& file, const std::string& text) { return take_map(file, text); });
        if (error)
            emit said(in_colour(theme().protect, qs(error->text())));
    });
    connect(save, &QPushButton::clicked, this, &WireCard::save_map);
    connect(join_, &QPushButton::clicked, this, [this] { link_.state() == WireLink::State::apart ? join() : link_.leave(); });
    connect(&link, &WireLink::changed, this, &WireCard::show_state);
    for (auto signal : {&Document::changed, &Document::view_changed})
        connect(&session.document(), signal, this, &WireCard::collect);
    connect(&session.document(), &Document::path_changed, this, [this] { // another job was opened: its unit is another
        if (session_.document().job().variants.front().id != joined_with_)
            link_.leave();
    });
    setFocusProxy(join_);
    collect();
    show_state();
}

QWidget* WireCard::make_address()
{
    by_ = named(new QComboBox, "wireBy", tr("Kind of line"));
    by_->addItems({tr("network (TCP)"), tr("serial line (RTU)")});
    host_ = named(new QLineEdit(QStringLiteral("127.0.0.1")), "wireHost", tr("Address"));
    port_ = named(new QSpinBox, "wirePort", tr("Port"));
    port_->setRange(1, 65535);
    port_->setValue(502);
    terminal_ = named(new QLineEdit, "wireTerminal", tr("Serial line"));
    terminal_->setPlaceholderText(tr("device file"));
    const auto ports = QSerialPortInfo::availablePorts();
    if (!ports.isEmpty())
        terminal_->setText(ports.front().systemLocation());
    baud_ = named(new QComboBox, "wireBaud", tr("Baud"));
    for (const int b : {1200, 2400, 4800, 9600, 19200, 38400, 57600, 115200})
        baud_->addItem(QString::number(b), b);
    baud_->setCurrentText(QStringLiteral("19200")); // the default of MODBUS over Serial Line V1.02, 3.2 (from memory)
    parity_ = named(new QComboBox, "wireParity", tr("Parity"));
    parity_->addItems({tr("no parity"), tr("even"), tr("odd")});
    parity_->setCurrentIndex(1);
    tcp_row_ = new QWidget;
    auto* tcp = new QHBoxLayout(tcp_row_);
    tcp->setContentsMargins(0, 0, 0, 0);
    tcp->addWidget(host_, 3);
    tcp->addWidget(port_, 2);
    serial_row_ = new QWidget;
    auto* serial = new QVBoxLayout(serial_row_);
    serial->setContentsMargins(0, 0, 0, 0);
    auto* line = new QHBoxLayout;
    line->addWidget(baud_, 1);
    line->addWidget(parity_, 1);
    serial->addWidget(terminal_);
    serial->addLayout(line);
    serial_row_->hide();
    auto* all = new QWidget;
    auto* box = new QVBoxLayout(all);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(6);
    box->addWidget(by_);
    box->addWidget(tcp_row_);
    box->addWidget(serial_row_);
    connect(by_, &QComboBox::currentIndexChanged, this, [this](int i) {
        tcp_row_->setVisible(i == 0);
        serial_row_->setVisible(i == 1);
    });
    return all;
}

QWidget* WireCard::make_stand_in()
{
    try_ = named(new QPushButton(tr("Start a stand-in")), "startStandIn", tr("Start a stand-in, or stop it"));
    try_->setToolTip(tr("A program that answers as this variant's unit and its loop would, on this computer only"));
    words_ = named(new QComboBox, "standInWords", tr("Words to the stand-in"));
    words_->setEditable(true);
    words_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    words_->addItems({QStringLiteral("show"), QStringLiteral("fault"), QStringLiteral("fault none"), QStringLiteral("lost 10"), QStringLiteral("slow 3 2"), QStringLiteral("garbled 1"), QStringLiteral("busy 1"), QStringLiteral("well"), QStringLiteral("speed 60"), QStringLiteral("speed 1"), QStringLiteral("help")});
    say_ = named(new QPushButton(tr("Say")), "saySomething", tr("Say it to the stand-in"));
    answered_ = wrapped_label("standInSaid");
    auto* row = new QHBoxLayout;
    row->addWidget(words_, 1);
    row->addWidget(say_);
    auto* all = new QWidget;
    auto* box = new QVBoxLayout(all);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(6);
    box->addWidget(heading(tr("For trying")));
    box->addWidget(try_);
    box->addLayout(row);
    box->addWidget(answered_);
    connect(try_, &QPushButton::clicked, this, [this] {
        if (stand_in_.runs()) {
            if (on_stand_in())
                link_.leave();
            return stand_in_.stop();
        }
        const Document& d = session_.document();
        stand_in_.start(d.job(), d.variant_index(), map(), 1);
        answered_->setText(tr("It starts …"));
    });
    connect(say_, &QPushButton::clicked, this, [this] {
        answered_->clear();
        stand_in_.say(words_->currentText());
    });
    connect(&stand_in_, &StandInProcess::listens, this, [this](int port) {
        answered_->setText(tr("It listens on port %1.").arg(port));
        joined_port_ = port;
        if (link_.state() != WireLink::State::apart) // the unit that is joined is not left for it
            return show_state();
        by_->setCurrentIndex(0);
        host_->setText(QStringLiteral("127.0.0.1"));
        port_->setValue(port);
        join();
    });
    connect(&stand_in_, &StandInProcess::failed, this, [this](const QString& why) { emit said(in_colour(theme().protect, why)); });
    connect(&stand_in_, &StandInProcess::answered, this, [this](const QString& words) {
        QStringList lines = answered_->text().split(QLatin1Char('\n'), Qt::SkipEmptyParts);
        lines << words;
        constexpr int most = 5;
        answered_->setText(lines.mid(std::max<qsizetype>(0, lines.size() - most)).join(QLatin1Char('\n')));
    });
    connect(&stand_in_, &StandInProcess::ended, this, [this] {
        answered_->clear();
        show_state();
    });
    return all;
}

bool WireCard::on_stand_in() const { return stand_in_.runs() && link_.state() != WireLink::State::apart && link_.address().tcp && link_.address().port == joined_port_; }

void WireCard::collect()
{
    maps_ = maps_of(session_.document().job());
    const QString was = which_->currentText();
    const QSignalBlocker quiet(which_);
    which_->clear();
    for (const RegisterMap& m : maps_)
        which_->addItem(qs(m.name));
    which_->addItem(tr("as the stand-in lays it out"));
    which_->setCurrentIndex(std::max(0, which_->findText(was)));
}

RegisterMap WireCard::map() const
{
    const int i = which_->currentIndex();
    return i >= 0 && static_cast<std::size_t>(i) < maps_.size() ? maps_[static_cast<std::size_t>(i)] : fresh_map(session_.document().variant());
}

std::optional<Error> WireCard::take_map(const QString& file, const std::string& text)
{
    const auto map = read_register_map(text, file.toStdString());
    if (!map)
        return map.error();
    const Attachment a = make_attachment(map_file_name(*map), write_register_map(*map));
    session_.document().edit(tr("Register map of %1").arg(qs(map->name)), [&](Job& j) { keep_attachment(j, a); });
    collect();
    which_->setCurrentIndex(std::max(0, which_->findText(qs(map->name))));
    return {};
}

void WireCard::save_map()
{
    const RegisterMap m = map();
    const QString path = dialogs_.save_as(this, qs(map_file_name(m)), tr("Register maps (*.json)"));
    if (path.isEmpty())
        return;
    const auto written = write_file_atomically(path.toStdString(), write_register_map(m));
    written ? emit said(tr("%1 written. Edit it to the unit at hand, then take it in from the file.").arg(path.toHtmlEscaped())) : dialogs_.tell(this, qs(written.error().text()));
}

WireAddress WireCard::typed() const
{
    WireAddress a;
    a.tcp = by_->currentIndex() == 0;
    a.host = host_->text().trimmed();
    a.port = port_->value();
    a.terminal = terminal_->text().trimmed();
    a.baud = baud_->currentData().toInt();
    a.parity = static_cast<WireAddress::Parity>(parity_->currentIndex());
    return a;
}

void WireCard::join()
{
    const WireAddress a = typed();
    if (a.tcp ? a.host.isEmpty() : a.terminal.isEmpty())
        return void(emit said(in_colour(theme().protect, a.tcp ? tr("An address is missing.") : tr("The device file of the serial line is missing, as the system lists it under /dev."))));
    joined_with_ = session_.document().job().variants.front().id;
    link_.join(map(), a);
}

void WireCard::show_state()
{
    using State = WireLink::State;
    const State s = link_.state();
    join_->setText(s == State::apart ? tr("Join") : tr("Leave"));
    for (QWidget* w : std::initializer_list<QWidget*>{which_, by_, host_, port_, terminal_, baud_, parity_})
        w->setEnabled(s == State::apart);
    const QString at = link_.address().text();
    switch (s) {
    case State::apart: state_->setText(tr("Nothing is joined.")); break;
    case State::joining: state_->setText(tr("Joining %1 …").arg(at.toHtmlEscaped())); break;
    case State::joined: state_->setText(in_colour(theme().accent, tr("Joined with %1, last heard %2").arg(at, link_.heard().toString(QStringLiteral("HH:mm:ss"))))); break;
    case State::lost: state_->setText(in_colour(theme().protect, tr("Link lost; last heard %1. It is tried again.").arg(link_.heard().toString(QStringLiteral("HH:mm:ss"))))); break;
    }
    try_->setText(stand_in_.runs() ? tr("Stop the stand-in") : tr("Start a stand-in"));
    words_->setEnabled(stand_in_.runs());
    say_->setEnabled(stand_in_.runs());
}

} // namespace vernal
