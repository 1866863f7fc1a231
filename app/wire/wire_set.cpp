#include "wire_set.h"

#include "app/bench/bench_parts.h"
#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "core/job/job_check.h"

#include <QCheckBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QProgressBar>
#include <QPushButton>
#include <QScrollArea>
#include <QVBoxLayout>

#include <algorithm>

namespace vernal {
WireSet::WireSet(Session& session, WireLink& link, QWidget* parent) : QWidget(parent), session_(session), link_(link)
{
    heads_ = wrapped_label("wireDiffers");
    harm_ = wrapped_label("wireHarm");
    left_ = remark();
    left_->setObjectName(QStringLiteral("wireLeft"));
    auto* list = new QWidget;
    rows_ = new QVBoxLayout(list);
    rows_->setContentsMargins(0, 0, 0, 0);
    rows_->setSpacing(8);
    auto* scroll = new QScrollArea;
    scroll->setWidget(list);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list->setAutoFillBackground(false);
    scroll->viewport()->setAutoFillBackground(false);
    write_ = bench_button(tr("Write the chosen …"), "wireWrite");
    as_variant_ = bench_button(tr("As found, as a variant"), "wireAsVariant");
    log_ = bench_button(tr("Its log into Days"), "wireLog");
    again_ = bench_button(tr("Read anew"), "wireAgain");
    progress_ = new QProgressBar;
    progress_->setObjectName(QStringLiteral("wireProgress"));
    progress_->hide();
    auto* top = new QHBoxLayout;
    top->addWidget(heading(tr("How it is set")), 1);
    top->addWidget(again_);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(6);
    box->addLayout(top);
    box->addWidget(heads_);
    box->addWidget(scroll, 1);
    box->addWidget(harm_);
    box->addWidget(write_);
    box->addWidget(left_);
    box->addWidget(as_variant_);
    box->addWidget(log_);
    box->addWidget(progress_);
    connect(write_, &QPushButton::clicked, this, [this] {
        std::vector<WireWrite> chosen;
        for (const auto& [tick, w] : boxes_)
            if (tick->isChecked())
                chosen.push_back(w);
        if (!chosen.empty())
            emit asked(chosen);
    });
    connect(as_variant_, &QPushButton::clicked, this, &WireSet::as_variant);
    connect(again_, &QPushButton::clicked, &link_, &WireLink::read_settings);
    connect(log_, &QPushButton::clicked, this, [this] { progress_->isVisible() ? link_.stop_log() : link_.read_log(); });
    connect(&link, &WireLink::changed, this, &WireSet::refresh);
    connect(&link, &WireLink::log_progress, this, [this](int done, int all) {
        progress_->setRange(0, all);
        progress_->setValue(done);
        progress_->show();
        log_->setText(tr("Stop reading the log"));
    });
    connect(&link, &WireLink::log_read, this, &WireSet::keep_log);
    connect(&link, &WireLink::log_failed, this, [this](const QString& why) {
        progress_->hide();
        refresh();
        emit said(in_colour(theme().protect, tr("The log was not taken over: %1.").arg(why)));
    });
    for (auto signal : {&Document::changed, &Document::view_changed})
        connect(&session.document(), signal, this, &WireSet::refresh);
    for (auto signal : {&Session::units_changed, &Session::verdict_changed})
        connect(&session, signal, this, &WireSet::refresh);
    refresh();
}

void WireSet::refresh()
{
    const bool joined = link_.state() == WireLink::State::joined && link_.whole();
    for (QPushButton* b : {as_variant_, log_, again_})
        b->setEnabled(joined);
    if (!progress_->isVisible())
        log_->setText(tr("Its log into Days"));
    const Document& d = session_.document();
    const auto found = joined ? wire_differences(link_.map(), link_.image(), d.job(), d.variant_index(), session_.units()) : std::vector<WireDifference>();
    heads_->setText(!joined ? tr("What it is set to is compared with the variant in hand once it is joined.") : found.empty() ? tr("It is set as “%1” has it, as near as it can be.").arg(qs(d.variant().name).toHtmlEscaped())
                                                                                                                              : tr("Otherwise than “%1” has it:").arg(qs(d.variant().name).toHtmlEscaped()));
    const auto left = joined ? as_found(link_.map(), link_.image(), d.job(), d.variant_index()).left : std::vector<std::string>();
    QStringList words;
    for (const std::string& l : left)
        words << qs(l);
    constexpr int most = 3;
    left_->setText(words.mid(0, most).join(QLatin1Char(' ')) + (words.size() > most ? tr(" And %1 more.").arg(words.size() - most) : QString()));
    left_->setVisible(!words.isEmpty());
    lay_out(found);
}

// What is ticked stays ticked while the same differences stand.
void WireSet::lay_out(const std::vector<WireDifference>& found)
{
    QStringList now;
    for (const WireDifference& f : found)
        now << qs(f.sentence + f.why_not);
    if (now != shown_) {
        shown_ = now;
        clear_layout(rows_);
        boxes_.clear();
        for (const WireDifference& f : found) {
            auto* row = new QHBoxLayout;
            auto* says = wrapped_label("wireDifference");
            says->setText(qs(f.sentence).toHtmlEscaped() + (f.why_not.empty() ? QString() : QStringLiteral(" <i>%1</i>").arg(qs(f.why_not).toHtmlEscaped())));
            auto* tick = new QCheckBox;
            tick->setObjectName(QStringLiteral("wire/%1").arg(qs(f.path)));
            tick->setAccessibleName(tr("Write: %1").arg(qs(f.sentence)));
            tick->setEnabled(f.write.has_value());
            row->addWidget(tick, 0, Qt::AlignTop);
            row->addWidget(says, 1);
            rows_->addLayout(row);
            connect(tick, &QCheckBox::toggled, this, &WireSet::choose);
            if (f.write)
                boxes_.emplace_back(tick, *f.write);
        }
        rows_->addStretch(1);
    }
    write_->setVisible(!found.empty());
    const auto serious = std::count_if(session_.findings().begin(), session_.findings().end(), [](const Finding& f) { return f.severity == Severity::serious; });
    harm_->setVisible(!found.empty() && serious > 0);
    harm_->setText(in_colour(theme().protect, tr("Serious findings on this variant (%1): read them before the unit is set so.").arg(serious)));
    choose();
}

void WireSet::choose()
{
    const auto chosen = std::count_if(boxes_.begin(), boxes_.end(), [](const auto& b) { return b.first->isChecked(); });
    write_->setEnabled(link_.armed() && chosen > 0);
    write_->setToolTip(!link_.armed() ? tr("It is read-only: arm it first") : tr("One by one, each shown before"));
}

void WireSet::as_variant()
{
    Document& doc = session_.document();
    const std::size_t from = doc.variant_index();
    AsFound found = as_found(link_.map(), link_.image(), doc.job(), from);
    found.variant.id.clear();
    const std::string name = tr("as found %1").arg(QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-dd HH:mm"))).toStdString();
    doc.edit(tr("As found on the wire"), [&](Job& j) {
        found.variant.name = free_name(j.variants, name);
        j.variants.push_back(found.variant);
    });
    emit said(tr("It stands beside the others as the variant “%1”.").arg(qs(found.variant.name).toHtmlEscaped()));
}

void WireSet::keep_log(int rows)
{
    progress_->hide();
    Document& doc = session_.document();
    auto trace = std::make_shared<const Trace>(log_trace(link_.map(), link_.image(), doc.variant(), rows, QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-ddTHH:mm:ss")).toStdString()));
    const std::string name = tr("on the wire %1").arg(QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-dd HH:mm"))).toStdString();
    std::string called;
    doc.edit(tr("Log from the wire"), [&](Job& j) {
        const std::string file = free_trace_name(j, name + ".csv");
        Day day = j.days[doc.day_index()];
        day.id.clear();
        day.kind = DayKind::recorded;
        day.faults.clear();
        called = day.name = free_name(j.days, name);
        day.trace = file;
        j.traces[file] = trace;
        j.days.push_back(day);
    });
    refresh();
    emit said(tr("%1 rows of its log stand among the days as “%2”. Days runs the rules on it, Run audits it.").arg(rows).arg(qs(called).toHtmlEscaped()));
}

} // namespace vernal
