#include "work_view.h"

#include "app/findings/findings_panel.h"
#include "theme.h"
#include "top_bar.h"

#include <QButtonGroup>
#include <QPushButton>
#include <QSplitter>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace vernal {
namespace {

template <class Box>
Box* tight(QWidget* w)
{
    auto* box = new Box(w);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(0);
    return box;
}

} // namespace

WorkView::WorkView(const StationContext& context, const QList<QAction*>& top_actions, QWidget* parent) : QWidget(parent), session_(context.session)
{
    stack_ = new QStackedWidget;
    for (const Station& s : stations())
        stack_->addWidget(s.make(context));
    strip_ = new Strip(session_);
    auto* upper = new QWidget;
    auto* row = tight<QHBoxLayout>(upper);
    row->addWidget(stack_, 1);
    row->addWidget(new FindingsPanel(session_));
    auto* split = new QSplitter(Qt::Vertical);
    split->addWidget(upper);
    split->addWidget(strip_);
    split->setStretchFactor(0, 1);
    split->setSizes({534, 216});
    split->setChildrenCollapsible(false);
    auto* top = new TopBar(session_, top_actions);
    connect(top, &TopBar::palette_wanted, this, &WorkView::palette_wanted);
    auto* all = tight<QVBoxLayout>(this);
    all->addWidget(top);
    auto* middle = new QHBoxLayout;
    middle->setSpacing(0);
    middle->addWidget(make_rail());
    middle->addWidget(split, 1);
    all->addLayout(middle, 1);
    connect(&session_, &Session::verdict_changed, this, &WorkView::mark_stations);
}

QWidget* WorkView::make_rail()
{
    auto* rail = new QFrame;
    rail->setObjectName("rail");
    rail->setFixedWidth(108);
    auto* box = new QVBoxLayout(rail);
    box->setContentsMargins(0, 14, 0, 8);
    box->setSpacing(4);
    auto* group = new QButtonGroup(rail);
    for (int i = 0; i < static_cast<int>(stations().size()); ++i) {
        auto* b = new QPushButton(QStringLiteral("%1  %2").arg(i + 1).arg(tr(stations()[static_cast<std::size_t>(i)].title)));
        b->setObjectName("rail");
        b->setCheckable(true);
        b->setToolTip(QStringLiteral("Ctrl+%1").arg(i + 1));
        group->addButton(b);
        connect(b, &QPushButton::clicked, this, [this, i] { show_station(i); });
        auto* mark = new QLabel(b);
        mark->setGeometry(88, 8, 16, 16);
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

void WorkView::mark_stations()
{
    for (QLabel* m : marks_)
        m->clear();
    for (const Finding& f : session_.verdict().findings) {
        QLabel* mark = marks_[station_of(f)];
        if (f.severity == Severity::note || !mark->text().isEmpty())
            continue;
        const bool serious = f.severity == Severity::serious;
        mark->setText(QStringLiteral("<span style='color:%1'>%2</span>").arg((serious ? theme().protect : theme().caution).name(), serious ? QStringLiteral("■") : QStringLiteral("▲")));
        mark->setAccessibleName(serious ? tr("a serious finding") : tr("a caution"));
    }
}

} // namespace vernal
