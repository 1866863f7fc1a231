#include "palette.h"

#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>

namespace vernal {

Palette::Palette(Finder finder, QWidget* parent) : QDialog(parent, Qt::Popup), finder_(std::move(finder))
{
    setObjectName("palette");
    setFixedSize(640, 420);
    field_ = new QLineEdit;
    field_->setObjectName("words");
    field_->setPlaceholderText(tr("A word of what you look for, or a setting and its value"));
    field_->setAccessibleName(tr("Find or do"));
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
    shown_ = finder_.find(text);
    for (const FoundEntry& e : shown_)
        list_->addItem(e.hint.isEmpty() ? e.name : QStringLiteral("%1    %2").arg(e.name, e.hint));
    list_->setCurrentRow(0);
}

void Palette::act()
{
    const int row = list_->currentRow();
    if (row < 0 || row >= shown_.size())
        return;
    const auto what = shown_[row].act;
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
