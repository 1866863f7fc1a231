#include "ledger.h"

#include "rule_words.h"

#include "app/shell/theme.h"
#include "core/job/fresh_rule.h"
#include "core/wording/why.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QScrollArea>
#include <QScrollBar>
#include <QVBoxLayout>

#include <algorithm>

namespace vernal {
namespace {

constexpr int head_px = 28; // keys of the outputs
constexpr int folded_px = 32;
constexpr int bar_px = 10; // kept free for the scroll bar

} // namespace

Ledger::Ledger(Session& session, QWidget* parent) : QFrame(parent), session_(session)
{
    setObjectName(QStringLiteral("card"));
    setAccessibleName(tr("Rules, the higher wins"));
    setProperty("pane", true);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(1, 1, 1, 1);
    box->setSpacing(0);
    make_head();
    box->addWidget(head_);
    refusal_ = new QLabel;
    refusal_->setObjectName(QStringLiteral("refusal"));
    refusal_->setWordWrap(true);
    refusal_->setContentsMargins(10, 4, 10, 4);
    refusal_->hide();
    box->addWidget(refusal_);
    sheet_ = new QWidget;
    sheet_->installEventFilter(this);
    scroll_ = new QScrollArea;
    scroll_->setObjectName(QStringLiteral("ledgerScroll"));
    scroll_->setWidget(sheet_);
    scroll_->setWidgetResizable(false);
    scroll_->setFocusPolicy(Qt::NoFocus);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    box->addWidget(scroll_, 1);
    make_foot();
    box->addWidget(foot_);
    for (auto signal : {&Session::outcome_changed, &Session::cursor_changed, &Session::units_changed})
        connect(&session_, signal, this, &Ledger::show_why);
    connect(&session_, &Session::verdict_changed, this, &Ledger::mark_findings);
}

void Ledger::make_head()
{
    head_ = new QWidget;
    head_->setFixedHeight(head_px);
    head_->installEventFilter(this);
}

void Ledger::make_foot()
{
    foot_ = new QWidget;
    foot_->setObjectName(QStringLiteral("ledgerFoot"));
    foot_->installEventFilter(this);
    auto* box = new QVBoxLayout(foot_);
    box->setContentsMargins(rank_px + 18, 4, 8, 2);
    box->setSpacing(0);
    why_ = new QLabel;
    why_->setObjectName(QStringLiteral("ledgerWhy"));
    why_->setWordWrap(true);
    why_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    why_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    box->addWidget(why_);
    auto* row = new QHBoxLayout;
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(2);
    add_ = new QPushButton(tr("+ a rule ▾"));
    add_->setObjectName(QStringLiteral("addRule"));
    add_->setProperty("look", QStringLiteral("quiet"));
    add_->setAccessibleName(tr("Add a rule"));
    auto* menu = new QMenu(add_);
    fill_additions(menu);
    add_->setMenu(menu);
    row->addWidget(add_);
    row->addStretch(1);
    box->addLayout(row);
}

void Ledger::fill_additions(QMenu* menu)
{
    QHash<QString, QMenu*> groups;
    for (const char* group : {"Collect", "Protect", "Freeze", "Comfort", "Heat"})
        groups.insert(QString::fromUtf8(group), menu->addMenu(QString::fromUtf8(group)));
    for (std::size_t k = 0; k < rule_kinds().size(); ++k) {
        const RuleKind& kind = rule_kinds()[k];
        QMenu* group = groups.value(QString::fromUtf8(kind.group));
        QAction* action = group->addAction(QString::fromUtf8(kind.title), this, [this, k] {
            session_.document().edit_variant(tr("Add a rule"), [k](Variant& v) {
                v.unit.rules.push_back(fresh_rule(v, k));
                sort_by_priority(v.unit.rules);
            });
        });
        action->setToolTip(QString::fromUtf8(kind.why));
        group->setToolTipsVisible(true);
    }
}

void Ledger::choose_output(std::size_t output)
{
    const std::size_t outputs = session_.document().variant().unit.outputs.size();
    output_ = output < outputs ? output : 0;
    for (std::size_t k = 0; k < keys_.size(); ++k)
        keys_[k]->setChecked(k == output_);
    show_why();
}

// A line is made anew only when more than its numbers changed, so that the field being
// typed in stays.
void Ledger::make_lines()
{
    const Variant& v = session_.document().variant();
    QString around;
    for (const Output& o : v.unit.outputs)
        around += qs(o.key + '|');
    for (const Probe& p : v.probes)
        around += qs(p.key + '/' + p.name + '/' + name_of(reads_at(p.place)) + '|');
    std::map<QString, LedgerLine*> known;
    for (std::size_t i = 0; i < lines_.size(); ++i)
        known.emplace(shapes_[i], lines_[i]);
    std::vector<LedgerLine*> now;
    shapes_.clear();
    for (std::size_t i = 0; i < v.unit.rules.size(); ++i) {
        const Rule& r = v.unit.rules[i];
        const bool open = open_.contains(r.id);
        const QString shape = qs(v.id + '/' + r.id + '/') + shape_of(r) + around + (open || details_said(v, r) ? '1' : '0');
        LedgerLine* line = nullptr;
        if (const auto it = known.find(shape); it != known.end()) {
            line = it->second;
            known.erase(it);
            line->set_rule(i);
        } else {
            line = new LedgerLine(session_, i, open, sheet_);
            connect(line, &LedgerLine::refused, this, [this](const QString& reason) {
                refusal_->setText(reason);
                refusal_->show();
            });
            connect(line, &LedgerLine::opened, this, [this, id = r.id](std::size_t, bool wanted) {
                wanted ? void(open_.insert(id)) : void(open_.erase(id));
                QMetaObject::invokeMethod(this, &Ledger::refresh, Qt::QueuedConnection); // not while its menu still works
            });
            connect(line, &LedgerLine::grew, this, [this] { lay_out(); });
            connect(line, &LedgerLine::addition_wanted, this, [this] { add_->showMenu(); });
            connect(line, &LedgerLine::touched, this, [this, line] { scroll_->ensureWidgetVisible(line, 0, 8); });
        }
        shapes_.push_back(shape);
        now.push_back(line);
    }
    for (const auto& [shape, line] : known) {
        line->hide();
        line->deleteLater();
    }
    lines_ = std::move(now);
}

void Ledger::make_ranks()
{
    std::vector<Priority> wanted;
    for (const Rule& r : session_.document().variant().unit.rules)
        if (const Priority p = kind_of(r).priority; wanted.empty() || rank_name(wanted.back()) != rank_name(p))
            wanted.push_back(p);
    const bool same = std::equal(wanted.begin(), wanted.end(), ranks_.begin(), ranks_.end(), [](Priority p, const Rank& r) { return r.priority == p; });
    if (same)
        return;
    for (const Rank& r : ranks_) {
        r.name->hide();
        r.name->deleteLater();
    }
    ranks_.clear();
    for (Priority p : wanted) {
        auto* name = new QPushButton(tr(rank_name(p)), sheet_);
        name->setProperty("look", QStringLiteral("rank"));
        name->setCheckable(true);
        name->setChecked(folded_.contains(p));
        name->setAccessibleName(tr("Rank %1: fold its rules").arg(name->text()));
        name->setToolTip(tr("Fold or open the rules of this rank; a higher rank wins"));
        connect(name, &QPushButton::toggled, this, [this, p](bool fold) {
            fold ? void(folded_.insert(p)) : void(folded_.erase(p));
            lay_out();
        });
        name->show();
        ranks_.push_back({p, name, {}});
    }
}

void Ledger::refresh()
{
    refusal_->hide();
    make_outputs();
    make_lines();
    make_ranks();
    choose_output(output_);
    for (LedgerLine* line : lines_)
        line->refresh();
    lay_out();
    mark_findings();
    order_tabs();
}

void Ledger::order_tabs()
{
    QList<QWidget*> order;
    for (QPushButton* b : keys_)
        order.append(b);
    const auto& rules = session_.document().variant().unit.rules;
    std::size_t line = 0;
    for (const Rank& r : ranks_) {
        order.append(r.name);
        for (; line < lines_.size() && QLatin1String(rank_name(kind_of(rules[line]).priority)) == QLatin1String(rank_name(r.priority)); ++line)
            order += lines_[line]->in_order();
    }
    order.append(add_);
    for (QPushButton* b : modes_)
        order.append(b);
    for (qsizetype i = 1; i < order.size(); ++i)
        setTabOrder(order[i - 1], order[i]);
}

ThreadColumns Ledger::threads() const { return {session_.document().variant().unit.outputs.size(), width() - 2 - bar_px - 4}; }

void Ledger::lay_out()
{
    const ThreadColumns columns = threads();
    const int text_px = columns.left() - rank_px - 4;
    if (text_px < 60)
        return;
    rows_.clear();
    const auto& rules = session_.document().variant().unit.rules;
    int y = 0;
    std::size_t i = 0;
    for (Rank& rank : ranks_) {
        const int top = y;
        const auto in_rank = [&](std::size_t k) { return k < lines_.size() && QLatin1String(rank_name(kind_of(rules[k]).priority)) == QLatin1String(rank_name(rank.priority)); };
        if (folded_.contains(rank.priority)) {
            Row row{QRect(rank_px, y, text_px, folded_px), {}, nullptr};
            for (; in_rank(i); ++i) {
                row.rules.push_back(i);
                lines_[i]->hide();
            }
            rows_.push_back(std::move(row));
            y += folded_px;
        }
        for (; in_rank(i); ++i) {
            const int high = lines_[i]->height_for(text_px);
            lines_[i]->setGeometry(rank_px, y, text_px, high);
            lines_[i]->show();
            rows_.push_back({lines_[i]->geometry(), {i}, lines_[i]});
            y += high;
        }
        rank.at = QRect(0, top, rank_px, y - top);
        rank.name->setGeometry(2, top, rank_px - 4, std::min(rank.at.height(), 32));
    }
    sheet_->setFixedSize(width() - 2, std::max(y + 1, 40));
    const QMargins around = layout()->contentsMargins(), frame = contentsMargins();
    const int refusal = refusal_->isVisibleTo(this) ? refusal_->heightForWidth(width()) : 0;
    setMaximumHeight(head_px + refusal + sheet_->height() + foot_->sizeHint().height() + around.top() + around.bottom() + frame.top() + frame.bottom());
    for (std::size_t k = 0; k < keys_.size(); ++k)
        keys_[k]->setGeometry(columns.centre(k) - columns.each() / 2, 0, columns.each(), head_px);
    const int right = width() - columns.left() + 6;
    foot_->layout()->setContentsMargins(rank_px + 18, 4, right, 2);
    why_->setFixedHeight(QFontMetrics(text_font(13)).lineSpacing() * (text_px > 480 ? 3 : 4)); // more stands in its tool tip
    sheet_->update();
    head_->update();
    foot_->update();
}

void Ledger::resizeEvent(QResizeEvent* e)
{
    QFrame::resizeEvent(e);
    lay_out();
}

void Ledger::show_why()
{
    const auto& o = session_.outcome();
    const auto& unit = session_.document().variant().unit;
    knots_.assign(unit.outputs.size(), {});
    QString said;
    if (o && o->size() > 0) {
        const std::size_t i = session_.cursor_index();
        const Inputs in = o->inputs(i);
        const EngineState state = o->state(i);
        const Decisions decided = o->decisions(i);
        for (std::size_t k = 0; k < unit.outputs.size() && k < o->variant.unit.outputs.size(); ++k)
            knots_[k] = knots(o->variant.unit, o->program, o->out_of_action, in, state, decided[k], k);
        if (output_ < o->variant.unit.outputs.size()) {
            const WhyText w = why(o->variant, o->program, in, state, decided[output_], output_, session_.units());
            said = QStringLiteral("<b>%1</b> %2").arg(tr("At %1 %2").arg(session_.cursor_text(), qs(w.headline)).toHtmlEscaped(), qs(w.margin).toHtmlEscaped());
            QStringList more;
            for (const std::string& v : w.overruled)
                more << tr("overruled: %1").arg(qs(v));
            for (const std::string& v : w.why_not)
                more << qs(v);
            if (w.margin.empty() && !more.isEmpty())
                said += QLatin1Char(' ') + more.front().toHtmlEscaped();
            why_->setToolTip(said + (more.isEmpty() ? QString() : QStringLiteral("<br>") + more.join(QStringLiteral("<br>")).toHtmlEscaped()));
        }
    }
    why_->setText(said);
    sheet_->update();
    foot_->update();
}

void Ledger::mark_findings()
{
    const auto& rules = session_.document().variant().unit.rules;
    for (LedgerLine* line : lines_) {
        if (line->rule() >= rules.size())
            continue;
        const std::string own = "rule/" + rules[line->rule()].id;
        std::vector<Finding> found;
        for (const Finding& f : session_.findings())
            if (is_at(f, own))
                found.push_back(f);
        line->mark(found);
    }
}

void Ledger::go_to(std::size_t rule, const std::string& field)
{
    if (rule >= lines_.size())
        return;
    const Priority p = kind_of(session_.document().variant().unit.rules[rule]).priority;
    for (const Rank& r : ranks_)
        if (QLatin1String(rank_name(r.priority)) == QLatin1String(rank_name(p)))
            r.name->setChecked(false);
    if (auto* edit = findChild<NumberEdit*>(QStringLiteral("rule%1.%2").arg(rule).arg(qs(field))); edit && !field.empty())
        return edit->setFocus(Qt::TabFocusReason);
    lines_[rule]->take_focus();
}

} // namespace vernal
