#include "form.h"

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

} // namespace vernal
