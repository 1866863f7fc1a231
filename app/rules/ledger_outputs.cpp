// The outputs of the ledger: their keys at the head of the threads, their switches at
// the foot.
#include "ledger.h"

#include <QHBoxLayout>
#include <QMenu>
#include <QPushButton>

namespace vernal {
namespace {

constexpr std::size_t most_switches = 3; // each with a button of its own

const char* mode_name(Mode m)
{
    return m == Mode::off ? "OFF" : m == Mode::on ? "ON"
                                                  : "AUTO";
}

} // namespace

// The buttons of the outputs: their keys at the head, their switches at the foot.
void Ledger::make_outputs()
{
    const auto& outputs = session_.document().variant().unit.outputs;
    QString shape;
    for (const Output& o : outputs)
        shape += qs(o.key) + QString::number(static_cast<int>(o.mode)) + qs(o.name);
    if (shape == outputs_shape_)
        return;
    outputs_shape_ = shape;
    for (const auto& buttons : {keys_, modes_})
        for (QPushButton* b : buttons) {
            b->hide();
            b->deleteLater();
        }
    keys_.clear();
    modes_.clear();
    for (std::size_t i = 0; i < outputs.size(); ++i) {
        const Output& o = outputs[i];
        auto* key = new QPushButton(qs(o.key), head_);
        key->setProperty("look", QStringLiteral("thread"));
        key->setCheckable(true);
        key->setChecked(i == output_);
        key->setAccessibleName(tr("%1, %2: show it on the map").arg(qs(o.key), qs(o.name)));
        key->setToolTip(key->accessibleName());
        connect(key, &QPushButton::clicked, this, [this, i] {
            choose_output(i);
            emit output_chosen(i);
        });
        key->show();
        keys_.push_back(key);
    }
    make_switches();
}

// A switch an output; of many outputs all in one button.
void Ledger::make_switches()
{
    const auto& outputs = session_.document().variant().unit.outputs;
    auto* row = static_cast<QHBoxLayout*>(foot_->layout()->itemAt(1)->layout());
    const auto fill = [this](QMenu* menu, std::size_t i) {
        for (Mode m : {Mode::off, Mode::automatic, Mode::on})
            menu->addAction(QString::fromLatin1(mode_name(m)), this, [this, i, m] { session_.document().edit_variant(tr("Move the switch"), [i, m](Variant& v) { v.unit.outputs[i].mode = m; }); });
    };
    const auto add = [&](const QString& text, const QString& name) {
        auto* b = new QPushButton(text + QStringLiteral(" ▾"));
        b->setObjectName(QStringLiteral("quiet"));
        b->setAccessibleName(name);
        b->setToolTip(tr("%1: off, by its rules, or on").arg(name));
        b->setMenu(new QMenu(b));
        row->insertWidget(1 + static_cast<int>(modes_.size()), b);
        modes_.push_back(b);
        return b->menu();
    };
    if (outputs.size() <= most_switches) {
        for (std::size_t i = 0; i < outputs.size(); ++i)
            fill(add(tr("%1 %2").arg(qs(outputs[i].key), QString::fromLatin1(mode_name(outputs[i].mode)).toLower()), tr("Switch of %1").arg(qs(outputs[i].name))), i);
        return;
    }
    QStringList moved;
    for (const Output& o : outputs)
        if (o.mode != Mode::automatic)
            moved << qs(o.key) + QLatin1Char(' ') + QString::fromLatin1(mode_name(o.mode)).toLower();
    QMenu* all = add(moved.isEmpty() ? tr("all auto") : moved.join(QStringLiteral(", ")), tr("Switches of the outputs"));
    for (std::size_t i = 0; i < outputs.size(); ++i)
        fill(all->addMenu(qs(outputs[i].key + "  " + outputs[i].name)), i);
}

} // namespace vernal
