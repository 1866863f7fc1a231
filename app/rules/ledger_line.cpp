#include "ledger_line.h"

#include "app/findings/finding_mark.h"
#include "app/shell/theme.h"
#include "rule_words.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMenu>
#include <QPainter>
#include <QPushButton>

#include <algorithm>

namespace vernal {
namespace {

constexpr int mark_px = 18;      // at the left, for a finding
constexpr int more_px = 28;      // at the right, for the line's menu
constexpr int line_px = 20;      // of text
constexpr int lowest_px = 32;    // of a gloved hand
constexpr int between_px = 4;    // words
constexpr int number_pad_px = 4; // at the right within a number

} // namespace

LedgerLine::LedgerLine(Session& session, std::size_t rule, bool open, QWidget* parent) : QWidget(parent), session_(session), index_(rule), id_(session.document().variant().unit.rules[rule].id), open_(open)
{
    mark_ = new FindingMark(session_, this);
    mark_->setGeometry(0, 0, mark_px, lowest_px);
    const RuleKind& kind = kind_of(body());
    setToolTip(QString::fromUtf8(kind.why));
    add_sentence(kind.sentence, false);
    if (*kind.details != '\0' && (open_ || details_said(session_.document().variant(), body())))
        add_sentence(kind.details, true);
    if (!body().enabled)
        add_word(tr("(switched off)"), false);
    more_ = new QPushButton(QStringLiteral("⋯"), this);
    more_->setObjectName(QStringLiteral("quiet"));
    more_->setAccessibleName(tr("More about %1").arg(QString::fromUtf8(kind.title)));
    more_->setToolTip(tr("Details, order, switch off, remove"));
    more_->installEventFilter(this);
    make_menu();
}

const Rule& LedgerLine::body() const { return session_.document().variant().unit.rules[index_]; }

std::string LedgerLine::path(const std::string& field) const { return "rule/" + id_ + "/" + field; }

void LedgerLine::set_rule(std::size_t index)
{
    index_ = index;
    for (const auto& [key, edit] : numbers_)
        edit->setObjectName(QStringLiteral("rule%1.%2").arg(index_).arg(qs(key)));
}

void LedgerLine::make_menu()
{
    const RuleKind& kind = kind_of(body());
    menu_ = new QMenu(this);
    if (*kind.details != '\0') {
        QAction* details = menu_->addAction(tr("Details"));
        connect(menu_, &QMenu::aboutToShow, this, [this, details] {
            const bool said = details_said(session_.document().variant(), body());
            details->setText(said ? tr("Details are shown: some are not as usual") : open_ ? tr("Fold the details")
                                                                                           : tr("Details"));
            details->setEnabled(!said);
        });
        connect(details, &QAction::triggered, this, [this] { emit opened(index_, !open_); });
    }
    menu_->addAction(tr("Move up"), QKeySequence(Qt::CTRL | Qt::Key_Up), this, [this] { move(-1); });
    menu_->addAction(tr("Move down"), QKeySequence(Qt::CTRL | Qt::Key_Down), this, [this] { move(1); });
    menu_->addAction(body().enabled ? tr("Switch this rule off") : tr("Switch this rule on"), this, [this] {
        session_.document().edit_variant(tr("Switch a rule"), [i = index_](Variant& v) { v.unit.rules[i].enabled = !v.unit.rules[i].enabled; });
    });
    menu_->addAction(tr("Remove this rule"), QKeySequence(Qt::Key_Delete), this, [this] { remove(); });
    for (QAction* a : menu_->actions()) // their keys are taken by the line itself
        a->setShortcutContext(Qt::WidgetShortcut);
    more_->setMenu(menu_);
}

void LedgerLine::move(int by)
{
    const std::size_t to = index_ + static_cast<std::size_t>(static_cast<std::ptrdiff_t>(by));
    std::vector<Rule> rules = session_.document().variant().unit.rules;
    if (to >= rules.size())
        return emit refused(tr("It is the %1 of all already.").arg(by < 0 ? tr("first") : tr("last")));
    if (const auto reason = move_rule(rules, index_, to))
        return emit refused(qs(*reason));
    session_.document().edit_variant(tr("Move a rule"), [&](Variant& v) { v.unit.rules = rules; });
}

void LedgerLine::remove()
{
    session_.document().edit_variant(tr("Remove a rule"), [i = index_](Variant& v) { v.unit.rules.erase(v.unit.rules.begin() + static_cast<std::ptrdiff_t>(i)); });
}

void LedgerLine::add_sentence(const char* text, bool detail)
{
    detail_ = detail;
    const std::size_t first = tokens_.size();
    for (const QString& w : QString::fromUtf8(text).split(' ')) {
        const int open = static_cast<int>(w.indexOf('{')), close = static_cast<int>(w.indexOf('}'));
        if (open < 0) {
            add_word(w, false);
            continue;
        }
        add_field(w.mid(open + 1, close - open - 1).toStdString());
        if (const QString rest = w.mid(close + 1); !rest.isEmpty())
            add_word(rest, true);
    }
    for (std::size_t i = first; i < tokens_.size(); ++i) {
        tokens_[i].detail = detail;
        tokens_[i].new_line = detail && i == first;
        if (tokens_[i].editor)
            tokens_[i].editor->setEnabled(body().enabled);
    }
}

void LedgerLine::add_field(const std::string& key)
{
    Rule copy = body();
    for (const KeyOf& k : keys_of(copy))
        if (key == k.field)
            return add_key(k);
    for (const auto& s : switches_of(body()))
        if (key == s.field.key)
            return add_choice(key, {"false", "true"}, s.on ? 1 : 0, {tr("no"), tr("yes")});
    if (const auto all = choices_of(body()); all.count(key) != 0) {
        const auto& [now, names] = all.at(key);
        QStringList words;
        for (const std::string& name : names)
            words << words_of(name);
        return add_choice(key, names, now, words);
    }
    add_number(key);
}

void LedgerLine::add_word(const QString& word, bool attached, bool strong)
{
    Token t;
    t.word = word;
    t.attached = attached;
    t.strong = strong;
    tokens_.push_back(std::move(t));
}

void LedgerLine::add_editor(QWidget* editor)
{
    editor->installEventFilter(this);
    Token t;
    t.editor = editor;
    tokens_.push_back(std::move(t));
}

void LedgerLine::add_number(const std::string& key)
{
    const auto all = std::visit([](const auto& rule) { return number_fields(rule); }, body().body);
    for (const auto& [field, value] : all) {
        if (key != field.key)
            continue;
        auto* edit = new NumberEdit(session_, field, this);
        edit->setObjectName(QStringLiteral("rule%1.%2").arg(index_).arg(qs(key)));
        edit->stand_in_text();
        edit->set_value(value);
        numbers_.emplace_back(key, edit);
        connect(edit, &NumberEdit::edited, this, [this, key, edit](double v) { session_.document().set(tr("Change a rule"), path(key), v, edit->sitting()); });
        connect(edit, &NumberEdit::grew, this, [this] {
            place();
            emit grew();
        });
        add_editor(edit);
    }
}

// A probe or an output of the sentence; one with nothing to choose is a word.
void LedgerLine::add_key(const KeyOf& k)
{
    const Variant& v = session_.document().variant();
    const bool probe = k.of == KeyOf::Of::probe;
    if (!probe && v.unit.outputs.size() < 2 && !k.may_be_empty)
        return add_word(qs(*k.key), false, true);
    const std::string field = k.field;
    QString shown = k.key->empty() ? tr(k.nothing) : qs(*k.key);
    auto* button = new QPushButton(this);
    button->setObjectName(QStringLiteral("word"));
    button->setProperty("field", QStringLiteral("rule%1.%2").arg(index_).arg(qs(field)));
    button->setProperty("output", !probe);
    auto* menu = new QMenu(button);
    const auto offer = [&](const QString& text, const std::string& key) {
        menu->addAction(text, this, [this, field, key] { session_.document().set(tr("Choose in a rule"), path(field), key); });
    };
    if (k.may_be_empty)
        offer(tr(k.nothing), "");
    if (probe)
        for (const Probe& p : v.probes) {
            if (p.key == *k.key)
                shown = qs(p.name).toLower();
            if (reads_at(p.place) != reads_for(k.role))
                continue;
            offer(QStringLiteral("%1  %2").arg(qs(p.key), qs(p.name)), p.key);
        }
    else
        for (const Output& o : v.unit.outputs)
            offer(QStringLiteral("%1  %2").arg(qs(o.key), qs(o.name)), o.key);
    button->setText(shown);
    button->setToolTip(probe ? tr("Choose another probe") : tr("Choose another output"));
    button->setAccessibleName(tr("%1: %2").arg(button->toolTip(), shown));
    button->setMenu(menu);
    add_editor(button);
}

// A word that a click turns into the next one.
void LedgerLine::add_choice(const std::string& key, const std::vector<std::string>& names, std::size_t now, const QStringList& words)
{
    auto* button = new QPushButton(words[static_cast<qsizetype>(now)], this);
    button->setObjectName(QStringLiteral("word"));
    button->setToolTip(tr("Click for another: %1").arg(words.join(QStringLiteral(", "))));
    connect(button, &QPushButton::clicked, this, [this, key, next = names[(now + 1) % names.size()]] { session_.document().set(tr("Change a rule"), path(key), next); });
    add_editor(button);
}

void LedgerLine::refresh()
{
    const auto all = std::visit([](const auto& rule) { return number_fields(rule); }, body().body);
    for (auto& [key, edit] : numbers_)
        for (const auto& [field, value] : all)
            if (key == field.key)
                edit->set_value(value);
}

QList<QWidget*> LedgerLine::in_order() const
{
    QList<QWidget*> out{mark_};
    for (const Token& t : tokens_)
        if (t.editor)
            out.append(t.editor);
    out.append(more_);
    return out;
}

void LedgerLine::mark(const std::vector<Finding>& found) { mark_->show_findings(found); }

void LedgerLine::take_focus()
{
    for (QWidget* w : in_order())
        if (w != mark_ && w->isEnabled())
            return w->setFocus(Qt::TabFocusReason);
}

// Words run on as text does; a number never parts from its unit, nor a sign from its word.
int LedgerLine::arrange(int width, std::vector<Token>& tokens) const
{
    const QFontMetrics plain(text_font(13)), bold(text_font(13, true));
    const int right = width - more_px;
    int x = mark_px, row = 0;
    const auto wide = [&](const Token& t) { return t.editor ? t.editor->sizeHint().width() : (t.strong ? bold : plain).horizontalAdvance(t.word); };
    for (std::size_t i = 0; i < tokens.size(); ++i) {
        Token& t = tokens[i];
        const int w = t.editor && qobject_cast<NumberEdit*>(t.editor) ? t.editor->width() : wide(t);
        const int tail = i + 1 < tokens.size() && tokens[i + 1].attached ? wide(tokens[i + 1]) : 0;
        if (t.attached)
            x -= between_px + (i > 0 && qobject_cast<NumberEdit*>(tokens[i - 1].editor) ? number_pad_px : 0);
        else if (x > mark_px && (t.new_line || x + w + tail > right)) {
            x = mark_px;
            ++row;
        }
        t.at = QRect(x, row * line_px, w, line_px);
        x += w + between_px;
    }
    const int high = (row + 1) * line_px, all = std::max(lowest_px, high + 4);
    for (Token& t : tokens)
        t.at.translate(0, (all - high) / 2);
    return all;
}

int LedgerLine::height_for(int width) const
{
    std::vector<Token> copy = tokens_;
    return arrange(width, copy);
}

void LedgerLine::place()
{
    arrange(width(), tokens_);
    for (const Token& t : tokens_)
        if (t.editor)
            t.editor->setGeometry(t.at);
    mark_->setGeometry(0, 0, mark_px, std::min(height(), lowest_px));
    more_->setGeometry(width() - more_px, 0, more_px, std::min(height(), lowest_px));
    update();
}

void LedgerLine::resizeEvent(QResizeEvent*) { place(); }

void LedgerLine::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    const bool on = body().enabled;
    for (const Token& t : tokens_) {
        if (t.editor)
            continue;
        p.setFont(text_font(13, t.strong));
        p.setPen(!on || t.detail ? theme().second_ink : t.strong ? theme().accent
                                                                 : theme().ink);
        p.drawText(t.at.adjusted(0, 0, 4, 0), Qt::AlignVCenter | Qt::AlignLeft, t.word);
    }
}

