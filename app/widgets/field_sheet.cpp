#include "field_sheet.h"

#include "app/findings/finding_mark.h"
#include "app/shell/theme.h"
#include "core/units/field.h"
#include "elided.h"

#include <QGridLayout>
#include <QPainter>
#include <QVBoxLayout>

namespace vernal {
namespace {

constexpr int row_px = 32, value_px = 84, mark_px = 16;

} // namespace

FieldRow::FieldRow(const QString& label, QWidget* editor, const QString& hint, QWidget* parent) : QWidget(parent), label_(label), editor_(editor)
{
    setMinimumHeight(row_px);
    setAttribute(Qt::WA_Hover);
    auto* grid = new QGridLayout(this);
    grid->setContentsMargins(0, 0, 2, 0);
    grid->setHorizontalSpacing(6);
    if (label.isEmpty()) {
        grid->addWidget(editor, 0, 0);
        set_hint(hint);
        return;
    }
    name_ = new Elided(label);
    name_->setBuddy(editor);
    usual_ = new Elided;
    usual_->setObjectName(QStringLiteral("usual"));
    usual_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    usual_->setSizePolicy(QSizePolicy::Maximum, QSizePolicy::Preferred);
    name_->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Preferred);
    grid->addWidget(name_, 0, 0);
    grid->addWidget(usual_, 0, 1);
    const bool grows = editor->sizePolicy().horizontalPolicy() == QSizePolicy::Expanding;
    grid->addWidget(editor, 0, 2, grows ? Qt::Alignment() : Qt::AlignRight | Qt::AlignVCenter);
    grid->setColumnMinimumWidth(2, value_px);
    grid->setColumnStretch(0, 2);
    grid->setColumnStretch(2, grows ? 3 : 0);
    usual_->hide();
    set_hint(hint);
}

void FieldRow::set_usual(const QString& usual)
{
    usual_->setText(usual);
    make_room();
}

void FieldRow::set_hint(const QString& hint)
{
    setToolTip(label_.isEmpty() ? hint : hint.isEmpty() ? label_
                                                        : QStringLiteral("<b>%1</b><br>%2").arg(label_.toHtmlEscaped(), hint.toHtmlEscaped()));
}

FieldRow* FieldRow::of(QWidget* editor)
{
    for (QWidget* w = editor; w; w = w->parentWidget())
        if (auto* row = qobject_cast<FieldRow*>(w))
            return row;
    return nullptr;
}

void FieldRow::show_findings(Session& session, const std::vector<Finding>& found)
{
    if (!mark_ && found.empty())
        return;
    if (!mark_) {
        mark_ = new FindingMark(session, this);
        mark_->setObjectName(QStringLiteral("fieldMark"));
        QWidget::setTabOrder(mark_, editor_);
    }
    mark_->setGeometry(0, 0, mark_px, height());
    mark_->show_findings(found);
    layout()->setContentsMargins(found.empty() ? 0 : mark_px + 2, 0, 2, 0);
}

// What is usual gives way to the name: it is told on hover too.
void FieldRow::make_room()
{
    if (!usual_)
        return;
    const int left = width() - layout()->contentsMargins().left() - std::max(value_px, editor_->width()) - 16;
    usual_->setVisible(!usual_->text().isEmpty() && name_->fontMetrics().horizontalAdvance(label_) + usual_->fontMetrics().horizontalAdvance(usual_->text()) <= left);
}

void FieldRow::resizeEvent(QResizeEvent*)
{
    make_room();
    if (mark_)
        mark_->setGeometry(0, 0, mark_px, height());
}

// The whole row is the target.
void FieldRow::mousePressEvent(QMouseEvent*)
{
    if (editor_->focusPolicy() != Qt::NoFocus)
        editor_->setFocus(Qt::TabFocusReason);
}

void FieldRow::paintEvent(QPaintEvent*)
{
    QPainter p(this);
    if (underMouse())
        p.fillRect(rect(), theme().surface);
    p.setPen(theme().hairline);
    p.drawLine(0, height() - 1, width(), height() - 1);
}

FieldSheet::FieldSheet(Session& session, QWidget* parent) : QFrame(parent), session_(session)
{
    box_ = new QVBoxLayout(this);
    box_->setContentsMargins(0, 0, 0, 0);
    box_->setSpacing(0);
    connect(&session, &Session::verdict_changed, this, &FieldSheet::mark_findings);
    connect(&session, &Session::units_changed, this, &FieldSheet::retell);
}

void FieldSheet::set_path(const std::string& path)
{
    if (path == path_)
        return;
    path_ = path;
    mark_findings();
}

FieldRow* FieldSheet::add(const QString& label, QWidget* editor, const std::string& key, const QString& hint)
{
    auto* row = new FieldRow(label, editor, hint);
    box_->addWidget(row);
    rows_.push_back({row, key, {}});
    mark_findings();
    return row;
}

void FieldSheet::add_number(const NumberField& field, QWidget* editor)
{
    add(QString::fromUtf8(field.label), editor, field.key);
    rows_.back().field = field;
    retell();
}

void FieldSheet::add_wide(QWidget* words) { box_->addWidget(words); }

void FieldSheet::clear()
{
    rows_.clear();
    while (QLayoutItem* item = box_->takeAt(0)) {
        item->widget()->hide(); // it may be a while until it goes
        item->widget()->deleteLater();
        delete item;
    }
}

void FieldSheet::mark_findings()
{
    for (const Row& r : rows_) {
        std::vector<Finding> found;
        for (const Finding& f : session_.findings())
            if (!path_.empty() && !r.key.empty() && is_at(f, path_ + "/" + r.key))
                found.push_back(f);
        r.row->show_findings(session_, found);
    }
}

void FieldSheet::retell()
{
    for (const Row& r : rows_)
        if (r.field) {
            r.row->set_usual(qs(usual_text(*r.field, session_.units())));
            r.row->set_hint(qs(hint_text(*r.field, session_.units())));
        }
}

} // namespace vernal
