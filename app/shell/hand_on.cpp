#include "hand_on.h"

#include "app/widgets/picture.h"
#include "files/csv/writer.h"
#include "files/disk.h"

#include <QApplication>
#include <QClipboard>
#include <QContextMenuEvent>
#include <QHeaderView>
#include <QKeyEvent>
#include <QMenu>
#include <QMimeData>
#include <QTableView>
#include <QTextEdit>

namespace vernal {
namespace {

QTableView* table_at(QWidget* widget)
{
    for (QWidget* w = widget; w && !w->isWindow(); w = w->parentWidget())
        if (auto* table = qobject_cast<QTableView*>(w))
            return table;
    return nullptr;
}

QString in_one_line(const QVariant& cell) { return cell.toString().replace(QLatin1Char('\n'), QLatin1Char(' ')).replace(QLatin1Char('\t'), QLatin1Char(' ')).trimmed(); }

} // namespace

QList<QStringList> rows_of(const QTableView& table)
{
    const QAbstractItemModel& m = *table.model();
    const bool named = table.verticalHeader()->isVisible();
    QList<QStringList> out;
    QStringList head;
    if (named)
        head << QString();
    for (int c = 0; c < m.columnCount(); ++c)
        if (!table.isColumnHidden(c))
            head << in_one_line(m.headerData(c, Qt::Horizontal));
    if (table.horizontalHeader()->isVisible())
        out << head;
    for (int r = 0; r < m.rowCount(); ++r) {
        if (table.isRowHidden(r))
            continue;
        QStringList row;
        if (named)
            row << in_one_line(m.headerData(r, Qt::Vertical));
        for (int c = 0; c < m.columnCount(); ++c)
            if (!table.isColumnHidden(c))
                row << in_one_line(m.index(r, c).data());
        out << row;
    }
    return out;
}

HandOn::HandOn(QWidget& window, const Dialogs& dialogs) : QObject(&window), window_(window), dialogs_(dialogs) { qApp->installEventFilter(this); }

void HandOn::copy_table(const QTableView& table)
{
    QString text, html = QStringLiteral("<table>");
    for (const QStringList& row : rows_of(table)) {
        text += row.join(QLatin1Char('\t')) + QLatin1Char('\n');
        html += QStringLiteral("<tr>");
        for (const QString& cell : row)
            html += QStringLiteral("<td>%1</td>").arg(cell.toHtmlEscaped());
        html += QStringLiteral("</tr>");
    }
    auto* mime = new QMimeData;
    mime->setText(text);
    mime->setHtml(html + QStringLiteral("</table>"));
    QApplication::clipboard()->setMimeData(mime);
}

void HandOn::save_table(const QTableView& table)
{
    const QString path = dialogs_.save_as(&window_, tr("table.csv"), tr("Tables (*.csv)"));
    if (path.isEmpty())
        return;
    std::string out;
    CsvWriter csv([&](std::string_view piece) { out += piece; });
    for (const QStringList& row : rows_of(table)) {
        for (const QString& cell : row)
            csv.cell(cell.toStdString());
        csv.end_row();
    }
    csv.finish();
    if (const auto done = write_file_atomically(path.toStdString(), out); !done)
        dialogs_.tell(&window_, QString::fromStdString(done.error().text()));
}

void HandOn::save_picture(QWidget* w)
{
    with_picture(w, [this](Picture& picture) {
        const QString path = dialogs_.save_as(&window_, picture.picture_name() + QStringLiteral(".svg"), tr(picture_filter));
        if (path.isEmpty())
            return;
        if (const QString why = write_picture(picture, path); !why.isEmpty())
            dialogs_.tell(&window_, why);
    });
}

void HandOn::save_picture_of(QWidget* page)
{
    QWidget* largest = nullptr;
    for (QWidget* w : page->findChildren<QWidget*>())
        if (w->isVisible() && (!largest || w->width() * w->height() > largest->width() * largest->height()) && (dynamic_cast<Picture*>(w) || w->inherits("QCustomPlot")))
            largest = w;
    largest ? save_picture(largest) : dialogs_.tell(&window_, tr("There is no picture at this station."));
}

void HandOn::save_table_of(QWidget* page)
{
    for (QTableView* t : page->findChildren<QTableView*>())
        if (t->isVisible())
            return save_table(*t);
    dialogs_.tell(&window_, tr("There is no table at this station."));
}

bool HandOn::menu_on(QWidget* w, const QPoint& at)
{
    QMenu menu;
    if (QTableView* table = table_at(w)) {
        menu.addAction(tr("Copy the table"), this, [this, table] { copy_table(*table); });
        menu.addAction(tr("Save the table …"), this, [this, table] { save_table(*table); });
    } else if (with_picture(w, [](Picture&) {})) {
        menu.addAction(tr("Copy the picture"), this, [this, w] { copy_from(w); });
        menu.addAction(tr("Save the picture …"), this, [this, w] { save_picture(w); });
    } else {
        return false;
    }
    menu.setObjectName(QStringLiteral("handOn"));
    menu.exec(at);
    return true;
}

bool HandOn::copy_from(QWidget* w)
{
    if (QTableView* table = table_at(w)) {
        copy_table(*table);
        return true;
    }
    return with_picture(w, [](Picture& picture) { copy_picture(picture); });
}

bool HandOn::eventFilter(QObject* o, QEvent* e)
{
    auto* w = qobject_cast<QWidget*>(o);
    if (!w || w->window() != &window_)
        return false;
    if (e->type() == QEvent::ContextMenu)
        return menu_on(w, static_cast<QContextMenuEvent*>(e)->globalPos());
    if (e->type() == QEvent::KeyPress && static_cast<QKeyEvent*>(e)->matches(QKeySequence::Copy) && w == QApplication::focusWidget() && !w->inherits("QLineEdit") && !w->inherits("QTextEdit"))
        return copy_from(w);
    return false;
}

} // namespace vernal