// The line is one target: a click goes to what can be changed nearest to it.
void LedgerLine::mousePressEvent(QMouseEvent* e)
{
    QWidget* nearest = nullptr;
    int best = 1 << 20;
    for (const Token& t : tokens_) {
        if (!t.editor)
            continue;
        const QPoint c = e->pos();
        const int dx = std::max({t.at.left() - c.x(), c.x() - t.at.right(), 0}), dy = std::max({t.at.top() - c.y(), c.y() - t.at.bottom(), 0});
        if (dx + 3 * dy < best) {
            best = dx + 3 * dy;
            nearest = t.editor;
        }
    }
    if (nearest && e->button() == Qt::LeftButton)
        nearest->setFocus(Qt::TabFocusReason);
}

void LedgerLine::contextMenuEvent(QContextMenuEvent* e) { menu_->popup(e->globalPos()); }

void LedgerLine::keyPressEvent(QKeyEvent* e)
{
    const bool with_control = (e->modifiers() & Qt::ControlModifier) != 0;
    if (with_control && (e->key() == Qt::Key_Up || e->key() == Qt::Key_Down))
        return move(e->key() == Qt::Key_Up ? -1 : 1);
    if (e->key() == Qt::Key_Insert)
        return emit addition_wanted();
    if (e->key() == Qt::Key_Delete)
        return remove();
    QWidget::keyPressEvent(e);
}

// Buttons take arrow keys for themselves; a number keeps Delete for its text.
bool LedgerLine::eventFilter(QObject* watched, QEvent* e)
{
    if (e->type() == QEvent::FocusIn)
        emit touched();
    if (e->type() == QEvent::KeyPress) {
        auto* key = static_cast<QKeyEvent*>(e);
        const bool with_control = (key->modifiers() & Qt::ControlModifier) != 0;
        const bool in_number = qobject_cast<NumberEdit*>(watched) != nullptr;
        const bool moves = with_control && (key->key() == Qt::Key_Up || key->key() == Qt::Key_Down);
        const bool removes = key->key() == Qt::Key_Delete && (!in_number || with_control);
        if (moves || removes || key->key() == Qt::Key_Insert) {
            keyPressEvent(key);
            return true;
        }
    }
    return QWidget::eventFilter(watched, e);
}

} // namespace vernal
