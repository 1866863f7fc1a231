#include "bench_parts.h"

#include "files/disk.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QHeaderView>
#include <QPushButton>
#include <QTableWidget>

namespace vernal {

QLabel* wrapped_label(const char* name)
{
    auto* l = new QLabel;
    l->setObjectName(QLatin1String(name));
    l->setWordWrap(true);
    return l;
}

QFrame* bench_card()
{
    auto* c = new QFrame;
    c->setObjectName(QStringLiteral("card"));
    return c;
}

QPushButton* bench_button(const QString& words, const char* name)
{
    auto* b = new QPushButton(words);
    b->setObjectName(QLatin1String(name));
    return b;
}

QTableWidget* bench_table(const char* name, const QString& says, const QStringList& heads, int wide)
{
    auto* t = new QTableWidget(0, static_cast<int>(heads.size()));
    t->setObjectName(QLatin1String(name));
    t->setAccessibleName(says);
    t->setHorizontalHeaderLabels(heads);
    t->setEditTriggers(QAbstractItemView::NoEditTriggers);
    t->setSelectionBehavior(QAbstractItemView::SelectRows);
    t->verticalHeader()->hide();
    t->verticalHeader()->setDefaultSectionSize(26);
    t->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    t->setWordWrap(true);
    t->horizontalHeader()->setMinimumSectionSize(84);
    t->setTextElideMode(Qt::ElideNone);
    for (int c = 0; c < heads.size(); ++c)
        t->horizontalHeader()->setSectionResizeMode(c, c == wide ? QHeaderView::Stretch : QHeaderView::ResizeToContents);
    return t;
}

QString in_colour(const QColor& c, const QString& words) { return QStringLiteral("<span style='color:%1'>%2</span>").arg(c.name(), words.toHtmlEscaped()); }

std::optional<Error> take_own_file(QWidget* parent, const QString& title, const QString& filter, const std::function<std::optional<Error>(const QString& name, const std::string& text)>& take)
{
    const QString path = QFileDialog::getOpenFileName(parent, title, {}, filter);
    if (path.isEmpty())
        return {};
    const auto text = read_file(path.toStdString());
    return text ? take(QFileInfo(path).fileName(), *text) : std::optional(text.error());
}

} // namespace vernal
