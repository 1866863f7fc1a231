#include "findings_panel.h"

#include "core/job/why.h"
#include "form.h"
#include "theme.h"

#include <QHBoxLayout>
#include <QPointer>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <cmath>

namespace vernal {
namespace {

// Shape and colour by severity: square, triangle, disc.
struct Mark {
    const char* sign;
    QColor colour;
};
Mark mark_of(Severity s)
{
    switch (s) {
    case Severity::serious: return {"■", theme().protect};
    case Severity::caution: return {"▲", theme().caution};
    case Severity::note: break;
    }
    return {"●", theme().start};
}

QString effect_text(const Outcome& now, const Outcome& then, const Units& u)
{
    if (!now.figures() || !then.figures())
        return QObject::tr("The log stays as it is; the rules decide otherwise.");
    const Figures &a = *now.figures(), &b = *then.figures();
    return QObject::tr("Heat %1 → %2\nStarts %3 → %4\nPump %5 → %6")
        .arg(text(a.heat.to_store, Quantity::energy, u), text(b.heat.to_store, Quantity::energy, u))
        .arg(a.starts())
        .arg(b.starts())
        .arg(text(a.pump_energy_j, Quantity::energy, u), text(b.pump_energy_j, Quantity::energy, u));
}

} // namespace

FindingsPanel::FindingsPanel(Session& session, QWidget* parent) : QFrame(parent), session_(session)
{
    setObjectName("side");
    setFixedWidth(270);
    auto* head = new QHBoxLayout;
    count_ = new QLabel;
    count_->setObjectName("second");
    head->addWidget(heading(tr("Findings"), "h1"), 1);
    head->addWidget(count_);
    auto* inside = new QWidget;
    auto* column = new QVBoxLayout(inside);
    column->setContentsMargins(0, 0, 4, 0);
    column->setSpacing(8);
    cards_ = new QVBoxLayout;
    cards_->setSpacing(8);
    column->addLayout(cards_);
    why_ = new QLabel;
    why_->setObjectName("why");
    why_->setWordWrap(true);
    why_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    why_->setMargin(8);
    column->addWidget(why_);
    column->addStretch(1);
    auto* scroll = new QScrollArea;
    scroll->setWidget(inside);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(12, 12, 8, 8);
    box->addLayout(head);
    box->addWidget(scroll, 1);
    connect(&session, &Session::outcome_changed, this, &FindingsPanel::show_findings);
    connect(&session, &Session::outcome_changed, this, &FindingsPanel::show_why);
    connect(&session, &Session::cursor_changed, this, &FindingsPanel::show_why);
    connect(&session, &Session::units_changed, this, &FindingsPanel::show_why);
    connect(&session, &Session::previewed, this, [this](std::shared_ptr<const Outcome> o) { show_preview(*o); });
}

void FindingsPanel::show_findings()
{
    const auto& o = session_.outcome();
    QString said = theme().glare ? QStringLiteral("glare") : QString();
    for (const Finding& f : o->findings)
        said += qs(f.title + f.reason + (f.remedy ? f.remedy->label : "")) + QLatin1Char('\n');
    if (said == shown_ && !said.isEmpty() && !effect_)
        return;
    shown_ = said;
    effect_ = nullptr;
    accept_ = nullptr;
    clear_layout(cards_);
    count_->setText(QString::number(o->findings.size()));
    for (const Finding& f : o->findings)
        cards_->addWidget(card(f));
    if (o->findings.empty()) {
        auto* none = new QLabel(tr("Nothing found on this day. Other days may differ."));
        none->setWordWrap(true);
        none->setObjectName("second");
        cards_->addWidget(none);
    }
}

QWidget* FindingsPanel::card(const Finding& f)
{
    auto* frame = new QFrame;
    frame->setObjectName("card");
    auto* box = new QVBoxLayout(frame);
    box->setContentsMargins(10, 8, 10, 8);
    box->setSpacing(4);
    const Mark m = mark_of(f.severity);
    auto* title = new QLabel(QStringLiteral("<span style='color:%1'>%2 <b>%3</b></span>").arg(m.colour.name(), QString::fromUtf8(m.sign), qs(f.title).toHtmlEscaped()));
    title->setAccessibleName(QString::fromLatin1(severity_text(f.severity)) + ": " + qs(f.title));
    title->setWordWrap(true);
    auto* reason = new QLabel(qs(f.reason));
    reason->setWordWrap(true);
    box->addWidget(title);
    box->addWidget(reason);
    if (f.remedy)
        add_remedy(*box, f);
    return frame;
}

void FindingsPanel::add_remedy(QVBoxLayout& box, const Finding& f)
{
    auto* attempt = new QPushButton(qs(f.remedy->label));
    attempt->setObjectName("act");
    auto* effect = new QLabel;
    effect->setObjectName("remedyEffect");
    effect->setWordWrap(true);
    effect->hide();
    auto* choice = new QWidget;
    auto* row = new QHBoxLayout(choice);
    row->setContentsMargins(0, 0, 0, 0);
    auto* accept = new QPushButton(tr("Accept"));
    accept->setObjectName("act");
    auto* leave = new QPushButton(tr("Leave it"));
    row->addWidget(accept);
    row->addWidget(leave);
    choice->hide();
    box.addWidget(attempt);
    box.addWidget(effect);
    box.addWidget(choice);
    const Remedy remedy = *f.remedy;
    connect(attempt, &QPushButton::clicked, this, [this, remedy, attempt, effect, choice] {
        attempt->hide();
        effect->setText(tr("Trying …"));
        effect->show();
        choice->show();
        effect_ = effect;
        accept_ = choice;
        session_.preview(remedy);
    });
    connect(accept, &QPushButton::clicked, this, [this, remedy] { session_.document().edit_variant(qs(remedy.label).section(QStringLiteral(": "), 1), remedy.apply); });
    connect(leave, &QPushButton::clicked, this, [this, attempt, effect, choice] {
        effect->hide();
        choice->hide();
        attempt->show();
        effect_ = nullptr;
    });
}

void FindingsPanel::show_preview(const Outcome& then)
{
    if (effect_ && session_.outcome())
        effect_->setText(effect_text(*session_.outcome(), then, session_.units()));
}

void FindingsPanel::show_why()
{
    const auto& o = session_.outcome();
    if (!o || o->size() == 0)
        return why_->clear();
    const std::size_t i = session_.cursor_index();
    QString s = QStringLiteral("<b>%1</b>").arg(tr("Why, at %1").arg(qs(clock_text(session_.cursor_s() + o->start_s()))));
    for (std::size_t k = 0; k < o->variant.unit.outputs.size(); ++k) {
        const WhyText w = why(o->variant.unit, o->program, o->inputs(i), o->state(i), o->decisions(i)[k], k, session_.units());
        s += QStringLiteral("<br>%1").arg(qs(w.headline).toHtmlEscaped());
        if (!w.margin.empty())
            s += QStringLiteral("<br>%1").arg(qs(w.margin).toHtmlEscaped());
        for (const std::string& v : w.overruled)
            s += QStringLiteral("<br><span style='color:%1'>%2</span>").arg(theme().second_ink.name(), tr("overruled: %1").arg(qs(v)).toHtmlEscaped());
    }
    why_->setText(s);
}

} // namespace vernal
