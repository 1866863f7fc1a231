#include "visit_edits.h"

#include "core/visit/dictation.h"
#include "core/visit/measured.h"

#include <QDateTime>

#include <algorithm>

namespace vernal {

QString now_moment() { return QDateTime::currentDateTime().toString(QStringLiteral("yyyy-MM-ddTHH:mm")); }
std::string today_date() { return QDate::currentDate().toString(Qt::ISODate).toStdString(); }

std::string begin_visit(Document& d, Purpose purpose)
{
    const Visit v = new_visit(d.job(), now_moment().toStdString(), purpose, d.variant().id);
    d.edit(QObject::tr("Begin a visit"), [&](Job& j) {
        j.logbook.visits.push_back(v);
        sort_visits(j);
    });
    return v.id;
}

void change_visit(Document& d, const std::string& id, const QString& label, const std::function<void(Visit&)>& change, const QString& merge_key)
{
    d.edit(
        label, [&](Job& j) {
            if (Visit* v = find_visit(j, id))
                change(*v);
            sort_visits(j);
        },
        merge_key);
}

void delete_draft(Document& d, const std::string& id)
{
    d.edit(QObject::tr("Delete a draft"), [&](Job& j) { std::erase_if(j.logbook.visits, [&](const Visit& v) { return v.id == id; }); });
}

QString close_visit(Document& d, const std::string& id)
{
    const Visit* v = find_visit(d.job(), id);
    if (!v)
        return {};
    if (const std::string why = cannot_close(*v); !why.empty())
        return qs(why);
    change_visit(d, id, QObject::tr("Close the visit"), [](Visit& x) { x.closed = true; });
    return {};
}

QString amend_visit(Document& d, const std::string& id, const Units& units, const QString& what, const QString& reason, const QString& by)
{
    const Visit* v = find_visit(d.job(), id);
    if (!v)
        return {};
    Amendment a;
    a.when = now_moment().toStdString();
    a.by = by.toStdString();
    a.reason = reason.toStdString();
    // A reading, said as on the page, stands in place of the one it amends.
    Visit said;
    said.when = v->when;
    if (dictate(said, what.toStdString(), variant_of(d.job(), *v), units) && !said.readings.empty())
        a.readings = said.readings;
    else
        a.text = what.toStdString();
    Visit amended = *v;
    if (const auto done = amend(amended, a); !done)
        return qs(done.error().text());
    change_visit(d, id, QObject::tr("Amend the visit"), [&](Visit& x) { x = amended; });
    return {};
}

Result<Visit> with_lines(const Visit& visit, const std::vector<std::string>& lines, const Variant& v, const Units& units)
{
    Visit out;
    out.id = visit.id;
    out.when = visit.when;
    out.closed = visit.closed;
    out.variant = visit.variant;
    out.found = visit.found;
    out.left = visit.left;
    out.photos = visit.photos;
    out.first_day = visit.first_day;
    out.amendments = visit.amendments;
    for (const std::string& line : lines)
        if (const auto said = dictate(out, line, v, units); !said)
            return said.error();
    return out;
}

} // namespace vernal
