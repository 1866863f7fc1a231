#include "settings_sheet.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "core/sums/knob_card.h"
#include "files/card_csv.h"
#include "files/disk.h"

#include <QAbstractTextDocumentLayout>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QPainter>
#include <QPdfWriter>
#include <QPushButton>
#include <QTextBrowser>
#include <QTextDocument>
#include <QVBoxLayout>

namespace vernal {
namespace {

// blank: the two columns to be filled in by hand, as on paper.
QString html(const std::vector<CardRow>& rows, const QString& title, bool blank)
{
    QString s = QStringLiteral("<h3>%1</h3><table width='100%' cellspacing='0' cellpadding='2' border='1' style='border-collapse:collapse; border-color:#B8B2A4'>").arg(title.toHtmlEscaped());
    s += QStringLiteral("<tr><th align='left'>%1</th><th align='right'>%2</th>").arg(QObject::tr("Setting"), QObject::tr("Value"));
    if (blank)
        s += QStringLiteral("<th width='18%'>%1</th><th width='18%'>%2</th>").arg(QObject::tr("Unit's code"), QObject::tr("As found"));
    s += QStringLiteral("</tr>");
    std::string group;
    for (const CardRow& r : rows) {
        if (r.group != group) {
            group = r.group;
            s += QStringLiteral("<tr><td colspan='%1'><b>%2</b>%3</td></tr>").arg(blank ? 4 : 2).arg(qs(group).toHtmlEscaped(), r.used ? QString() : QObject::tr(" (switched off)"));
        }
        s += QStringLiteral("<tr><td>&nbsp;&nbsp;%1</td><td align='right'>%2</td>%3</tr>").arg(qs(r.name).toHtmlEscaped(), qs(r.value).toHtmlEscaped(), blank ? QStringLiteral("<td></td><td></td>") : QString());
    }
    return s + QStringLiteral("</table>");
}

} // namespace

bool paint_settings_card(QPagedPaintDevice& device, const std::vector<CardRow>& rows, const QString& title)
{
    constexpr double largest_pt = 10, least_pt = 4;
    QPainter p;
    if (!p.begin(&device))
        return false;
    QTextDocument document;
    document.setHtml(html(rows, title, true));
    const QSizeF points(device.width() * 72.0 / device.logicalDpiX(), device.height() * 72.0 / device.logicalDpiY());
    for (double size = largest_pt; size >= least_pt; size -= 0.5) { // as large as one page bears
        QFont font = text_font(largest_pt);
        font.setPixelSize(static_cast<int>(size));
        document.setDefaultFont(font);
        document.setPageSize(points);
        if (document.pageCount() <= 1)
            break;
    }
    p.scale(device.width() / points.width(), device.width() / points.width());
    QAbstractTextDocumentLayout::PaintContext black;
    black.palette.setColor(QPalette::Text, Qt::black);
    document.documentLayout()->draw(&p, black);
    return p.end();
}

QString write_settings_card(const QString& path, const std::vector<CardRow>& rows, const QString& title)
{
    const QString ending = QFileInfo(path).suffix().toLower();
    if (ending == QLatin1String("csv")) {
        const auto done = write_file_atomically(path.toStdString(), card_csv(rows));
        return done ? QString() : qs(done.error().text());
    }
    if (ending != QLatin1String("pdf"))
        return QObject::tr("Give the card a name that ends in .pdf or .csv.");
    if (!QFileInfo(QFileInfo(path).path()).isWritable())
        return QObject::tr("The card could not be written to %1. Choose a folder you may write to.").arg(path);
    QPdfWriter pdf(path);
    pdf.setTitle(title);
    return paint_settings_card(pdf, rows, title) ? QString() : QObject::tr("The card could not be written to %1.").arg(path);
}

SettingsSheet::SettingsSheet(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    view_ = new QTextBrowser;
    view_->setObjectName("settingsCard");
    view_->setAccessibleName(tr("Settings card"));
    auto* save = new QPushButton(tr("Save the card …"));
    save->setObjectName("saveCard");
    auto* print = new QPushButton(tr("Print …"));
    print->setObjectName("printCard");
    connect(save, &QPushButton::clicked, this, &SettingsSheet::save_wanted);
    connect(print, &QPushButton::clicked, this, &SettingsSheet::print_wanted);
    auto* foot = new QHBoxLayout;
    foot->addWidget(save);
    foot->addWidget(print);
    foot->addWidget(remark(tr("On paper with columns for the unit's own code and for what was found.")), 1);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->addWidget(view_, 1);
    box->addLayout(foot);
    connect(&session.document(), &Document::changed, this, &SettingsSheet::refresh);
    connect(&session.document(), &Document::view_changed, this, &SettingsSheet::refresh);
    connect(&session, &Session::units_changed, this, &SettingsSheet::refresh);
}

void SettingsSheet::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    refresh();
}

void SettingsSheet::refresh()
{
    if (isVisible())
        view_->setHtml(html(whole_card(session_.document().variant(), session_.units()), tr("Settings, %1").arg(qs(session_.document().variant().name)), false));
}

} // namespace vernal
