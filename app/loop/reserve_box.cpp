#include "reserve_box.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"

#include <QLabel>
#include <QPointer>
#include <QPushButton>
#include <QThreadPool>
#include <QVBoxLayout>

namespace vernal {

ReserveBox::ReserveBox(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    setObjectName("reserve");
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 6, 0, 0);
    box->addWidget(heading(tr("Without sun, and with the element")));
    ask_ = new QPushButton(tr("Work it out for this day"));
    ask_->setObjectName("askReserve");
    box->addWidget(ask_);
    answer_ = new QLabel;
    answer_->setObjectName("reserveAnswer");
    answer_->setWordWrap(true);
    answer_->hide();
    box->addWidget(answer_);
    connect(ask_, &QPushButton::clicked, this, &ReserveBox::ask);
}

void ReserveBox::ask()
{
    const Document& doc = session_.document();
    if (doc.day().kind == DayKind::recorded) {
        answer_->setText(tr("A log holds what its own pump did. Choose a generated day at the Days station."));
        answer_->show();
        return;
    }
    ask_->setEnabled(false);
    answer_->setText(tr("working …"));
    answer_->show();
    QThreadPool::globalInstance()->start([box = QPointer(this), job = doc.job(), variant = doc.variant(), day = doc.day()] {
        Answer a;
        const auto reserve = reserve_of(job, variant, day);
        const auto cases = backup_cases(job, variant, day);
        if (reserve && cases) {
            a.reserve = *reserve;
            a.cases = *cases;
        } else {
            a.problem = (reserve ? cases.error() : reserve.error()).text();
        }
        // Another part may have been clicked meanwhile: the box is gone then.
        QMetaObject::invokeMethod(qApp, [box, a] {
            if (box)
                box->show(a);
        });
    });
}

void ReserveBox::show(const Answer& a)
{
    ask_->setEnabled(true);
    if (!a.reserve)
        return answer_->setText(qs(a.problem));
    const Reserve& r = *a.reserve;
    const auto days = [](double s) { return QLocale::c().toString(s / 86400.0, 'f', 1); };
    QString s = std::isnan(r.hot_s) ? tr("After this day the taps stay warm for %1 days without sun.").arg(most_dark_days) : tr("After this day the taps stay warm for %1 days without sun.").arg(days(r.hot_s));
    if (r.battery)
        s += QStringLiteral(" ") + (std::isnan(r.battery_s) ? tr("The battery holds for %1 days.").arg(most_dark_days) : tr("The battery is cut off after %1 days.").arg(days(r.battery_s)));
    s += QStringLiteral("<table cellspacing='0' cellpadding='3'><tr><td><b>%1</b></td><td><b>%2</b></td><td><b>%3</b></td></tr>").arg(tr("element"), tr("solar fraction"), tr("it takes"));
    const QString names[] = {tr("off"), tr("always"), tr("in windows")};
    for (const BackupCase& c : a.cases)
        s += QStringLiteral("<tr><td>%1</td><td>%2</td><td>%3</td></tr>").arg(names[static_cast<std::size_t>(c.mode)], text(c.figures.solar_fraction(), Quantity::ratio, session_.units()), text(c.figures.heat.backup(), Quantity::electricity, session_.units()));
    answer_->setText(s + QStringLiteral("</table>"));
}

} // namespace vernal
