#include "work_view.h"

#include "app/findings/finding_mark.h"
#include "app/findings/findings_spine.h"
#include "app/widgets/cursor_clock.h"
#include "app/widgets/quiet_stack.h"
#include "theme.h"
#include "top_bar.h"

#include <QApplication>
#include <QButtonGroup>
#include <QKeyEvent>
#include <QPushButton>
#include <QSettings>
#include <QSplitter>
#include <QVBoxLayout>

namespace vernal {
namespace {

constexpr int rail_px = 66;

template <class Box>
Box* tight(QWidget* w)
{
    auto* box = new Box(w);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(0);
    return box;
}

} // namespace

WorkView::WorkView(const StationContext& context, const Actions& actions, bool remember, QWidget* parent) : QWidget(parent), session_(context.session), remember_(remember)
{
    auto* top = new TopBar(session_, actions.save, actions.sheet, actions.others);
    connect(top, &TopBar::palette_wanted, this, &WorkView::palette_wanted);
    auto* rail = make_rail();
    stack_ = new QuietStack;
    for (const Station& s : stations())
        stack_->addWidget(s.make(context));
    upper_ = new QWidget;
    upper_->installEventFilter(this);
    auto* row = tight<QHBoxLayout>(upper_);
    row->addWidget(stack_, 1);
    findings_ = new FindingsPanel(session_, upper_);
    findings_->setProperty("pane", true);
    findings_->hide();
    spine_ = new FindingsSpine(session_);
    row->addWidget(spine_);
    connect(spine_, &FindingsSpine::clicked, this, [this] { show_findings(!findings_shown()); });
    connect(findings_, &FindingsPanel::close_wanted, this, [this] { show_findings(false); });
    connect(findings_, &FindingsPanel::pin_wanted, this, &WorkView::pin_findings);
    connect(&session_, &Session::finding_wanted, this, [this](const QString& which) {
        show_findings(true);
        findings_->try_remedy(which);
    });
    strip_ = new Strip(session_);
    connect(strip_, &Strip::height_wanted, this, &WorkView::show_strip);
    split_ = new QSplitter(Qt::Vertical);
    split_->addWidget(upper_);
    split_->addWidget(strip_);
    split_->setStretchFactor(0, 1);
    split_->setStretchFactor(1, 0);
    split_->setChildrenCollapsible(false);
    connect(split_, &QSplitter::splitterMoved, this, [this] { keep("strip/px", strip_->height()); });
    auto* all = tight<QVBoxLayout>(this);
    all->addWidget(top);
    auto* middle = new QHBoxLayout;
    middle->setSpacing(0);
    middle->addWidget(rail);
    middle->addWidget(split_, 1);
    all->addLayout(middle, 1);
    connect(&session_, &Session::verdict_changed, this, &WorkView::mark_stations);
    if (remember_ && QSettings().value(QStringLiteral("findings/pinned")).toBool())
        pin_findings(true);
}

void WorkView::keep(const char* key, const QVariant& value) const
{
    if (remember_)
        QSettings().setValue(QString::fromLatin1(key), value);
}

void WorkView::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    const auto height = remember_ ? static_cast<Strip::Height>(std::clamp(QSettings().value(QStringLiteral("strip/height"), 1).toInt(), 0, 2)) : strip_->shown_height();
    const int px = remember_ ? QSettings().value(QStringLiteral("strip/px"), 0).toInt() : 0;
    QMetaObject::invokeMethod(
        this, [this, height, px] {
            show_strip(height);
            if (px > 0 && height != Strip::Height::lanes)
                split_->setSizes({split_->height() - px, px});
        },
        Qt::QueuedConnection);
}

void WorkView::show_strip(Strip::Height h)
{
    strip_->show_height(h);
    const int px = strip_->wanted_px(h);
    strip_->setMaximumHeight(h == Strip::Height::lanes ? px : QWIDGETSIZE_MAX);
    split_->setSizes({std::max(0, split_->height() - px), px});
    keep("strip/height", static_cast<int>(h));
    keep("strip/px", px);
}

void WorkView::next_strip_height() { show_strip(static_cast<Strip::Height>((static_cast<int>(strip_->shown_height()) + 1) % 3)); }

void WorkView::pin_findings(bool pinned)
{
    pinned_ = pinned;
    auto* row = static_cast<QHBoxLayout*>(upper_->layout());
    row->removeWidget(findings_);
    if (pinned)
        row->insertWidget(1, findings_);
    findings_->show_pinned(pinned);
    keep("findings/pinned", pinned);
    show_findings(true);
}

bool WorkView::findings_shown() const { return findings_->isVisibleTo(upper_); }

