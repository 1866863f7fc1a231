#include "meter_bar.h"

#include "app/shell/theme.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>

#include <algorithm>

namespace vernal {
namespace {

QLineEdit* reading_edit(const char* name, const QString& says, int wide)
{
    auto* edit = new QLineEdit;
    edit->setObjectName(QLatin1String(name));
    edit->setAccessibleName(says);
    edit->setAlignment(Qt::AlignRight);
    edit->setFixedSize(wide, 32);
    return edit;
}

} // namespace

MeterBar::MeterBar(Session& session, CurveShelf& shelf, const std::size_t& shown, QWidget* parent) : QFrame(parent), session_(session), shelf_(shelf), shown_(shown), units_(session.units())
{
    setObjectName("card");
    auto* row = new QHBoxLayout;
    row->setSpacing(6);
    auto* asks = new QLabel(tr("<b>What do you read?</b>"));
    signal_ = reading_edit("meterSignal", tr("The meter shows"), 104);
    signal_->setPlaceholderText(tr("or OL"));
    unit_ = new QLabel;
    connected_ = new QComboBox;
    connected_->setObjectName("meterConnected");
    connected_->setAccessibleName(tr("Is the unit still connected?"));
    connected_->addItems({tr("disconnected"), tr("still connected")});
    connected_->setToolTip(tr("While the unit hangs on the probe its own resistor reads along."));
    beside_ = reading_edit("meterBeside", tr("A thermometer beside it shows"), 88);
    beside_->setPlaceholderText(tr("none"));
    row->addWidget(asks);
    row->addWidget(signal_);
    row->addWidget(unit_);
    row->addWidget(connected_);
    row->addWidget(new QLabel(tr("thermometer beside it")));
    row->addWidget(beside_);
    row->addStretch(1);
    says_ = new QLabel;
    says_->setObjectName("meterSays");
    says_->setWordWrap(true);
    says_->setMinimumHeight(36);
    says_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    says_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(12, 6, 12, 4);
    column->setSpacing(4);
    column->addLayout(row);
    column->addWidget(says_);
    for (QLineEdit* edit : {signal_, beside_})
        connect(edit, &QLineEdit::textEdited, this, &MeterBar::take);
    connect(connected_, &QComboBox::activated, this, &MeterBar::take);
    connect(&session, &Session::units_changed, this, &MeterBar::convert_beside);
    refresh();
}

const Probe& MeterBar::probe() const
{
    const auto& all = session_.document().variant().probes;
    return all[std::min(shown_, all.size() - 1)];
}

// Ids are alike in jobs of a kind.
std::string MeterBar::key() const { return session_.document().job().title + "\n" + session_.document().path().toStdString() + "\n" + probe().id; }

void MeterBar::take()
{
    typed_[key()] = {signal_->text(), beside_->text(), connected_->currentIndex() == 1};
    work();
}

// What was typed in the old unit is told in the new one.
void MeterBar::convert_beside()
{
    for (auto& [id, typed] : typed_)
        if (const auto c = parse(typed.beside.toStdString(), Quantity::temperature, units_); c && !typed.beside.isEmpty())
            typed.beside = text(*c, Quantity::temperature, session_.units());
    units_ = session_.units();
    refresh();
}

void MeterBar::refresh()
{
    const Typed typed = typed_[key()];
    const auto put = [](QLineEdit* edit, const QString& what) {
        if (edit->text() != what)
            edit->setText(what);
    };
    put(signal_, typed.signal);
    put(beside_, typed.beside);
    connected_->setCurrentIndex(typed.connected ? 1 : 0);
    connected_->setEnabled(is_resistance(probe().curve));
    unit_->setText(is_resistance(probe().curve) ? tr("Ω") : QString::fromUtf8(signal_unit(probe().curve)));
    work();
}

void MeterBar::work()
{
    answer_.reset();
    const auto tell = [this](const QString& what) {
        says_->setText(what);
        emit answered();
    };
    const Typed& typed = typed_[key()];
    if (typed.signal.trimmed().isEmpty())
        return tell(tr("<span style='color:%1'>Type what the meter shows on %2; the answer comes at once. Isolate the unit and prove it dead before you take a wire off.</span>").arg(theme().second_ink.name(), qs(probe().key + " " + probe().name).toHtmlEscaped()));
    const auto bad = [](const Error& e) { return QStringLiteral("<span style='color:%1'>■ %2</span>").arg(theme().protect.name(), qs(e.text()).toHtmlEscaped()); };
    const auto signal = meter_signal(typed.signal.toStdString(), probe().curve);
    if (!signal)
        return tell(bad(signal.error()));
    MeterReading reading{*signal, typed.connected, NAN};
    if (!typed.beside.trimmed().isEmpty()) {
        const auto beside = parse(typed.beside.toStdString(), Quantity::temperature, session_.units());
        if (!beside)
            return tell(bad(beside.error()));
        reading.beside_c = *beside;
    }
    const auto& v = session_.document().variant();
    answer_ = meter_answer(v, std::min(shown_, v.probes.size() - 1), reading, shelf_.book(), session_.units());
    const QString sign = !answer_->likely.empty() ? QStringLiteral("<span style='color:%1'>■</span> ").arg(theme().protect.name()) : answer_->sound() ? QStringLiteral("<span style='color:%1'>✓</span> ").arg(theme().accent.name())
                                                                                                                                                      : QString();
    tell(sign + QStringLiteral("<b>%1.</b> %2").arg(qs(answer_->reads).toHtmlEscaped(), qs(answer_->says).toHtmlEscaped()));
}

} // namespace vernal
