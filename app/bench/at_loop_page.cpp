#include "at_loop_page.h"

#include "bench_parts.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"

#include <QComboBox>
#include <QDateTime>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPrinter>
#include <QPushButton>
#include <QScrollArea>
#include <QTextDocument>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

QLabel* words(const char* name)
{
    QLabel* l = wrapped_label(name);
    l->setTextInteractionFlags(Qt::TextSelectableByMouse);
    return l;
}

QWidget* card_of(const QString& title, QLayout* form, QLabel* says, QWidget* more)
{
    auto* card = bench_card();
    auto* in = new QVBoxLayout(card);
    in->setContentsMargins(12, 8, 12, 10);
    in->setSpacing(8);
    in->addWidget(heading(title));
    in->addLayout(form);
    in->addWidget(says);
    in->addStretch(1);
    if (more)
        in->addWidget(more);
    auto* scroll = new QScrollArea;
    scroll->setWidget(card);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->viewport()->setAutoFillBackground(false);
    return scroll;
}

QFormLayout* form()
{
    auto* f = new QFormLayout;
    f->setContentsMargins(0, 0, 0, 0);
    f->setSpacing(5);
    return f;
}

// "5.3 … 7.1 L/min"
QString range_of(const Band& b, Quantity q, const Units& u)
{
    QString low = text(b.low, q, u);
    const QString unit = qs(unit_name(q, u));
    if (!unit.isEmpty() && low.endsWith(unit))
        low = low.chopped(unit.size()).trimmed();
    return QStringLiteral("%1 … %2").arg(low, text(b.high, q, u));
}

void empty(NumberEdit& edit)
{
    edit.clear();
    edit.setModified(false); // nothing was typed that is still to be taken
}

} // namespace

AtLoopPage::AtLoopPage(Session& session, const Dialogs& dialogs, QWidget* parent) : QWidget(parent), session_(session), dialogs_(dialogs)
{
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(10);
    row->addWidget(make_expect(), 1);
    row->addWidget(make_read(), 1);
    row->addWidget(make_pump(), 1);
    for (auto signal : {&Document::changed, &Document::view_changed})
        connect(&session.document(), signal, this, &AtLoopPage::refresh);
    connect(&session, &Session::units_changed, this, [this] { // what nobody typed stays empty
        for (NumberEdit* e : {litres_, seconds_, supply_, return_, sun_, area_, volt_, current_, gauge_})
            if (!typed_.contains(e))
                empty(*e);
        refresh();
    });
}

std::optional<double> AtLoopPage::typed(NumberEdit* edit) const { return typed_.contains(edit) ? std::optional(edit->value()) : std::nullopt; }

NumberEdit* AtLoopPage::add_number(QFormLayout& f, const char* key, const QString& label, Quantity q, double low, double high)
{
    auto* edit = new NumberEdit(session_, NumberField{key, "", q, low, high, ""});
    edit->setObjectName(QStringLiteral("now.%1").arg(QLatin1String(key)));
    edit->setAccessibleName(label);
    f.addRow(label, edit);
    connect(edit, &NumberEdit::edited, this, [this, edit] {
        typed_.insert(edit);
        refresh();
    });
    connect(edit, &QLineEdit::textEdited, this, [this, edit](const QString& now) {
        if (!now.trimmed().isEmpty())
            return;
        edit->setModified(false); // empty is an answer here, nothing that is still to be taken
        if (typed_.erase(edit) > 0)
            refresh();
    });
    return edit;
}

