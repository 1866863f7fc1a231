#include "visit_html.h"

#include "app/shell/theme.h"
#include "core/units/calendar.h"
#include "core/visit/check_list.h"
#include "core/visit/dictation.h"
#include "core/visit/first_day.h"
#include "core/visit/keeping.h"
#include "core/visit/measured.h"
#include "core/visit/reading_kind.h"
#include "core/visit/settings_seen.h"

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

class PageText {
public:
    PageText(const Job& job, const Visit& visit, const Units& units) : job_(job), visit_(visit), units_(units), v_(variant_of(job, visit)), lines_(dictated(visit)) {}

    QString html()
    {
        head();
        settings();
        measured();
        missing();
        tests();
        done();
        photos();
        first_day();
        next();
        amendments();
        return QStringLiteral("<div style='color:%1'>%2</div>").arg(theme().ink.name(), out_);
    }

private:
    static QString esc(const std::string& s) { return qs(s).toHtmlEscaped().replace(QLatin1Char('\n'), QLatin1String("<br>")); }
    // Figure and unit stay together, also at a slash.
    static QString unbroken(const std::string& s)
    {
        QString out = esc(s);
        out.replace(QLatin1Char(' '), QChar::Nbsp).replace(QLatin1Char('/'), QStringLiteral("/\u2060"));
        for (const char* may : {"at", ","}) // here it may break
            out.replace(QString(QChar::Nbsp) + QLatin1String(may) + QChar::Nbsp, QLatin1Char(' ') + QLatin1String(may) + QChar::Nbsp);
        return out.replace(QStringLiteral(",") + QChar::Nbsp, QStringLiteral(", "));
    }
    static QString second(const QString& s) { return QStringLiteral("<span style='color:%1'>%2</span>").arg(theme().second_ink.name(), s); }
    static QString in(const QColor& c, const QString& s) { return QStringLiteral("<span style='color:%1; font-weight:bold'>%2</span>").arg(c.name(), s); }
    static QString toned(Tone t, const std::string& s)
    {
        return t == Tone::good ? in(theme().accent, esc(s)) : t == Tone::caution ? in(theme().caution, QStringLiteral("▲ ") + esc(s))
                                                                                 : esc(s);
    }
    void heading(const QString& s) { out_ += QStringLiteral("<p style='margin-top:16px; margin-bottom:4px'><b>%1</b></p>").arg(s); }
    // Words that lead to the line they stand for; of a closed visit words alone.
    QString linked(const QString& words, const std::string& begins)
    {
        if (visit_.closed)
            return words;
        const auto it = std::find_if(lines_.begin() + static_cast<std::ptrdiff_t>(from_), lines_.end(), [&](const std::string& l) { return l.starts_with(begins); });
        if (it == lines_.end())
            return words;
        return QStringLiteral("<a href='line:%1' style='color:%2; text-decoration:none'>%3</a>").arg(it - lines_.begin()).arg(theme().ink.name(), words);
    }
    QString nth(const QString& words, const char* verb, std::size_t n)
    {
        std::size_t seen = 0;
        for (std::size_t i = 0; i < lines_.size(); ++i)
            if (lines_[i].starts_with(std::string(verb) + ":") && seen++ == n)
                return visit_.closed ? words : QStringLiteral("<a href='line:%1' style='color:%2; text-decoration:none'>%3</a>").arg(i).arg(theme().ink.name(), words);
        return words;
    }

    void head()
    {
        static const std::array purposes{QObject::tr("service"), QObject::tr("survey"), QObject::tr("commissioning"), QObject::tr("call-back"), QObject::tr("visit")};
        QString about = linked(purposes[static_cast<std::size_t>(visit_.purpose)], "purpose:");
        if (!visit_.title.empty())
            about += QStringLiteral(": ") + linked(esc(visit_.title), "title:");
        if (!visit_.weather.empty() || !visit_.sky.empty())
            about += QStringLiteral(" · ") + linked(esc(visit_.weather.empty() ? visit_.sky : visit_.weather), visit_.weather.empty() ? "sky:" : "weather:");
        out_ += QStringLiteral("<p style='margin:0'><span style='font-size:20px; font-weight:bold'>%1</span> &nbsp; %2</p>").arg(linked(esc(date_words(visit_.when)), "when:"), second(about));
        QString who = visit_.persons.empty() ? QObject::tr("nobody is named yet") : linked(esc(visit_.persons), "persons:");
        if (is_moment(visit_.when))
            who += QStringLiteral(" · ") + esc(visit_.when.substr(11));
        out_ += QStringLiteral("<p style='margin-top:2px'>%1</p>").arg(second(who + (visit_.closed ? QObject::tr(" · closed") : QString())));
    }

