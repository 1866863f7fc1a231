#include "horizon_sheet.h"

#include "horizon_picture.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "core/weather/horizon_text.h"

#include <QHBoxLayout>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

namespace vernal {

HorizonSheet::HorizonSheet(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(4);
    picture_ = new HorizonPicture;
    line_ = new QLineEdit;
    line_->setObjectName("horizonLine");
    line_->setAccessibleName(tr("Points of the horizon, azimuth and height"));
    line_->setPlaceholderText(tr("azimuth height, azimuth height, …"));
    line_->setToolTip(tr("Azimuth in degrees west of south (east is −90), height above level; the line is straight between points"));
    auto* level = new QPushButton(tr("Level"));
    level->setObjectName("levelHorizon");
    level->setToolTip(tr("Takes all points away"));
    auto* row = new QHBoxLayout;
    row->addWidget(line_, 1);
    row->addWidget(level);
    note_ = remark();
    note_->setObjectName("horizonNote");
    box->addWidget(picture_);
    box->addLayout(row);
    box->addWidget(note_);
    connect(picture_, &HorizonPicture::changed, this, [this](const std::vector<HorizonPoint>& line, bool) { session_.document().edit_variant(
                                                                                                                tr("Draw the horizon"), [line](Variant& v) { v.horizon = line; }, QStringLiteral("horizon")); });
    connect(picture_, &HorizonPicture::pointed, this, [this](const QString& where) { tell(where); });
    connect(line_, &QLineEdit::editingFinished, this, &HorizonSheet::typed);
    connect(level, &QPushButton::clicked, this, [this] { session_.document().edit_variant(tr("Level the horizon"), [](Variant& v) { v.horizon.clear(); }); });
    refresh();
}

void HorizonSheet::typed()
{
    const auto line = parse_horizon(line_->text().toStdString());
    if (!line)
        return tell(QStringLiteral("<span style='color:%1'>■</span> %2").arg(theme().protect.name(), qs(line.error().text()).toHtmlEscaped()));
    tell({});
    if (*line != session_.document().variant().horizon)
        session_.document().edit_variant(tr("Type the horizon"), [&](Variant& v) { v.horizon = *line; });
}

// Without anything to tell: what the line takes away.
void HorizonSheet::tell(const QString& what)
{
    if (!what.isEmpty())
        return note_->setText(what);
    const auto& line = session_.document().variant().horizon;
    note_->setText(line.empty() ? tr("Level all round. It belongs to the variant, so that two places of an array can be compared.") : tr("Of an even sky %1 % is seen. It belongs to the variant, so that two places of an array can be compared.").arg(QString::number(100 * sky_seen(line), 'f', 0)));
}

void HorizonSheet::refresh()
{
    const Document& d = session_.document();
    picture_->show_line(d.job().site.place, d.day().sky, d.variant().horizon);
    if (!line_->hasFocus() || !line_->isModified())
        line_->setText(qs(horizon_text(d.variant().horizon)));
    tell({});
}

} // namespace vernal