QWidget* AtLoopPage::make_expect()
{
    auto* f = form();
    hour_ = add_number(*f, "hour", tr("Hour"), Quantity::time_of_day, 0, 24);
    sky_ = new QComboBox;
    sky_->setObjectName(QStringLiteral("now.sky"));
    sky_->setAccessibleName(tr("Sky"));
    sky_->addItems({tr("clear"), tr("thin haze: weak shadows"), tr("overcast")});
    haze_ = new QComboBox;
    haze_->setObjectName(QStringLiteral("now.haze"));
    haze_->setAccessibleName(tr("Air"));
    haze_->addItems({tr("mountain air"), tr("as usual"), tr("hazy"), tr("smoke")});
    haze_->setCurrentIndex(1);
    f->addRow(tr("Sky"), sky_);
    f->addRow(tr("Air is"), haze_);
    air_ = add_number(*f, "air", tr("Air at"), Quantity::temperature, -40, 60);
    store_ = add_number(*f, "store", tr("Store at"), Quantity::temperature, 0, 120);
    for (QComboBox* box : {sky_, haze_})
        connect(box, &QComboBox::activated, this, &AtLoopPage::refresh);
    expected_ = words("expectedNow");
    auto* acts = new QWidget;
    auto* in = new QHBoxLayout(acts);
    in->setContentsMargins(0, 0, 0, 0);
    auto* far = new QPushButton(tr("From afar"));
    far->setObjectName(QStringLiteral("farView"));
    far->setToolTip(tr("One huge number of the bench, a tone at each switching, Space for the stop-watch"));
    auto* paper = new QPushButton(tr("On paper …"));
    paper->setObjectName(QStringLiteral("nowOnPaper"));
    paper->setToolTip(tr("What is expected beside empty boxes, to fill in at the loop and type back here"));
    in->addWidget(far);
    in->addWidget(paper);
    in->addStretch(1);
    connect(far, &QPushButton::clicked, this, &AtLoopPage::far_wanted);
    connect(paper, &QPushButton::clicked, this, &AtLoopPage::print);
    return card_of(tr("What it should show now"), f, expected_, acts);
}

QWidget* AtLoopPage::make_read()
{
    auto* f = form();
    litres_ = add_number(*f, "litres", tr("Bucket of"), Quantity::volume, 0.0005, 1);
    seconds_ = add_number(*f, "seconds", tr("full after"), Quantity::duration, 1, 7200);
    supply_ = add_number(*f, "supply", tr("To the array"), Quantity::temperature, -40, 200);
    return_ = add_number(*f, "return", tr("From the array"), Quantity::temperature, -40, 250);
    sun_ = add_number(*f, "sun", tr("Sun, by meter"), Quantity::irradiance, 0, 1500);
    area_ = add_number(*f, "area", tr("Array"), Quantity::area, 0.1, 2000);
    volt_ = add_number(*f, "volt", tr("Pump's volts"), Quantity::voltage, 0, 400);
    current_ = add_number(*f, "current", tr("its current"), Quantity::current, 0, 100);
    gauge_ = add_number(*f, "gauge", tr("Gauge"), Quantity::pressure, 0, 2.5e6);
    balance_ = words("balance");
    return card_of(tr("Which reading is wrong?"), f, balance_, nullptr);
}

QWidget* AtLoopPage::make_pump()
{
    auto* f = form();
    for (std::size_t l = 0; l < pump_looks; ++l) {
        const PumpLookText& t = pump_look_text(static_cast<PumpLook>(l));
        auto* box = new QComboBox;
        box->setObjectName(QStringLiteral("pump.%1").arg(QLatin1String(t.key)));
        box->setAccessibleName(tr(t.ask));
        box->addItem(tr("not seen"));
        for (const char* a : t.answers)
            box->addItem(tr(a));
        box->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed);
        looks_[l] = box;
        f->addRow(tr(t.ask), box);
        connect(box, &QComboBox::activated, this, &AtLoopPage::show_pump);
    }
    pump_ = words("pumpVerdict");
    return card_of(tr("What ails the pump?"), f, pump_, remark(tr("A pump must not run dry. Isolate and prove dead before a cover comes off; mains is a licensed person's work.")));
}

void AtLoopPage::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    if (!begun_) { // now, and the store as the day shows it at the cursor
        begun_ = true;
        const QTime now = QTime::currentTime();
        hour_->set_value(now.hour() + now.minute() / 60.0);
        const SkySpec& sky = session_.document().day().sky;
        air_->set_value((sky.air_min_c + sky.air_max_c) / 2);
        constexpr double tepid_c = 30; // no more than a beginning
        store_->set_value(tepid_c);
    }
    refresh();
}

