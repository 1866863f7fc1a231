#include "sum_box.h"

#include "field_sheet.h"
#include "number_edit.h"

#include <QLabel>
#include <QPushButton>
#include <QToolButton>
#include <QVBoxLayout>

#include <cmath>

namespace vernal {

SumBox::SumBox(Session& session, const FieldSum& sum, Part part, std::size_t probe, QWidget* parent)
    : QFrame(parent), session_(session), sum_(sum), part_(part), probe_(probe)
{
    setObjectName(QStringLiteral("sum.") + QString::fromUtf8(sum.key));
    auto* box = new QVBoxLayout(this);
    setProperty("look", "card");
    box->setContentsMargins(1, 0, 1, 0);
    box->setSpacing(2);
    auto* head = new QToolButton;
    head->setObjectName(objectName() + QStringLiteral(".open"));
    head->setText(tr(sum.title));
    head->setCheckable(true);
    head->setArrowType(Qt::RightArrow);
    head->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
    head->setAutoRaise(true);
    head->setMinimumHeight(32);
    head->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Fixed); // a long title does not widen the panel
    head->setToolTip(head->text());
    box->addWidget(head);
    connect(head, &QToolButton::toggled, this, [this, head](bool on) {
        head->setArrowType(on ? Qt::DownArrow : Qt::RightArrow);
        open(on);
    });
}

SumContext SumBox::context() const { return {session_.document().job(), session_.document().variant(), part_, session_.units(), std::min(probe_, session_.document().variant().probes.size() - 1)}; }

void SumBox::open(bool open)
{
    if (open && !body_)
        build();
    if (body_)
        body_->setVisible(open);
    refresh();
}

void SumBox::build()
{
    body_ = new QWidget;
    auto* column = new QVBoxLayout(body_);
    column->setContentsMargins(14, 0, 8, 8);
    auto* sheet = new FieldSheet(session_);
    const SumContext c = context();
    for (const SumInput& input : sum_.inputs) {
        auto* edit = new NumberEdit(session_, input.field);
        edit->setObjectName(objectName() + "." + QString::fromUtf8(input.field.key));
        edit->set_value(std::clamp(input.from(c), input.field.min, input.field.max));
        edit->stand_in_row();
        sheet->add_number(input.field, edit);
        connect(edit, &NumberEdit::edited, this, &SumBox::refresh);
        edits_.push_back(edit);
    }
    column->addWidget(sheet);
    auto* below = new QVBoxLayout;
    below->setContentsMargins(0, 4, 0, 0);
    column->addLayout(below);
    formula_ = new QLabel;
    formula_->setObjectName(objectName() + QStringLiteral(".formula"));
    formula_->setWordWrap(true);
    formula_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    below->addWidget(formula_);
    auto* origin = new QLabel(tr("By: %1").arg(QString::fromUtf8(sum_.origin)));
    origin->setObjectName("second");
    origin->setWordWrap(true);
    below->addWidget(origin);
    if (sum_.take) {
        take_ = new QPushButton(tr(sum_.take));
        take_->setObjectName("act");
        connect(take_, &QPushButton::clicked, this, &SumBox::take);
        below->addWidget(take_);
    }
    layout()->addWidget(body_);
    connect(&session_, &Session::units_changed, this, &SumBox::refresh);
}

std::vector<double> SumBox::inputs() const
{
    std::vector<double> x;
    for (const NumberEdit* e : edits_)
        x.push_back(e->value());
    return x;
}

void SumBox::refresh()
{
    if (!body_ || !body_->isVisibleTo(this))
        return;
    const SumResult r = sum_.work(inputs(), context());
    formula_->setText(qs(r.text));
    if (take_)
        take_->setEnabled(std::isfinite(r.value));
}

void SumBox::take()
{
    const auto after = taken(sum_, inputs(), context());
    if (!after)
        return formula_->setText(qs(after.error().text()));
    session_.document().edit_variant(tr(sum_.take), [&](Variant& v) { v = *after; });
}

} // namespace vernal
