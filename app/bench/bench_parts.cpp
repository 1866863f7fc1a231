#include "bench_parts.h"

#include "files/disk.h"

#include <QFileDialog>
#include <QFileInfo>

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