NowGiven AtLoopPage::given() const
{
    constexpr std::array skies{Clouds::clear, Clouds::thin, Clouds::overcast};
    const QDate today = QDate::currentDate();
    NowGiven g;
    g.year = std::clamp(today.year(), 1950, 2050);
    g.month = today.month();
    g.day = today.day();
    g.hour = hour_->value();
    g.clouds = skies[static_cast<std::size_t>(std::clamp(sky_->currentIndex(), 0, 2))];
    g.haze = static_cast<Haze>(haze_->currentIndex());
    g.air_c = air_->value();
    g.store_c = store_->value();
    return g;
}

HourRead AtLoopPage::read() const
{
    HourRead r;
    const auto litres = typed(litres_), seconds = typed(seconds_);
    if (litres && seconds && *seconds > 0)
        r.flow_m3_s = *litres / *seconds;
    r.supply_c = typed(supply_);
    r.return_c = typed(return_);
    r.sun_w_m2 = typed(sun_);
    r.area_m2 = typed(area_);
    r.volt = typed(volt_);
    r.current_a = typed(current_);
    r.gauge_pa = typed(gauge_);
    return r;
}

void AtLoopPage::refresh()
{
    if (!isVisible())
        return;
    show_expected();
    show_balance();
    show_pump();
}

QString AtLoopPage::expected_html(bool to_fill_in) const
{
    const auto e = expect_now(session_.document().job(), session_.document().variant(), given());
    if (!e)
        return tr("No difference of two probes starts a pump here.");
    const Units& u = session_.units();
    QString rows;
    const auto row = [&](const QString& name, const Band& b, Quantity q) {
        rows += QStringLiteral("<tr><td>%1&nbsp;&nbsp;</td><td align=right><b>%2</b>&nbsp;&nbsp;</td><td>%3</td>%4</tr>").arg(name, text(b.mid, q, u), range_of(b, q, u), to_fill_in ? QStringLiteral("<td>&nbsp;&nbsp;____________</td>") : QString());
    };
    row(tr("sun on the array"), e->sun_w_m2, Quantity::irradiance);
    if (e->state != NowState::rests) {
        row(tr("flow"), e->flow_m3_s, Quantity::flow);
        row(tr("rise"), e->rise_k, Quantity::difference);
        row(tr("heat"), e->heat_w, Quantity::heat_rate);
        row(tr("pump takes"), e->power_w, Quantity::power);
        if (e->volt)
            row(tr("pump's volts"), *e->volt, Quantity::voltage);
        if (e->current_a)
            row(tr("its current"), *e->current_a, Quantity::current);
    }
    row(tr("array"), e->array_c, Quantity::temperature);
    if (e->gauge_pa)
        row(tr("gauge"), *e->gauge_pa, Quantity::pressure);
    if (e->next_h && e->state != NowState::either)
        row(e->state == NowState::runs ? tr("stops next") : tr("starts next"), *e->next_h, Quantity::time_of_day);
    const QString state = e->state == NowState::runs ? tr("It should run.") : e->state == NowState::rests ? tr("It should rest.")
                                                                                                          : tr("It may run or rest.");
    const QString lamps = tr("Its lamp for “runs” is %1.").arg(e->state == NowState::runs ? tr("on") : e->state == NowState::rests ? tr("off")
                                                                                                                                   : tr("on or off"));
    return QStringLiteral("<b>%1</b> %2 %3<table cellspacing=3>%4</table>").arg(state, e->because.empty() ? QString() : tr("Because %1.").arg(qs(e->because)), lamps, rows);
}

void AtLoopPage::show_expected()
{
    expected_->setText(expected_html(false));
}