void WorkView::show_findings(bool open)
{
    findings_->setVisible(open);
    spine_->setVisible(!(open && pinned_));
    place_findings();
}

void WorkView::place_findings()
{
    if (pinned_ || !findings_shown())
        return;
    findings_->setGeometry(upper_->width() - FindingsSpine::width_px - FindingsPanel::width_px, 0, FindingsPanel::width_px, upper_->height());
    findings_->raise();
}

bool WorkView::eventFilter(QObject* watched, QEvent* e)
{
    if (watched == upper_ && e->type() == QEvent::Resize)
        place_findings();
    return QWidget::eventFilter(watched, e);
}

void WorkView::ask_time()
{
    for (CursorClock* clock : findChildren<CursorClock*>())
        if (clock->isVisible())
            return clock->take_focus();
}

// Escape folds what lies over the work.
void WorkView::keyPressEvent(QKeyEvent* e)
{
    if (e->key() == Qt::Key_Escape && findings_shown() && findings_->leave_try())
        return;
    if (e->key() == Qt::Key_Escape && findings_shown() && !pinned_)
        return show_findings(false);
    // What the focused button did not take.
    if (auto* button = qobject_cast<QAbstractButton*>(QApplication::focusWidget()); button && (e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter))
        return button->click();
    QWidget::keyPressEvent(e);
}

QList<QAction*> WorkView::commands() const
{
    QList<QAction*> all;
    for (int i = 0; i < stack_->count(); ++i)
        all += stack_->widget(i)->actions();
    return all;
}

void WorkView::next_pane()
{
    QList<QWidget*> panes;
    for (QWidget* w : findChildren<QWidget*>())
        if (w->property("pane").toBool() && w->isVisible())
            panes.append(w);
    if (panes.isEmpty())
        return;
    qsizetype now = -1;
    for (qsizetype i = 0; i < panes.size(); ++i)
        if (QWidget* focus = QApplication::focusWidget(); focus && (panes[i] == focus || panes[i]->isAncestorOf(focus)))
            now = i;
    QWidget* next = panes[(now + 1) % panes.size()];
    QList<QWidget*> inside = next->findChildren<QWidget*>();
    inside.prepend(next);
    for (QWidget* w : inside)
        if (w->isVisible() && w->isEnabled() && (w->focusPolicy() & Qt::TabFocus) != 0)
            return w->setFocus(Qt::TabFocusReason);
}

QWidget* WorkView::make_rail()
{
    auto* rail = new QFrame;
    rail->setObjectName("rail");
    rail->setProperty("pane", true);
    rail->setFixedWidth(rail_px);
    auto* box = new QVBoxLayout(rail);
    box->setContentsMargins(0, 2, 1, 8);
    box->setSpacing(0);
    auto* group = new QButtonGroup(rail);
    for (int i = 0; i < static_cast<int>(stations().size()); ++i) {
        const QString title = tr(stations()[static_cast<std::size_t>(i)].title);
        auto* b = new QPushButton(QStringLiteral("%1\n%2").arg(i + 1).arg(title));
        b->setObjectName("rail");
        b->setCheckable(true);
        b->setAccessibleName(title);
        b->setToolTip(QStringLiteral("Ctrl+%1").arg(i + 1));
        group->addButton(b);
        connect(b, &QPushButton::clicked, this, [this, i] { show_station(i); });
        auto* mark = new QLabel(b);
        mark->setGeometry(rail_px - 18, 6, 16, 16);
        mark->setAttribute(Qt::WA_TransparentForMouseEvents);
        marks_.append(mark);
        rail_.append(b);
        box->addWidget(b);
    }
    box->addStretch(1);
    return rail;
}

void WorkView::show_station(int index)
{
    stack_->setCurrentIndex(index);
    rail_[index]->setChecked(true);
    strip_->setVisible(stations()[static_cast<std::size_t>(index)].with_strip);
}

int WorkView::station() const { return stack_->currentIndex(); }

void WorkView::mark_stations()
{
    for (QLabel* m : marks_)
        m->clear();
    for (const Finding& f : session_.findings()) {
        QLabel* mark = marks_[station_of(f)];
        if (f.severity == Severity::note || !mark->text().isEmpty())
            continue;
        const SeverityMark m = mark_of(f.severity);
        mark->setText(QStringLiteral("<span style='color:%1'>%2</span>").arg(m.colour.name(), QString::fromUtf8(m.sign)));
        mark->setAccessibleName(f.severity == Severity::serious ? tr("a serious finding") : tr("a caution"));
    }
}

} // namespace vernal