    void settings()
    {
        if (visit_.found.empty() && visit_.left.empty())
            return;
        heading(QObject::tr("Settings"));
        QStringList how;
        if (!visit_.found_how.empty())
            how << QObject::tr("found %1").arg(linked(esc(visit_.found_how), "found:"));
        if (!visit_.left_how.empty())
            how << QObject::tr("left %1").arg(linked(esc(visit_.left_how), "left:"));
        if (visit_.left.empty())
            how << QObject::tr("what is left is not said yet");
        out_ += QStringLiteral("<p style='margin:0'>%1</p>").arg(second(how.join(QStringLiteral(", "))));
        const Variant& left = visit_.left.empty() ? visit_.found.front() : visit_.left.front();
        const SettingsSeen seen = settings_seen(visit_.found.empty() ? left : visit_.found.front(), left, units_);
        for (const SettingLine& l : seen.lines) {
            QString s;
            for (const SettingPiece& p : l)
                s += (s.isEmpty() ? QString() : QStringLiteral(" ")) + (p.is == SettingPiece::Is::was ? second(QStringLiteral("<s>%1</s>").arg(esc(p.text))) : p.is == SettingPiece::Is::now ? QStringLiteral("<b>%1</b>").arg(esc(p.text))
                                                                                                                                                                                             : esc(p.text));
            out_ += QStringLiteral("<p style='margin:2px 0'>%1</p>").arg(s);
        }
        out_ += QStringLiteral("<p style='margin:2px 0'>%1</p>").arg(second(seen.same == 1 ? QObject::tr("1 line as it was.") : QObject::tr("%1 lines as they were.").arg(seen.same)));
    }

    // widths: of the columns, percent; empty: as they come.
    QString row(const QStringList& cells, const std::vector<bool>& right, const std::vector<int>& widths = {})
    {
        QString s = QStringLiteral("<tr>");
        for (int i = 0; i < cells.size(); ++i) {
            const auto at = static_cast<std::size_t>(i);
            s += QStringLiteral("<td align='%1'%4 style='padding:4px %5px 4px 0; border-bottom:1px solid %2'>%3</td>").arg(right[at] ? QStringLiteral("right") : QStringLiteral("left"), theme().hairline.name(), cells[i], at < widths.size() ? QStringLiteral(" width='%1%'").arg(widths[at]) : QString()).arg(right[at] ? 14 : 8);
        }
        return s + QStringLiteral("</tr>");
    }
    static QString table_begin() { return QStringLiteral("<table width='100%' cellspacing='0' style='border-collapse:collapse'>"); }

    void measured()
    {
        const auto rows = measured_rows(job_, visit_, units_);
        if (rows.empty())
            return;
        heading(QObject::tr("Measured"));
        const std::vector<bool> right{false, false, true, true, false};
        out_ += table_begin() + row({second(QObject::tr("what")), second(QObject::tr("how")), second(QObject::tr("value")), second(QObject::tr("last time")), second(QObject::tr("reading"))}, right, {20, 20, 17, 17, 26});
        for (const MeasuredRow& m : rows) {
            const ReadingKind* k = find_reading_kind(m.kind);
            QString what = esc(m.what);
            if (k && !visit_.closed) {
                const auto it = std::find_if(visit_.readings.begin(), visit_.readings.end(), [&](const VisitReading& r) { return r.kind == m.kind && r.of == m.of; });
                std::size_t nth_reading = static_cast<std::size_t>(it - visit_.readings.begin()), at = first_reading() + nth_reading;
                if (it != visit_.readings.end() && at < lines_.size())
                    what = QStringLiteral("<a href='line:%1' style='color:%2; text-decoration:none'>%3</a>").arg(at).arg(theme().ink.name(), what);
            }
            out_ += row({what, second(esc(m.how)), QStringLiteral("<b>%1</b>").arg(unbroken(m.value)), unbroken(m.last), toned(m.tone, m.says)}, right, {20, 20, 17, 17, 26});
        }
        out_ += QStringLiteral("</table>");
    }
    std::size_t first_reading() const
    {
        std::size_t n = 2; // when, purpose
        for (const std::string* s : {&visit_.title, &visit_.persons, &visit_.weather, &visit_.sky, &visit_.found_how, &visit_.left_how})
            n += s->empty() ? 0 : 1;
        return n;
    }