void AtLoopPage::show_balance()
{
    const Balance b = balance(session_.document().job(), session_.document().variant(), given(), read());
    const Units& u = session_.units();
    if (!b.enough)
        return balance_->setText(tr("Type what was read while it ran, within one hour; the hour, the sky and the store stand at the left. What was not read stays empty."));
    if (b.agrees)
        return balance_->setText(tr("<b>All of it agrees</b> within what each leaves open."));
    const auto shown = [&](const OddReading& o, double x) {
        const bool temperature = o.name.find("emperature") != std::string::npos, sun = o.name.starts_with("sun");
        return text(x, temperature ? Quantity::temperature : sun                      ? Quantity::irradiance
                                                         : o.name.starts_with("flow") ? Quantity::flow
                                                         : o.name.starts_with("area") ? Quantity::area
                                                         : o.name == "gauge"          ? Quantity::pressure
                                                                                      : Quantity::current,
            u);
    };
    QStringList out;
    for (const OddReading& o : b.odd) {
        constexpr double worth_it = 0.03;
        if (o.sure < worth_it && !out.isEmpty())
            break;
        const QString name = QStringLiteral("<b>%1</b>, %2").arg(qs(o.name).toHtmlEscaped(), text(o.sure, Quantity::ratio, u));
        out << (std::isfinite(o.fits) ? tr("%1: it says %2, all others ask for %3.").arg(name, shown(o, o.read), shown(o, o.fits)) : tr("%1.").arg(name));
    }
    if (!b.one)
        out << tr("Even without it the rest does not agree: more than one is wrong, or the loop is not what is stated.");
    balance_->setText(QStringLiteral("<span style='color:%1'>%2</span> %3").arg(theme().protect.name(), tr("They do not agree."), out.join(QStringLiteral("<br>"))));
}

void AtLoopPage::show_pump()
{
    PumpSeen seen;
    bool any = false;
    for (std::size_t l = 0; l < pump_looks; ++l)
        if (const int i = looks_[l]->currentIndex(); i > 0) {
            seen[l] = i - 1;
            any = true;
        }
    const bool direct = arrangement_of(session_.document().variant().loop).answers.power != PoweredBy::mains;
    const PumpVerdict v = pump_verdict(seen, direct);
    QStringList out;
    constexpr std::size_t most = 3;
    constexpr double worth_it = 0.08;
    for (std::size_t c = 0; any && c < std::min(most, v.causes.size()); ++c) {
        const PumpCause& cause = v.causes[c];
        if (cause.sure < worth_it && c > 0)
            break;
        out << QStringLiteral("<b>%1</b>, %2. %3.%4").arg(tr(cause.title.c_str()), text(cause.sure, Quantity::ratio, session_.units()), tr(cause.what_to_do.c_str()), cause.caution.empty() ? QString() : QStringLiteral(" <span style='color:%1'>%2</span>").arg(theme().caution.name(), tr(cause.caution.c_str())));
    }
    if (v.next)
        out << tr("Look at next: %1.").arg(tr(pump_look_text(*v.next).ask).toLower());
    pump_->setText(out.join(QStringLiteral("<br>")));
}

void AtLoopPage::print()
{
    QPrinter printer;
    if (!dialogs_.printer(this, printer))
        return;
    const Job& job = session_.document().job();
    QTextDocument page;
    page.setDefaultFont(text_font(11));
    page.setHtml(tr("<h2>%1</h2><p>%2, %3</p><p>Hour %4, sky %5, air %6, store %7</p>%8<p>Read: bucket ______ full after ______ s; to the array ______; from the array ______; gauge ______; pump's volts ______, current ______</p><p>Hum, shaft, flow, motor dry: ______________________</p><p>Steam and hot water: a hot loop stays shut. Mains is a licensed person's work. The maker's manual and local codes hold.</p>")
                     .arg(qs(job.title).toHtmlEscaped(), qs(job.site.customer).toHtmlEscaped(), QLocale().toString(QDate::currentDate(), QLocale::ShortFormat), hour_->text(), sky_->currentText(), air_->text(), store_->text(), expected_html(true)));
    page.print(&printer);
}

} // namespace vernal
