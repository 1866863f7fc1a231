#include "map_label.h"

#include "app/shell/theme.h"
#include "core/wording/threads.h"
#include "map_painter.h"

#include <QPainter>

namespace vernal {
namespace {

constexpr NumberField level_field{"level", "Difference", Quantity::difference, -60, 120, "Drag the line, or type"};
constexpr NumberField temperature_field{"at", "Temperature", Quantity::temperature, -60, 400, "Drag the line, or type"};
constexpr int pad_px = 6;

} // namespace

QString map_word(const Variant& v, const MapLine& l)
{
    const RuleKind& kind = kind_of(v.unit.rules[l.rule]);
    if (l.role == MapLine::Role::collects && l.kind == MapLine::Kind::level)
        return l.sets ? QObject::tr("start") : QObject::tr("stop");
    QString word = l.sets ? QString::fromUtf8(rank_name(kind.priority)) : QObject::tr("again");
    if (l.kind == MapLine::Kind::banner && l.probe < v.probes.size())
        word = qs(v.probes[l.probe].name).toLower() + QLatin1Char(' ') + word;
    return word;
}

MapLabel::MapLabel(Session& session, const MapLine& line, const QString& word, QWidget* parent) : QWidget(parent), line_(line), word_(word)
{
    edit_ = new NumberEdit(session, line.kind == MapLine::Kind::level ? level_field : temperature_field, this);
    edit_->setObjectName(QStringLiteral("map%1.%2").arg(line.rule).arg(qs(line.field)));
    edit_->setAccessibleName(word_);
    edit_->stand_in_text();
    edit_->set_value(line.value);
    connect(edit_, &NumberEdit::edited, this, [this](double to) { emit moved(line_, to, edit_->sitting()); });
    connect(edit_, &NumberEdit::grew, this, &MapLabel::grew);
}

void MapLabel::show_line(const MapLine& line)
{
    line_ = line;
    edit_->set_value(line.value);
}

int MapLabel::wide_px() const { return 2 * pad_px + QFontMetrics(text_font(12)).horizontalAdvance(word_) + 3 + edit_->width(); }

void MapLabel::resizeEvent(QResizeEvent*) { edit_->move(width() - pad_px - edit_->width() + 2, (height() - edit_->height()) / 2); }

void MapLabel::paintEvent(QPaintEvent*)
{
    const QColor colour = map_colour(line_);
    QPainter p(this);
    p.fillRect(rect(), theme().card);
    p.setPen(QPen(colour, 1, line_.sets ? Qt::SolidLine : Qt::DashLine));
    p.drawRect(rect().adjusted(0, 0, -1, -1));
    p.setPen(colour);
    p.setFont(text_font(12));
    p.drawText(rect().adjusted(pad_px, 0, 0, 0), Qt::AlignVCenter | Qt::AlignLeft, word_);
}

} // namespace vernal
