#include "form.h"

#include <QScrollArea>

namespace vernal {

void clear_layout(QLayout* layout)
{
    while (QLayoutItem* item = layout->takeAt(0)) {
        if (item->widget())
            item->widget()->deleteLater();
        if (item->layout())
            clear_layout(item->layout());
        delete item;
    }
}

QLabel* heading(const QString& text, const char* style)
{
    auto* label = new QLabel(text);
    label->setObjectName(QString::fromLatin1(style));
    return label;
}

QScrollArea* side_scroll(QWidget* panel, int width)
{
    auto* scroll = new QScrollArea;
    scroll->setWidget(panel);
    scroll->setWidgetResizable(true);
    scroll->setFixedWidth(width);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    return scroll;
}

} // namespace vernal