    // What this loop has and nobody has read yet: a click begins its line.
    void missing()
    {
        if (visit_.closed)
            return;
        QStringList words;
        for (const AskedReading& a : asked_readings(v_)) {
            if (std::any_of(visit_.readings.begin(), visit_.readings.end(), [&](const VisitReading& r) { return r.kind == a.kind->key && r.of == a.of; }))
                continue;
            const std::string begins = a.of.empty() ? a.kind->said : a.of;
            const QString name = a.of.empty() ? qs(a.kind->label) : qs(a.of + " " + a.kind->label);
            words << QStringLiteral("<a href='say:%1' style='color:%2'>%3</a>").arg(qs(begins).toHtmlEscaped(), theme().accent.name(), name.toHtmlEscaped().replace(QLatin1Char(' '), QLatin1String("&nbsp;")));
        }
        if (!words.isEmpty())
            out_ += QStringLiteral("<p style='margin-top:6px'>%1 %2</p>").arg(second(visit_.readings.empty() ? QObject::tr("Nothing is read yet:") : QObject::tr("Not read:")), words.join(QStringLiteral(" · ")));
    }

    void tests()
    {
        if (visit_.tests.empty())
            return;
        heading(QObject::tr("Tests"));
        for (std::size_t i = 0; i < visit_.tests.size(); ++i) {
            const BenchRecord* b = find_test(job_, visit_.tests[i]);
            if (!b) {
                out_ += QStringLiteral("<p style='margin:2px 0'>%1</p>").arg(nth(esc(visit_.tests[i]) + QObject::tr(" (no longer in the job)"), "test", i));
                continue;
            }
            const auto passed = std::count_if(b->steps.begin(), b->steps.end(), [](const BenchStep& s) { return s.verdict == StepVerdict::passed; });
            QString s = (b->verdict == StepVerdict::passed ? in(theme().accent, QStringLiteral("✓ ")) : in(theme().caution, QStringLiteral("▲ "))) + nth(QObject::tr("%1: %2 of %3").arg(esc(b->title)).arg(passed).arg(b->steps.size()), "test", i);
            for (const BenchStep& step : b->steps)
                if (step.verdict != StepVerdict::passed)
                    s += second(QStringLiteral(" · ") + esc(step.title) + (step.said.empty() ? QString() : QStringLiteral(": ") + esc(step.said)));
            out_ += QStringLiteral("<p style='margin:2px 0'>%1</p>").arg(s);
        }
    }

