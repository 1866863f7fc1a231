#include "log_edit_sheet.h"

#include "app/widgets/form.h"
#include "core/job/job_check.h"
#include "core/job/trace_edit.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <limits>

namespace vernal {
namespace {

constexpr double ever_s = std::numeric_limits<double>::infinity();

QPushButton* button(const char* name, const QString& words)
{
    auto* b = new QPushButton(words);
    b->setObjectName(QString::fromLatin1(name));
    b->setProperty("look", "quiet");
    return b;
}

} // namespace

LogEditSheet::LogEditSheet(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(4);
    words_ = remark();
    box->addWidget(words_);
    auto* cuts = new QHBoxLayout;
    cut_ = button("cutLog", tr("Keep only it"));
    cut_out_ = button("cutOutLog", tr("Cut it out"));
    cuts->addWidget(cut_);
    cuts->addWidget(cut_out_);
    cuts->addStretch(1);
    box->addLayout(cuts);
    auto* sheet = new FieldSheet(session_);
    columns_ = new QComboBox;
    columns_->setObjectName(QStringLiteral("editColumns"));
    columns_->setAccessibleName(tr("Readings that are changed"));
    columns_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    sheet->add(tr("Of"), columns_);
    number(*sheet, "editOffset", tr("Correct by"), Quantity::difference, -100, 100, 0, [this](double k) {
        apply(tr("Correct a reading"), [this, k](const Trace& t) { return scaled(t, columns(), {stretch().first, stretch().second}, 1, k); });
    });
    number(*sheet, "editFactor", tr("Multiply by"), Quantity::small_number, -1000, 1000, 1, [this](double f) {
        apply(tr("Scale a reading"), [this, f](const Trace& t) { return scaled(t, columns(), {stretch().first, stretch().second}, f, 0); });
    });
    number(*sheet, "editSmooth", tr("Smooth over"), Quantity::duration, 0, 86400, 0, [this](double s) {
        apply(tr("Smooth a reading"), [this, s](const Trace& t) { return smoothed(t, columns(), {stretch().first, stretch().second}, s); });
    });
    number(*sheet, "editShift", tr("Whole log later by"), Quantity::minutes, -366 * 86400.0, 366 * 86400.0, 0, [this](double s) {
        apply(tr("Shift a log"), [s](const Trace& t) { return shifted(t, s); });
    });
    number(*sheet, "editRows", tr("A row each"), Quantity::duration, 0, 86400, 0, [this](double s) {
        apply(tr("Take rows at even distances"), [s](const Trace& t) { return resampled(t, s); });
    });
    join_ = new QComboBox;
    join_->setObjectName(QStringLiteral("joinLog"));
    join_->setAccessibleName(tr("Join with another log"));
    join_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    sheet->add(tr("Join with"), join_);
    box->addWidget(sheet);
    connect(join_, &QComboBox::activated, this, [this](int i) {
        if (i > 0)
            join_with(join_->itemText(i));
    });
    connect(qobject_cast<QPushButton*>(cut_), &QPushButton::clicked, this, [this] {
        apply(tr("Cut a log"), [this](const Trace& t) { return cut(t, stretch().first, stretch().second); });
        session_.mark({});
    });
    connect(qobject_cast<QPushButton*>(cut_out_), &QPushButton::clicked, this, [this] {
        apply(tr("Cut out of a log"), [this](const Trace& t) { return cut_out(t, stretch().first, stretch().second); });
        session_.mark({});
    });
    connect(&session_, &Session::marked_changed, this, &LogEditSheet::refresh);
}

// A row that does something once when a number is typed, and stands at nothing again.
NumberEdit* LogEditSheet::number(FieldSheet& sheet, const char* key, const QString& label, Quantity q, double min, double max, double at, const std::function<void(double)>& take)
{
    const NumberField field{key, "", q, min, max, ""};
    auto* edit = new NumberEdit(session_, field);
    edit->stand_in_row();
    edit->setObjectName(QString::fromLatin1(key));
    edit->setAccessibleName(label);
    edit->set_value(at);
    sheet.add(label, edit);
    connect(edit, &NumberEdit::edited, this, [edit, at, take](double to) {
        if (to != at)
            take(to);
        edit->set_value(at);
    });
    return edit;
}

const Trace* LogEditSheet::trace() const
{
    const Document& d = session_.document();
    const auto it = d.job().traces.find(d.day().trace);
    return it == d.job().traces.end() ? nullptr : it->second.get();
}

std::vector<std::string> LogEditSheet::columns() const
{
    std::vector<std::string> out;
    const QString chosen = columns_->currentData().toString();
    for (const TraceColumn& c : trace()->columns)
        if (chosen.isEmpty() ? c.quantity == Quantity::temperature : c.name == chosen.toStdString())
            out.push_back(c.name);
    return out;
}

std::pair<double, double> LogEditSheet::stretch() const
{
    const auto& m = session_.marked();
    return m ? std::pair(m->from_s, m->to_s) : std::pair(-ever_s, ever_s);
}

void LogEditSheet::apply(const QString& label, const Edit& edit)
{
    const Trace* now = trace();
    if (!now)
        return;
    auto made = edit(*now);
    if (!made)
        return void(emit said(qs(made.error().text())));
    auto shared = std::make_shared<const Trace>(std::move(*made));
    session_.document().edit(label, [&, day = session_.document().day_index()](Job& j) {
        const std::string old = j.days[day].trace;
        const std::string name = old.starts_with("edited ") ? old : free_trace_name(j, "edited " + old);
        const bool shown_elsewhere = std::count_if(j.days.begin(), j.days.end(), [&](const Day& d) { return d.trace == name; }) > (old == name ? 1 : 0);
        const std::string to = shown_elsewhere ? free_trace_name(j, name) : name;
        j.traces[to] = shared;
        j.days[day].trace = to;
    });
    emit said(tr("%1: %2 rows. The log as it was stays in the job.").arg(label).arg(shared->time_s.size()));
}

void LogEditSheet::join_with(const QString& other)
{
    const auto& traces = session_.document().job().traces;
    const auto it = traces.find(other.toStdString());
    if (it == traces.end())
        return;
    apply(tr("Join two logs"), [add = it->second](const Trace& t) { return join({t, *add}); });
}

void LogEditSheet::refresh()
{
    const Trace* t = trace();
    if (!t)
        return;
    const QSignalBlocker quiet(columns_), quiet_join(join_);
    const QString chosen = columns_->currentData().toString();
    columns_->clear();
    columns_->addItem(tr("all temperatures"), QString());
    for (const TraceColumn& c : t->columns)
        columns_->addItem(qs(c.name), qs(c.name));
    columns_->setCurrentIndex(std::max(0, columns_->findData(chosen)));
    join_->clear();
    join_->addItem(tr("…"));
    for (const auto& [name, trace] : session_.document().job().traces)
        if (name != session_.document().day().trace)
            join_->addItem(qs(name));
    join_->setEnabled(join_->count() > 1);
    const auto& m = session_.marked();
    words_->setText(m ? tr("On the marked stretch, %1 to %2:").arg(session_.time_text(m->from_s), session_.time_text(m->to_s)) : tr("On the whole log; mark a stretch above to edit that alone."));
    cut_->setEnabled(m.has_value());
    cut_out_->setEnabled(m.has_value());
}

} // namespace vernal
