#include "difference_line.h"

#include "core/study/difference.h"

#include <QCoreApplication>
#include <QPointer>
#include <QThreadPool>

#include <algorithm>

namespace vernal {
namespace {

constexpr int rest_ms = 250; // while numbers are dragged nobody reads a reason

} // namespace

DifferenceLine::DifferenceLine(Session& session, QWidget* parent) : QLabel(parent), session_(session)
{
    setObjectName("difference");
    setWordWrap(true);
    setTextInteractionFlags(Qt::TextSelectableByMouse);
    soon_ = new QTimer(this);
    soon_->setSingleShot(true);
    soon_->setInterval(rest_ms);
    connect(soon_, &QTimer::timeout, this, &DifferenceLine::ask);
}

DifferenceLine::~DifferenceLine() { under_way_.request_stop(); }

void DifferenceLine::refresh()
{
    under_way_.request_stop();
    ++asked_;
    const bool two = session_.verdict().baseline_figures.has_value();
    setVisible(two);
    if (two && isVisible())
        soon_->start();
}

// All of it is shown: the table beside it gives way first.
void DifferenceLine::say(const QString& what)
{
    setText(what);
    keep_height();
}

void DifferenceLine::keep_height() { setMinimumHeight(std::max(0, heightForWidth(width()))); } // −1 while there is no word

void DifferenceLine::resizeEvent(QResizeEvent* e)
{
    QLabel::resizeEvent(e);
    if (e->oldSize().width() != width())
        keep_height();
}

void DifferenceLine::showEvent(QShowEvent* e)
{
    QLabel::showEvent(e);
    soon_->start();
}

void DifferenceLine::ask()
{
    const Document& doc = session_.document();
    const Job& job = doc.job();
    const auto other = std::find_if(job.variants.begin(), job.variants.end(), [&](const Variant& v) { return v.name == session_.verdict().baseline_name; });
    if (!isVisible() || other == job.variants.end() || doc.day().kind == DayKind::recorded)
        return;
    under_way_ = {};
    if (text().isEmpty())
        say(tr("Working out why they differ …"));
    QThreadPool::globalInstance()->start([line = QPointer(this), job, mine = doc.variant_index(), from = static_cast<std::size_t>(other - job.variants.begin()), day = doc.day(), units = session_.units(), stop = under_way_.get_token(), id = asked_] {
        const auto d = difference_between(job, mine, from, day, units, stop);
        if (!d)
            return;
        const std::string said = difference_text(*d, job.variants[mine].name, job.variants[from].name, units);
        QMetaObject::invokeMethod(qApp, [line, said, id] {
            if (line && line->asked_ == id)
                line->say(qs(said));
        });
    });
}

} // namespace vernal