    void done()
    {
        if (visit_.faults.empty() && visit_.work.empty() && visit_.ticks.empty())
            return;
        heading(QObject::tr("Found, done and parts"));
        for (std::size_t i = 0; i < visit_.faults.size(); ++i)
            out_ += QStringLiteral("<p style='margin:2px 0'>%1 %2</p>").arg(in(theme().caution, QStringLiteral("▲")), nth(esc(visit_.faults[i].text) + (visit_.faults[i].of.empty() ? QString() : second(QStringLiteral(" · ") + esc(visit_.faults[i].of))), "fault", i));
        const std::vector<bool> right{false, true, true};
        if (!visit_.work.empty())
            out_ += table_begin();
        for (std::size_t i = 0; i < visit_.work.size(); ++i) {
            const VisitWork& w = visit_.work[i];
            QString words = esc(w.text);
            if (!w.part.empty())
                words += QStringLiteral(" · ") + esc(w.part);
            if (w.after_h > 0)
                words += QObject::tr(", after %1 h").arg(std::lround(w.after_h));
            if (w.after_starts > 0)
                words += QObject::tr(" and %1 starts").arg(std::lround(w.after_starts));
            out_ += row({nth(words, "done", i), w.minutes_s > 0 ? QObject::tr("%1 min").arg(std::lround(w.minutes_s / 60)) : QStringLiteral("–"), w.cost > 0 ? QStringLiteral("%1 %2").arg(w.cost, 0, 'f', 2).arg(esc(job_.logbook.costs.money)).trimmed() : QStringLiteral("–")}, right);
        }
        if (!visit_.work.empty())
            out_ += QStringLiteral("</table>");
        if (!visit_.ticks.empty())
            out_ += QStringLiteral("<p style='margin:4px 0'>%1</p>").arg(second(QObject::tr("%1 items of a list were come to; see Lists.").arg(visit_.ticks.size())));
    }

    void photos()
    {
        if (visit_.photos.empty())
            return;
        heading(QObject::tr("Photos"));
        QString pictures, words;
        for (const VisitPhoto& p : visit_.photos) {
            pictures += QStringLiteral("<td style='padding-right:10px'><a href='photo:%1'><img src='photo/%1' height='80'></a></td>").arg(qs(p.sha256));
            words += QStringLiteral("<td style='padding-right:10px'>%1</td>").arg(second(esc(p.caption + (p.of.empty() ? "" : " · " + p.of))));
        }
        out_ += QStringLiteral("<table><tr>%1</tr><tr>%2</tr></table>").arg(pictures, words);
    }

    void first_day()
    {
        const auto rows = first_day_rows(job_, visit_, units_);
        if (rows.empty())
            return;
        heading(QObject::tr("First day, %1").arg(esc(date_words(visit_.first_day.date))));
        const std::vector<bool> right{false, true, true, false};
        out_ += table_begin() + row({QString(), second(QObject::tr("foretold")), second(QObject::tr("reached")), QString()}, right);
        for (const FirstDayRow& r : rows)
            out_ += row({esc(r.what), esc(r.foretold), esc(r.reached), toned(r.tone, r.says)}, right);
        out_ += QStringLiteral("</table>");
    }

    void next()
    {
        if (!visit_.notes.empty()) {
            heading(QObject::tr("Notes"));
            out_ += QStringLiteral("<p style='margin:2px 0'>%1</p>").arg(linked(esc(visit_.notes), "note:"));
        }
        if (!visit_.next.empty())
            heading(QObject::tr("Next"));
        for (std::size_t i = 0; i < visit_.next.size(); ++i)
            out_ += QStringLiteral("<p style='margin:2px 0'>%1%2</p>").arg(nth(esc(visit_.next[i].text), "next", i), visit_.next[i].by.empty() ? QString() : QObject::tr(" · <b>by %1</b>").arg(esc(date_words(visit_.next[i].by))));
    }

    void amendments()
    {
        if (visit_.amendments.empty())
            return;
        heading(QObject::tr("Amended"));
        for (const Amendment& a : visit_.amendments) {
            QString s = esc(a.text);
            for (const VisitReading& r : a.readings)
                if (const ReadingKind* k = find_reading_kind(r.kind))
                    s += QStringLiteral(" %1 <b>%2</b>").arg(esc(reading_label(*k, r.of, &v_)), esc(reading_text(r, units_)));
            out_ += QStringLiteral("<p style='margin:2px 0'>%1: %2 %3</p>").arg(esc(moment_words(a.when) + (a.by.empty() ? "" : ", " + a.by)), s, second(QObject::tr("because %1").arg(esc(a.reason))));
        }
    }

    const Job& job_;
    const Visit& visit_;
    const Units& units_;
    const Variant& v_;
    std::vector<std::string> lines_;
    std::size_t from_ = 0;
    QString out_;
};

} // namespace

QString visit_html(const Job& job, const Visit& visit, const Units& units) { return PageText(job, visit, units).html(); }

} // namespace vernal
