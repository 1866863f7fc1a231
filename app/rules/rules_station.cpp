#include "rules_station.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QPushButton>
#include <QScrollArea>
#include <QSlider>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace vernal {

RulesStation::RulesStation(Session& session, QWidget* parent) : QWidget(parent), session_(session)
{
    ledger_ = new Ledger(session);
    auto* left = new QVBoxLayout;
    left->setSpacing(6);
    auto* title = heading(tr("Rules"), "h1");
    title->setMinimumHeight(32);
    left->addWidget(title);
    left->addWidget(ledger_, 100);
    left->addStretch(1);
    map_ = new OperatingMap(session);
    auto* choose = new ChooserPage(session);
    auto* sheet = new SettingsSheet(session);
    unit_page_ = new QScrollArea;
    unit_page_->setWidgetResizable(true);
    unit_page_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    pages_ = new QStackedWidget;
    pages_->addWidget(make_map_page());
    pages_->addWidget(choose);
    pages_->addWidget(sheet);
    pages_->addWidget(unit_page_);
    connect(choose, &ChooserPage::taken, this, [this] { show_page(map_page); });
    connect(sheet, &SettingsSheet::save_wanted, this, &RulesStation::card_save_wanted);
    connect(sheet, &SettingsSheet::print_wanted, this, &RulesStation::card_print_wanted);
    connect(ledger_, &Ledger::output_chosen, this, [this](std::size_t output) {
        map_->set_output(output);
        refresh_head();
    });
    auto* tabs = new QHBoxLayout;
    tabs->setSpacing(2);
    for (const QString& name : {tr("Map"), tr("Choose for me"), tr("Card"), tr("Unit")}) {
        auto* tab = new QPushButton(name);
        tab->setObjectName("quiet");
        tab->setCheckable(true);
        const int page = static_cast<int>(page_buttons_.size());
        connect(tab, &QPushButton::clicked, this, [this, page] { show_page(page); });
        page_buttons_.push_back(tab);
        tabs->addWidget(tab);
    }
    tabs->addStretch(1);
    auto* right = new QVBoxLayout;
    right->setSpacing(6);
    right->addLayout(tabs);
    right->addWidget(pages_, 1);
    show_page(map_page);
    auto* box = new QHBoxLayout(this);
    box->setContentsMargins(14, 8, 10, 8);
    box->setSpacing(14);
    box->addLayout(left, 7);
    box->addLayout(right, 5);
    connect(&session.document(), &Document::changed, this, &RulesStation::refresh);
    connect(&session.document(), &Document::view_changed, this, &RulesStation::refresh);
    for (auto signal : {&Session::cursor_changed, &Session::outcome_changed})
        connect(&session, signal, this, &RulesStation::refresh_head);
    refresh();
}

// The quantity that the map's two axes do not show is moved by hand.
QWidget* RulesStation::make_map_page()
{
    auto* page = new QWidget;
    page->setProperty("pane", true);
    auto* head = new QHBoxLayout;
    head->setSpacing(6);
    map_title_ = heading(QString(), "h2");
    third_ = new QComboBox;
    third_->setObjectName("third");
    third_->setAccessibleName(tr("Third quantity of the map"));
    third_at_ = new QSlider(Qt::Horizontal);
    third_at_->setObjectName("thirdAt");
    third_at_->setAccessibleName(tr("Its value"));
    third_at_->setRange(0, 1000);
    third_at_->setMinimumHeight(32);
    third_text_ = new QLabel;
    auto* plain = new QPushButton(tr("plain axes"));
    plain->setObjectName("quiet");
    plain->setCheckable(true);
    plain->setToolTip(tr("The collector itself up, in place of its difference to the store"));
    head->addWidget(map_title_);
    head->addStretch(1);
    head->addWidget(third_);
    head->addWidget(third_at_, 1);
    head->addWidget(third_text_);
    head->addWidget(plain);
    auto* box = new QVBoxLayout(page);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(4);
    box->addLayout(head);
    box->addWidget(map_, 1);
    connect(plain, &QPushButton::toggled, map_, &OperatingMap::set_plain_axes);
    connect(third_, &QComboBox::activated, this, [this](int i) {
        map_->set_third(i == 0 ? std::nullopt : std::optional(map_->thirds()[static_cast<std::size_t>(i - 1)]));
        refresh_head();
    });
    connect(third_at_, &QSlider::valueChanged, this, [this](int at) {
        if (!third_at_->signalsBlocked())
            map_->set_third_share(at / 1000.0);
        refresh_head();
    });
    return page;
}

void RulesStation::show_page(int page)
{
    pages_->setCurrentIndex(page);
    for (std::size_t i = 0; i < page_buttons_.size(); ++i)
        page_buttons_[i]->setChecked(static_cast<int>(i) == page);
}

void RulesStation::refresh()
{
    ledger_->refresh();
    map_->set_output(ledger_->output());
    refresh_unit();
    refresh_head();
}

// The card is made anew when names or choices changed, else its numbers are.
void RulesStation::refresh_unit()
{
    const Variant& v = session_.document().variant();
    QString shape = qs(v.id) + shape_of(v.unit);
    for (const Probe& p : v.probes)
        shape += qs(p.key + p.name);
    if (shape != unit_shape_) {
        unit_shape_ = shape;
        unit_ = new UnitCard(session_);
        auto* page = new QWidget;
        auto* box = new QVBoxLayout(page);
        box->setContentsMargins(0, 0, 6, 0);
        box->addWidget(unit_);
        box->addStretch(1);
        if (QWidget* old = unit_page_->takeWidget())
            old->deleteLater(); // not while one of its fields still speaks
        unit_page_->setWidget(page);
    }
    unit_->refresh();
}

void RulesStation::refresh_head()
{
    const auto& outputs = session_.document().variant().unit.outputs;
    map_title_->setText(tr("Map of %1").arg(qs(outputs[map_->output()].key)));
    QStringList names{tr("all else as at %1").arg(session_.cursor_text())};
    for (const OperatingMap::Third& t : map_->thirds())
        names << map_->third_name(t);
    QStringList now;
    for (int i = 0; i < third_->count(); ++i)
        now << third_->itemText(i);
    const QSignalBlocker quiet(third_);
    if (now.mid(1) != names.mid(1)) {
        third_->clear();
        third_->addItems(names);
        map_->set_third({});
    } else if (now.value(0) != names[0]) {
        third_->setItemText(0, names[0]);
    }
    const bool chosen = map_->third().has_value();
    third_at_->setEnabled(chosen);
    third_at_->setVisible(chosen);
    third_text_->setVisible(chosen);
    third_text_->setText(chosen ? map_->third_text() : QString());
}

} // namespace vernal
