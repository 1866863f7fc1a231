// One of a day's draws or shades in a line: its numbers, words between them, and a way to remove it.
#pragma once

#include "app/widgets/form.h"

#include <QHBoxLayout>
#include <QPushButton>

namespace vernal {

struct ItemWords {
    const char* key; // of the item in paths
    QString change, remove;
    QStringList between; // before each number
};

// Editors are named "<key><i>.<field>". refreshers: gets one that shows the item as it is now.
template <class T>
QWidget* item_row(Session& session, const ItemWords& words, std::vector<T> Day::*list, std::size_t i, const std::string& day_path, std::vector<std::function<void()>>& refreshers)
{
    auto* row = new QWidget;
    auto* box = new QHBoxLayout(row);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(4);
    std::vector<NumberEdit*> edits;
    for (const auto& [field, inside] : number_fields((session.document().day().*list)[i])) {
        auto* edit = new NumberEdit(session, field);
        edit->stand_in_row();
        edit->setObjectName(QStringLiteral("%1%2.%3").arg(QString::fromLatin1(words.key)).arg(i).arg(QString::fromUtf8(field.key)));
        edit->set_value(inside);
        if (const QString before = words.between.value(static_cast<qsizetype>(edits.size())); !before.isEmpty())
            box->addWidget(new QLabel(before));
        box->addWidget(edit);
        QObject::connect(edit, &NumberEdit::edited, edit, [&session, label = words.change, path = day_path + words.key + "/" + std::to_string(i + 1) + "/" + field.key](double to) { session.document().set(label, path, to); });
        edits.push_back(edit);
    }
    auto* remove = new QPushButton(QStringLiteral("✕"));
    remove->setObjectName(QStringLiteral("remove_%1").arg(QString::fromLatin1(words.key)));
    remove->setProperty("look", "quiet");
    remove->setFixedSize(32, 32);
    remove->setToolTip(words.remove);
    remove->setAccessibleName(QStringLiteral("%1 (%2)").arg(words.remove).arg(i + 1));
    QObject::connect(remove, &QPushButton::clicked, remove, [&session, label = words.remove, list, i] { session.document().edit_day(label, [list, i](Day& d) { (d.*list).erase((d.*list).begin() + static_cast<std::ptrdiff_t>(i)); }); });
    box->addStretch(1);
    box->addWidget(remove);
    refreshers.push_back([&session, edits, list, i] {
        if (const auto& items = session.document().day().*list; i < items.size())
            refresh_rows(edits, items[i]);
    });
    return row;
}

} // namespace vernal
