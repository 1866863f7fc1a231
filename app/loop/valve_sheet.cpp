#include "valve_sheet.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "loop_view.h"

#include <QAbstractTextDocumentLayout>
#include <QComboBox>
#include <QPainter>
#include <QTextDocument>
#include <QVBoxLayout>

namespace vernal {
namespace {

const Loop& loop_of(Session& s) { return s.document().variant().loop; }

std::string path_of(ServiceState s) { return std::string("loop/valves/") + state_keys[static_cast<std::size_t>(s)]; }

// How it leads while it runs is set at the heater.
bool fixed(const Arrangement& a, HandValve v, ServiceState s) { return s == ServiceState::run && is_of_heater(v) && a.has(Part::heater); }

// The positions to choose from; one only where nothing is chosen here.
std::vector<ValveStands> choices(const Loop& loop, HandValve v, ServiceState s) { return fixed(arrangement_of(loop), v, s) ? std::vector{stands(loop, v, s)} : can_stand(v, s); }

QString words_of(const Loop& loop, HandValve v, ServiceState s) { return QObject::tr(stands_text(stands(loop, v, s))); }

bool is_fitted(const Loop& loop, HandValve v) { return is_relief(v) || loop.valves.fitted.has[static_cast<std::size_t>(v)] == Fitted::yes; }

} // namespace

ValveSheet::ValveSheet(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    states_ = new QComboBox;
    states_->setObjectName("valveState");
    states_->setAccessibleName(tr("State"));
    for (std::size_t s = 0; s < service_states; ++s)
        states_->addItem(tr(state_title(static_cast<ServiceState>(s))));
    connect(states_, &QComboBox::activated, this, [this](int i) { choose(static_cast<ServiceState>(i)); });
    about_ = remark();
    flow_ = remark();
    flow_->setObjectName("valveFlow");
    rows_ = new FieldSheet(session);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(6);
    box->addWidget(states_);
    box->addWidget(about_);
    box->addWidget(flow_);
    box->addWidget(rows_);
    box->addWidget(remark(tr("Click a valve on the drawing to turn it. Hollow is open, filled is shut. Relief valves are never shut off.")));
    refresh();
}

void ValveSheet::choose(ServiceState state)
{
    state_ = state;
    shown_.clear();
    refresh();
    emit state_chosen(state);
}

void ValveSheet::make_rows()
{
    const Arrangement& a = arrangement_of(loop_of(session_));
    rows_->clear();
    rows_->set_path(path_of(state_));
    boxes_.clear();
    shown_ = valves_of(a);
    for (std::size_t i = 0; i < shown_.size(); ++i) {
        const HandValve v = shown_[i];
        QStringList names;
        for (const ValveStands s : choices(loop_of(session_), v, state_))
            names << tr(stands_text(s));
        if (!is_relief(v))
            names << tr("not fitted");
        QComboBox* choice = choice_row(
            *rows_, QStringLiteral("valve.") + QLatin1String(valve_keys[static_cast<std::size_t>(v)]), QStringLiteral("%1  %2").arg(i + 1).arg(tr(valve_text(v).title)), names, [this, v](int c) { put(v, c); }, valve_keys[static_cast<std::size_t>(v)]);
        if (FieldRow* row = FieldRow::of(choice))
            row->set_hint(fixed(a, v, state_) ? tr("While it runs, as the heater's valves lead: set at the heater") : tr(valve_text(v).about));
        boxes_.emplace_back(v, choice);
    }
}

void ValveSheet::put(HandValve v, int choice)
{
    const auto can = choices(loop_of(session_), v, state_);
    const bool gone = choice >= static_cast<int>(can.size());
    session_.document().edit_variant(tr("Valve: %1").arg(tr(valve_text(v).title)), [&, s = state_](Variant& variant) {
        variant.loop.valves.fitted.has[static_cast<std::size_t>(v)] = gone ? Fitted::no : Fitted::yes;
        if (!gone && can.size() > 1)
            set_stands(variant.loop, v, s, can[static_cast<std::size_t>(choice)]);
    });
}

void ValveSheet::turn(HandValve v)
{
    const auto can = choices(loop_of(session_), v, state_);
    if (can.size() < 2)
        return;
    const auto now = std::find(can.begin(), can.end(), stands(loop_of(session_), v, state_)) - can.begin();
    put(v, static_cast<int>((static_cast<std::size_t>(now) + 1) % can.size()));
}

void ValveSheet::refresh()
{
    const Loop& loop = loop_of(session_);
    const Arrangement& a = arrangement_of(loop);
    if (shown_ != valves_of(a) || shown_.empty())
        make_rows();
    states_->setCurrentIndex(static_cast<int>(state_));
    for (const auto& [v, box] : boxes_) {
        const auto can = choices(loop, v, state_);
        if (fixed(a, v, state_))
            box->setItemText(0, words_of(loop, v, state_));
        const auto now = std::find(can.begin(), can.end(), stands(loop, v, state_)) - can.begin();
        box->setCurrentIndex(is_fitted(loop, v) ? static_cast<int>(now) : box->count() - 1);
        if (FieldRow* row = FieldRow::of(box))
            row->set_usual(set_by_hand(loop, v, state_) && is_fitted(loop, v) ? tr("usual: %1").arg(tr(stands_text(usual_stands(a, v, state_, loop.heater.way)))) : QString());
    }
    if (shown_.empty()) {
        about_->setText(tr("An air loop has no hand valves for fluid."));
        flow_->clear();
        return;
    }
    about_->setText(qs(state_about(a, state_)));
    QString ways;
    for (const std::string& w : flow_in(loop, state_).words())
        ways += (ways.isEmpty() ? "" : "<br>") + qs(w).toHtmlEscaped();
    flow_->setText(ways.isEmpty() ? tr("Nothing flows.") : QStringLiteral("<b>%1</b>").arg(ways));
}

namespace {

QString table(const Loop& loop)
{
    const auto cell = [](const QString& s, bool bold = false) { return bold ? QStringLiteral("<td><b>%1</b></td>").arg(s.toHtmlEscaped()) : QStringLiteral("<td>%1</td>").arg(s.toHtmlEscaped()); };
    QString s = QStringLiteral("<table width='100%' cellspacing='0' cellpadding='2' border='1' style='border-collapse:collapse; border-color:#B8B2A4'><tr><th></th><th align='left'>%1</th>").arg(QObject::tr("Valve"));
    for (std::size_t k = 0; k < service_states; ++k)
        s += QStringLiteral("<th align='left'>%1</th>").arg(QObject::tr(state_title(static_cast<ServiceState>(k))));
    s += QStringLiteral("</tr>");
    int number = 0;
    for (const HandValve v : valves_of(arrangement_of(loop))) {
        ++number;
        if (!is_fitted(loop, v))
            continue;
        s += QStringLiteral("<tr>") + cell(QString::number(number)) + cell(QObject::tr(valve_text(v).title));
        for (std::size_t k = 0; k < service_states; ++k)
            s += cell(words_of(loop, v, static_cast<ServiceState>(k)), set_by_hand(loop, v, static_cast<ServiceState>(k)));
        s += QStringLiteral("</tr>");
    }
    return s + QStringLiteral("</table>");
}

} // namespace

bool paint_valve_board(QPaintDevice& device, const LoopView& view, Session& session)
{
    const Loop& loop = loop_of(session);
    const ServiceState state = view.board().value_or(ServiceState::run);
    const Arrangement& a = arrangement_of(loop);
    QPainter p;
    if (!p.begin(&device))
        return false;
    const QSizeF points(device.width() * 72.0 / device.logicalDpiX(), device.height() * 72.0 / device.logicalDpiY());
    p.scale(device.width() / points.width(), device.width() / points.width());
    QString ways;
    for (const std::string& w : flow_in(loop, state).words())
        ways += QStringLiteral("<br>") + qs(w).toHtmlEscaped();
    QTextDocument words;
    const QString title = QObject::tr("Valve board: %1").arg(qs(session.document().job().title));
    const QString html = QStringLiteral("<h3>%1</h3><p><b>%2.</b> %3%4</p><p>▲ %5 %7</p>%6").arg(title.toHtmlEscaped(), QObject::tr(state_title(state)), qs(state_about(a, state)).toHtmlEscaped(), ways, qs(state_caution(a, state)).toHtmlEscaped(), table(loop), QObject::tr("Follow the maker's manual and local codes."));
    words.setHtml(html);
    const double drawing_h = points.height() * 0.42, drawing_w = std::min(points.width(), drawing_h * 1.6);
    for (double size = 9.5; size >= 4; size -= 0.5) { // as large as what the drawing leaves bears
        QFont font = text_font(10);
        font.setPixelSize(static_cast<int>(size));
        words.setDefaultFont(font);
        words.setTextWidth(points.width());
        if (words.size().height() <= points.height() - drawing_h - 8)
            break;
    }
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    const QSizeF sheet = view.sheet_size();
    const double s = std::min(drawing_w / sheet.width(), drawing_h / sheet.height());
    p.scale(s, s);
    view.paint_sheet(p);
    p.restore();
    p.translate(0, drawing_h + 8);
    QAbstractTextDocumentLayout::PaintContext black;
    black.palette.setColor(QPalette::Text, Qt::black);
    words.documentLayout()->draw(&p, black);
    return p.end();
}

} // namespace vernal
