#include "spell_rows.h"

#include <cmath>

namespace vernal {
namespace {

struct Spell {
    NumberField field;
    int Day::*value;
    bool only_of_several, only_with_guests;
};

const std::vector<Spell>& spells()
{
    static const std::vector<Spell> table{
        {{"length_days", "Lasts, in days", Quantity::count, 1, longest_days, "Each with the next date and other clouds of its kind"}, &Day::length_days, false, false},
        {{"away_days", "Nobody draws, for days", Quantity::count, 0, longest_days, "Stores begin as days at home leave them", "never"}, &Day::away_days, true, false},
        {{"away_from", "from day", Quantity::count, 1, longest_days, ""}, &Day::away_from, true, false},
        {{"guests_days", "Guests, for days", Quantity::count, 0, longest_days, "", "none"}, &Day::guests_days, true, false},
        {{"guests_from", "from day", Quantity::count, 1, longest_days, ""}, &Day::guests_from, true, true},
    };
    return table;
}

} // namespace

std::function<void()> add_spell_rows(FieldSheet& sheet, Session& session, const std::function<std::string(const std::string&)>& path)
{
    std::vector<NumberEdit*> edits;
    for (const Spell& s : spells()) {
        auto* edit = new NumberEdit(session, s.field);
        edit->stand_in_row();
        edit->setObjectName(QStringLiteral("day.") + QString::fromUtf8(s.field.key));
        sheet.add_number(s.field, edit);
        QObject::connect(edit, &NumberEdit::edited, edit, [&session, path, key = std::string(s.field.key)](double to) { session.document().set(QObject::tr("Change the days"), path(key), std::round(to)); });
        edits.push_back(edit);
    }
    auto times = add_rows(
        sheet, session, QStringLiteral("day"), session.document().day(), [&session, path](const std::string& key, double to) { session.document().set(QObject::tr("Change the days"), path(key), to); }, [](const NumberField& f) { return std::string_view(f.key) == "guests_times"; });
    return [&session, edits, times] {
        const Day& day = session.document().day();
        for (std::size_t i = 0; i < edits.size(); ++i) {
            const Spell& s = spells()[i];
            edits[i]->set_value(day.*s.value);
            const bool away_row = s.value == &Day::away_from;
            show_row(edits[i], (!s.only_of_several || day.length_days > 1) && (!s.only_with_guests || day.guests_days > 0) && (!away_row || day.away_days > 0));
        }
        for (NumberEdit* edit : times) {
            edit->set_value(day.guests_times);
            show_row(edit, day.length_days > 1 && day.guests_days > 0);
        }
    };
}

} // namespace vernal
