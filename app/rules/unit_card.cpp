#include "unit_card.h"

#include "app/shell/theme.h"
#include "app/widgets/flow_layout.h"
#include "app/widgets/form.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace vernal {
namespace {

const QStringList& drives_texts()
{
    static const QStringList texts{QObject::tr("what the loop says"), QObject::tr("the backup element"), QObject::tr("a drain-down valve"), QObject::tr("a motorised check valve"), QObject::tr("something else")};
    return texts;
}

std::string free_key(const RuleSet& unit)
{
    for (int i = 1;; ++i)
        if (const std::string key = "A" + std::to_string(i); std::none_of(unit.outputs.begin(), unit.outputs.end(), [&](const Output& o) { return o.key == key; }))
            return key;
}

} // namespace

QString shape_of(const RuleSet& unit)
{
    QString s;
    for (const Output& o : unit.outputs) {
        s += qs(o.key + "|" + o.name + "|") + QString::number(static_cast<int>(o.drives));
        for (const FaultChoice& f : o.faults)
            s += qs(f.probe) + QString::number(static_cast<int>(f.does));
    }
    return s;
}

UnitCard::UnitCard(Session& session, QWidget* parent) : QFrame(parent), session_(session)
{
    setObjectName("card");
    setMinimumWidth(1); // the sentences above decide how narrow the column can be
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(12, 8, 10, 8);
    box->addWidget(heading(tr("The unit and its outputs")));
    const RuleSet& unit = session.document().variant().unit;
    auto* sheet = new FieldSheet(session);
    sheet->set_path("unit");
    rows_ = add_rows(*sheet, session, QStringLiteral("unit"), unit, [this](const std::string& key, double to) {
        session_.document().set(tr("Describe the unit"), "unit/" + key, to);
    });
    box->addWidget(sheet);
    switches_ = add_switches(*sheet, QStringLiteral("unit"), unit, [this](const SwitchField& f, bool on) { session_.document().set(tr("Describe the unit"), std::string("unit/") + f.key, on ? "true" : "false"); });
    for (std::size_t i = 0; i < unit.outputs.size(); ++i)
        box->addWidget(output(i));
    if (unit.outputs.size() < max_outputs) {
        auto* add = new QPushButton(tr("Add an output"));
        add->setObjectName("addOutput");
        connect(add, &QPushButton::clicked, this, [this] {
            session_.document().edit_variant(tr("Add an output"), [](Variant& v) {
                Output o{free_key(v.unit), "Another output"};
                if (v.unit.outputs.size() >= arrangement_of(v.loop).drivers.size())
                    o.drives = Drives::other;
                v.unit.outputs.push_back(o);
            });
        });
        box->addWidget(add, 0, Qt::AlignLeft);
    }
}

void UnitCard::edit_output(std::size_t index, const QString& label, const std::function<void(Output&)>& change, const QString& merge)
{
    session_.document().edit_variant(
        label, [&](Variant& v) {
            if (index < v.unit.outputs.size()) // a field that loses the focus because its output is gone still speaks
                change(v.unit.outputs[index]);
        },
        merge.isEmpty() ? merge : QStringLiteral("output%1%2").arg(index).arg(merge));
}

QWidget* UnitCard::output(std::size_t index)
{
    const Variant& v = session_.document().variant();
    const Output& o = v.unit.outputs[index];
    auto* frame = new QFrame;
    auto* box = new QVBoxLayout(frame);
    box->setContentsMargins(0, 8, 0, 0);
    box->addLayout(output_head(index));
    auto* drives = new QComboBox;
    drives->setObjectName(QStringLiteral("output%1.drives").arg(index));
    drives->addItems(drives_texts());
    drives->setCurrentIndex(static_cast<int>(o.drives));
    drives->setMinimumHeight(32);
    drives->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    drives->setMinimumContentsLength(14);
    connect(drives, &QComboBox::activated, this, [this, index](int to) { edit_output(index, tr("Say what an output drives"), [to](Output& x) { x.drives = static_cast<Drives>(to); }); });
    drives->setAccessibleName(tr("What %1 drives").arg(qs(o.key)));
    auto* sheet = new FieldSheet(session_);
    const std::string path = "output/" + o.id + "/";
    sheet->set_path("output/" + o.id);
    sheet->add(tr("Drives"), drives, "drives");
    output_rows_.push_back(add_rows(*sheet, session_, QStringLiteral("output%1").arg(index), o, [this, path](const std::string& key, double to) { session_.document().set(tr("Describe an output"), path + key, to); }));
    box->addWidget(sheet);
    output_switches_.push_back(add_switches(*sheet, QStringLiteral("output%1").arg(index), o, [this, path](const SwitchField& f, bool on) { session_.document().set(tr("Describe an output"), path + f.key, on ? "true" : "false"); }));
    box->addWidget(fault_words(index));
    return frame;
}

