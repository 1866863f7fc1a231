#include "palette.h"

#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>

namespace vernal {

Palette::Palette(QList<PaletteEntry> entries, QWidget* parent) : QDialog(parent, Qt::Popup), entries_(std::move(entries))
{
    setObjectName("palette");
    setFixedSize(460, 360);
    field_ = new QLineEdit;
    field_->setObjectName("words");
    field_->setPlaceholderText(tr("Find or do …"));
    list_ = new QListWidget;
    auto* box = new QVBoxLayout(this);
    box->addWidget(field_);
    box->addWidget(list_);
    connect(field_, &QLineEdit::textChanged, this, &Palette::filter);
    connect(field_, &QLineEdit::returnPressed, this, &Palette::act);
    connect(list_, &QListWidget::itemClicked, this, &Palette::act);
    field_->installEventFilter(this);
    filter({});
    field_->setFocus();
}

void Palette::filter(const QString& text)
{
    list_->clear();
    for (int i = 0; i < entries_.size(); ++i) {
        bool all = true;
        for (const QString& word : text.split(' ', Qt::SkipEmptyParts))
            all = all && entries_[i].name.contains(word, Qt::CaseInsensitive);
        if (!all)
            continue;
        auto* item = new QListWidgetItem(entries_[i].hint.isEmpty() ? entries_[i].name : QStringLiteral("%1    %2").arg(entries_[i].name, entries_[i].hint));
        item->setData(Qt::UserRole, i);
        list_->addItem(item);
    }
    list_->setCurrentRow(0);
}

void Palette::act()
{
    const QListWidgetItem* item = list_->currentItem();
    if (!item)
        return;
    const auto what = entries_[item->data(Qt::UserRole).toInt()].act;
    close();
    what();
}

bool Palette::eventFilter(QObject* watched, QEvent* e)
{
    if (watched == field_ && e->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(e)->key();
        if (key == Qt::Key_Down || key == Qt::Key_Up) {
            list_->setCurrentRow(std::clamp(list_->currentRow() + (key == Qt::Key_Down ? 1 : -1), 0, std::max(0, list_->count() - 1)));
            return true;
        }
    }
    return QDialog::eventFilter(watched, e);
}

} // namespace vernal
