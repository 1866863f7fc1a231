#include "typed.h"

#include "app/widgets/number_edit.h"

#include <QAbstractSpinBox>
#include <QApplication>

namespace vernal {

QString take_typed(QWidget& in)
{
    QList<NumberEdit*> typed;
    for (NumberEdit* edit : in.findChildren<NumberEdit*>())
        if (edit->isModified())
            typed.append(edit);
    for (NumberEdit* edit : typed)
        if (!edit->take()) {
            if (edit->isVisible())
                edit->setFocus();
            return QObject::tr("“%1” is typed into “%2” and cannot be taken: %3. Correct it, or press Escape there.").arg(edit->text(), edit->accessibleName(), edit->reason());
        }
    QWidget* focus = QApplication::focusWidget();
    if (!focus || !in.isAncestorOf(focus))
        return {};
    if (auto* spin = qobject_cast<QAbstractSpinBox*>(focus))
        spin->interpretText();
    else if (auto* words = qobject_cast<QLineEdit*>(focus); words && words->isModified() && !qobject_cast<NumberEdit*>(words))
        QMetaObject::invokeMethod(words, "editingFinished");
    return {};
}

} // namespace vernal