// Its key and name; the last one can be removed.
QLayout* UnitCard::output_head(std::size_t index)
{
    const auto& outputs = session_.document().variant().unit.outputs;
    const Output& o = outputs[index];
    auto* first = new QHBoxLayout;
    first->addWidget(new QLabel(QStringLiteral("<b style='color:%1'>%2</b>").arg(theme().accent.name(), qs(o.key))));
    auto* name = new QLineEdit(qs(o.name));
    name->setAccessibleName(tr("Name of %1").arg(qs(o.key)));
    name->setMinimumHeight(32);
    connect(name, &QLineEdit::editingFinished, this, [this, index, name] {
        if (name->isModified())
            edit_output(index, tr("Name an output"), [&](Output& x) { x.name = name->text().toStdString(); });
    });
    first->addWidget(name, 1);
    if (index > 0 && index + 1 == outputs.size()) {
        auto* remove = new QPushButton(tr("Remove"));
        remove->setObjectName("quiet");
        connect(remove, &QPushButton::clicked, this, [this] {
            session_.document().edit_variant(tr("Remove an output"), [](Variant& x) {
                const std::string key = x.unit.outputs.back().key;
                x.unit.outputs.pop_back();
                std::erase_if(x.unit.rules, [&](const Rule& r) { return r.output == key; });
            });
        });
        first->addWidget(remove);
    }
    return first;
}

// What the output does while a probe is broken: a word a probe, changed by clicks.
QWidget* UnitCard::fault_words(std::size_t index)
{
    const Variant& v = session_.document().variant();
    const Output& o = v.unit.outputs[index];
    auto* words = new QWidget;
    auto* line = new FlowLayout(words, 5, 2);
    for (const QString& word : tr("While a probe its rules read fails:").split(' '))
        line->addWidget(new QLabel(word));
    for (const Probe& p : v.probes) {
        const auto it = std::find_if(o.faults.begin(), o.faults.end(), [&](const FaultChoice& f) { return f.probe == p.key; });
        const OnFault does = it == o.faults.end() ? OnFault::off : it->does;
        auto* button = new QPushButton(tr("%1 %2").arg(qs(p.key), does == OnFault::off ? tr("off") : does == OnFault::on ? tr("on")
                                                                                                                         : tr("carry on")));
        button->setObjectName("word");
        button->setToolTip(tr("%1: off, on, or carry on with the rules that do not read it").arg(qs(p.name)));
        connect(button, &QPushButton::clicked, this, [this, index, key = p.key] {
            edit_output(index, tr("Choose what a fault does"), [&](Output& x) {
                const auto own = std::find_if(x.faults.begin(), x.faults.end(), [&](const FaultChoice& f) { return f.probe == key; });
                if (own == x.faults.end())
                    x.faults.push_back({key, OnFault::carry_on});
                else if (own->does == OnFault::carry_on)
                    own->does = OnFault::on;
                else
                    x.faults.erase(own);
            });
        });
        line->addWidget(button);
    }
    return words;
}

void UnitCard::refresh()
{
    const RuleSet& unit = session_.document().variant().unit;
    refresh_rows(rows_, unit);
    refresh_switches(switches_, unit);
    for (std::size_t i = 0; i < unit.outputs.size() && i < output_rows_.size(); ++i) {
        refresh_rows(output_rows_[i], unit.outputs[i]);
        refresh_switches(output_switches_[i], unit.outputs[i]);
    }
}

} // namespace vernal
