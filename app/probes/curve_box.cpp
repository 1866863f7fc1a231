#include "curve_box.h"

#include "app/shell/session.h"

#include <QLabel>
#include <QLineEdit>

namespace vernal {

CurveBox::CurveBox(CurveShelf& shelf, QLabel* error, QWidget* parent) : QComboBox(parent), shelf_(shelf), error_(error)
{
    setEditable(true);
    setInsertPolicy(QComboBox::NoInsert);
    setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    setMinimumContentsLength(12);
    setMaxVisibleItems(24);
    setToolTip(tr("Choose, or type a curve such as ntc:r25=10000,beta=3950"));
    fill();
    connect(&shelf, &CurveShelf::changed, this, &CurveBox::fill);
    connect(this, &QComboBox::activated, this, &CurveBox::take);
    connect(lineEdit(), &QLineEdit::editingFinished, this, &CurveBox::take);
}

void CurveBox::fill()
{
    const QSignalBlocker quiet(this);
    clear();
    for (const NamedCurve& c : shelf_.book()) {
        addItem(qs(c.name));
        setItemData(count() - 1, qs(c.origin), Qt::ToolTipRole);
    }
    show_curve(shown_);
}

void CurveBox::show_curve(const ProbeCurve& curve)
{
    shown_ = curve;
    const int entry = shelf_.find(curve);
    setCurrentIndex(entry);
    setEditText(entry >= 0 ? itemText(entry) : qs(curve_text(curve)));
    lineEdit()->setCursorPosition(0);
    error_->clear();
    error_->hide();
}

void CurveBox::take()
{
    const int entry = findText(currentText());
    const auto curve = entry >= 0 ? Result<ProbeCurve>(shelf_.book()[static_cast<std::size_t>(entry)].curve) : parse_curve(currentText().toStdString());
    error_->setText(curve ? QString() : qs(curve.error().text()));
    error_->setVisible(!curve);
    if (curve && !(*curve == shown_))
        emit chosen(*curve, entry);
}

} // namespace vernal
