#include "findings_panel.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "core/wording/why.h"
#include "effect.h"
#include "finding_mark.h"

#include <QHBoxLayout>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <cmath>

namespace vernal {

FindingsPanel::FindingsPanel(Session& session, QWidget* parent) : QFrame(parent), session_(session)
{
    setObjectName("side");
    setFixedWidth(width_px);
    auto* head = new QHBoxLayout;
    count_ = new QLabel;
    count_->setObjectName("second");
    head->addWidget(heading(tr("Findings"), "h1"));
    head->addWidget(count_);
    head->addStretch(1);
    pin_ = new QPushButton(tr("pin"));
    pin_->setObjectName("quiet");
    pin_->setCheckable(true);
    pin_->setAccessibleName(tr("Keep the findings beside the work"));
    pin_->setToolTip(pin_->accessibleName());
    auto* shut = new QPushButton(QStringLiteral("×"));
    shut->setObjectName("quiet");
    shut->setFixedSize(32, 32);
    shut->setAccessibleName(tr("Fold the findings"));
    shut->setToolTip(tr("Fold the findings (F4)"));
    head->addWidget(pin_);
    head->addWidget(shut);
    connect(pin_, &QPushButton::clicked, this, &FindingsPanel::pin_wanted);
    connect(shut, &QPushButton::clicked, this, &FindingsPanel::close_wanted);
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
    scroll_ = new QScrollArea;
    scroll_->setWidget(inside);
    scroll_->setWidgetResizable(true);
    for (QWidget* w : {inside, scroll_->viewport()}) // the panel's own ground shows
        w->setAutoFillBackground(false);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(12, 8, 8, 8);
    box->addLayout(head);
    box->addWidget(scroll_, 1);
    connect(&session, &Session::verdict_changed, this, &FindingsPanel::show_findings);
    connect(&session, &Session::outcome_changed, this, &FindingsPanel::show_why);
    connect(&session, &Session::cursor_changed, this, &FindingsPanel::show_why);
    connect(&session, &Session::units_changed, this, &FindingsPanel::show_why);
    connect(&session, &Session::previewed, this, [this](std::shared_ptr<const Outcome> o) { show_preview(*o); });
}

// Cards are made anew only when their number or kind changes: while somebody
// drags a threshold, mostly numbers in them do.
void FindingsPanel::show_findings()
{
    const std::vector<Finding>& found = session_.findings();
    const bool same = !effect_ && glare_ == theme().glare && !found.empty() &&
                      std::equal(found.begin(), found.end(), shown_.begin(), shown_.end(), [](const Finding& f, const Card& c) { return f.remedy.has_value() == (c.remedy != nullptr) && f.seen_s.has_value() == (c.show != nullptr); });
    count_->setText(QString::number(found.size()));
    if (!same)
        remake(found.size());
    for (std::size_t i = 0; i < found.size(); ++i) {
        if (!same)
            shown_.push_back(make_card(found[i]));
        fill(shown_[i], found[i]);
    }
}

void FindingsPanel::remake(std::size_t findings)
{
    effect_ = nullptr;
    glare_ = theme().glare;
    shown_.clear();
    clear_layout(cards_);
    if (findings > 0)
        return;
    auto* none = new QLabel(tr("Nothing found on this day. Other days may differ."));
    none->setWordWrap(true);
    none->setObjectName("second");
    cards_->addWidget(none);
}

void FindingsPanel::fill(Card& c, const Finding& f)
{
    const auto put = [](auto* w, const QString& text) {
        if (w->text() != text)
            w->setText(text);
    };
    const SeverityMark m = mark_of(f.severity);
    put(c.title, QStringLiteral("<span style='color:%1'>%2 <b>%3</b></span>").arg(m.colour.name(), QString::fromUtf8(m.sign), qs(f.title).toHtmlEscaped()));
    c.title->setAccessibleName(QString::fromLatin1(severity_text(f.severity)) + ": " + qs(f.title));
    put(c.reason, qs(f.reason));
    if (c.show)
        *c.seen_s = *f.seen_s;
    if (!c.remedy)
        return;
    *c.remedy = *f.remedy;
    put(c.attempt, qs(f.remedy->label));
}

FindingsPanel::Card FindingsPanel::make_card(const Finding& like)
{
    Card c;
    auto* frame = new QFrame;
    frame->setObjectName("card");
    auto* box = new QVBoxLayout(frame);
    box->setContentsMargins(10, 8, 10, 8);
    box->setSpacing(4);
    c.frame = frame;
    c.title = new QLabel;
    c.title->setWordWrap(true);
    c.reason = new QLabel;
    c.reason->setWordWrap(true);
    box->addWidget(c.title);
    box->addWidget(c.reason);
    cards_->addWidget(frame);
    if (like.remedy)
        add_remedy(*box, c);
    if (like.seen_s)
        add_show(*box, c);
    return c;
}

void FindingsPanel::add_show(QVBoxLayout& box, Card& c)
{
    c.show = new QPushButton(tr("Show on the strip"));
    c.show->setObjectName("showSeen");
    c.seen_s = std::make_shared<std::pair<double, double>>();
    box.addWidget(c.show);
    connect(c.show, &QPushButton::clicked, this, [this, seen_s = c.seen_s] {
        session_.mark(Session::Marked{seen_s->first, seen_s->second});
        session_.set_cursor(seen_s->first);
    });
}

void FindingsPanel::add_remedy(QVBoxLayout& box, Card& c)
{
    const auto remedy = c.remedy = std::make_shared<Remedy>();
    auto* attempt = c.attempt = new QPushButton;
    attempt->setObjectName("act");
    auto* effect = new QLabel;
    effect->setObjectName("remedyEffect");
    effect->setWordWrap(true);
    effect->hide();
    auto* choice = new QWidget;
    auto* row = new QHBoxLayout(choice);
    row->setContentsMargins(0, 0, 0, 0);
    auto* accept = new QPushButton(tr("Accept"));
    accept->setObjectName("accept");
    accept->setProperty("look", QStringLiteral("act"));
    auto* leave = c.leave = new QPushButton(tr("Leave it"));
    row->addWidget(accept);
    row->addWidget(leave);
    choice->hide();
    box.addWidget(attempt);
    box.addWidget(effect);
    box.addWidget(choice);
    connect(attempt, &QPushButton::clicked, this, [this, remedy, attempt, effect, choice, accept] {
        const bool focused = attempt->hasFocus();
        attempt->hide();
        effect->setText(tr("Trying …"));
        effect->show();
        choice->show();
        if (focused)
            accept->setFocus(Qt::OtherFocusReason);
        effect_ = effect;
        session_.preview(*remedy);
    });
    connect(accept, &QPushButton::clicked, this, [this, remedy] {
        const Remedy now = *remedy; // the edit's outcome may fill this card anew
        session_.document().edit_variant(qs(now.label).section(QStringLiteral(": "), 1), now.apply);
    });
    connect(leave, &QPushButton::clicked, this, [this, attempt, effect, choice] {
        effect->hide();
        choice->hide();
        attempt->show();
        effect_ = nullptr;
    });
}

void FindingsPanel::show_pinned(bool pinned) { pin_->setChecked(pinned); }

void FindingsPanel::try_remedy(const QString& which)
{
    const std::vector<Finding>& found = session_.findings();
    for (std::size_t i = 0; i < found.size() && i < shown_.size(); ++i) {
        if (finding_key(found[i]) != which)
            continue;
        scroll_->ensureWidgetVisible(shown_[i].frame, 0, 20);
        if (QPushButton* attempt = shown_[i].attempt; attempt && attempt->isVisibleTo(this)) {
            attempt->click();
            attempt->parentWidget()->findChild<QPushButton*>(QStringLiteral("accept"))->setFocus(Qt::OtherFocusReason);
        }
        return;
    }
}

void FindingsPanel::take_focus()
{
    for (const Card& c : shown_)
        if (c.attempt && c.attempt->isVisible())
            return c.attempt->setFocus(Qt::ShortcutFocusReason);
    pin_->setFocus(Qt::ShortcutFocusReason);
}

bool FindingsPanel::leave_try()
{
    for (const Card& c : shown_)
        if (c.leave && c.leave->isVisible()) {
            c.leave->click();
            c.attempt->setFocus(Qt::OtherFocusReason);
            return true;
        }
    return false;
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
    QString s = QStringLiteral("<b>%1</b>").arg(tr("Why, at %1").arg(session_.cursor_text()));
    for (std::size_t k = 0; k < o->variant.unit.outputs.size(); ++k) {
        const WhyText w = why(o->variant, o->program, o->inputs(i), o->state(i), o->decisions(i)[k], k, session_.units());
        s += QStringLiteral("<br>%1").arg(qs(w.headline).toHtmlEscaped());
        if (!w.margin.empty())
            s += QStringLiteral("<br>%1").arg(qs(w.margin).toHtmlEscaped());
        for (const std::string& v : w.overruled)
            s += QStringLiteral("<br><span style='color:%1'>%2</span>").arg(theme().second_ink.name(), tr("overruled: %1").arg(qs(v)).toHtmlEscaped());
        if (w.margin.empty()) // no single change would do
            for (const std::string& v : w.why_not)
                s += QStringLiteral("<br><span style='color:%1'>%2</span>").arg(theme().second_ink.name(), qs(v).toHtmlEscaped());
    }
    why_->setText(s);
}

} // namespace vernal
