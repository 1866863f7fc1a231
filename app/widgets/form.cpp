#include "form.h"

#include <QComboBox>
#include <QScrollArea>

namespace vernal {

void clear_layout(QLayout* layout)
{
    while (QLayoutItem* item = layout->takeAt(0)) {
        if (QWidget* w = item->widget()) {
            w->hide(); // it may be a while until it goes
            w->deleteLater();
        }
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

void show_row(QWidget* edit, bool on)
{
    if (FieldRow* row = FieldRow::of(edit))
        row->setVisible(on);
}

QLabel* remark(const QString& text)
{
    auto* label = heading(text, "second");
    label->setWordWrap(true);
    label->setTextInteractionFlags(Qt::TextSelectableByMouse);
    return label;
}

QComboBox* choice_row(FieldSheet& sheet, const QString& name, const QString& label, const QStringList& names, const std::function<void(int)>& change, const std::string& key)
{
    auto* box = new QComboBox;
    box->setObjectName(name);
    box->addItems(names);
    box->setAccessibleName(label);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(8);
    box->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    QObject::connect(box, &QComboBox::activated, box, change);
    sheet.add(label, box, key);
    return box;
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
