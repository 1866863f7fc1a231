#include "probes_station.h"

#include "app/findings/finding_mark.h"
#include "probe_budget_page.h"
#include "probe_curve_page.h"
#include "probe_health_page.h"
#include "probe_input_page.h"
#include "probe_instrument_page.h"
#include "probe_knob_page.h"
#include "probe_lead_page.h"
#include "probe_points_page.h"

#include <QHBoxLayout>
#include <QListWidget>
#include <QMenu>
#include <QPushButton>
#include <QStackedWidget>
#include <QTabBar>
#include <QVBoxLayout>

#include <map>

namespace vernal {

ProbesStation::ProbesStation(Session& session, const QString& own_curves, QWidget* parent) : QWidget(parent), session_(session), shelf_(own_curves)
{
    pages_ = new QStackedWidget;
    points_ = new ProbePointsPage(session, shelf_, shown_);
    meter_ = new MeterBar(session, shelf_, shown_);
    tabs_ = new QTabBar;
    tabs_->setObjectName("probePages");
    tabs_->setDrawBase(false);
    tabs_->setExpanding(false);
    tabs_->setUsesScrollButtons(true);
    const std::pair<QString, ProbePageView*> pages[] = {{tr("Curve"), new ProbeCurvePage(session, shelf_, shown_)}, {tr("Points"), points_}, {tr("Lead and place"), new ProbeLeadPage(session, shown_)}, {tr("Input"), new ProbeInputPage(session, shelf_, shown_)},
        {tr("Health"), new ProbeHealthPage(session, *meter_, shown_)}, {tr("Budget"), new ProbeBudgetPage(session, shown_)}, {tr("Knob"), new ProbeKnobPage(session, shown_)}};
    for (const auto& [name, page] : pages) {
        tabs_->addTab(name);
        pages_->addWidget(page);
    }
    instrument_ = new ProbeInstrumentPage(session, shown_);
    pages_->addWidget(instrument_);
    auto* right = new QVBoxLayout;
    right->setSpacing(2);
    right->addWidget(meter_);
    right->addWidget(tabs_);
    right->addWidget(pages_, 1);
    auto* box = new QHBoxLayout(this);
    box->setContentsMargins(14, 10, 10, 8);
    box->setSpacing(10);
    box->addWidget(make_list());
    box->addLayout(right, 1);
    connect(tabs_, &QTabBar::currentChanged, this, &ProbesStation::show_fitting_pages);
    connect(meter_, &MeterBar::answered, this, &ProbesStation::bring_up_to_date);
    connect(&shelf_, &CurveShelf::changed, meter_, &MeterBar::refresh);
    connect(&session, &Session::verdict_changed, this, &ProbesStation::mark_findings);
    connect(points_, &ProbePointsPage::file_wanted, this, &ProbesStation::points_file_wanted);
    connect(&session.document(), &Document::changed, this, &ProbesStation::refresh);
    connect(&session.document(), &Document::view_changed, this, &ProbesStation::refresh);
    connect(&session, &Session::units_changed, this, &ProbesStation::bring_up_to_date);
    refresh();
}

QWidget* ProbesStation::make_list()
{
    auto* side = new QWidget;
    side->setMinimumWidth(136);
    side->setMaximumWidth(176);
    auto* rows = new QVBoxLayout(side);
    rows->setContentsMargins(0, 0, 0, 0);
    list_ = new QListWidget;
    list_->setObjectName("probeList");
    list_->setAccessibleName(tr("Probes"));
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    add_ = new QPushButton(tr("Add a probe"));
    remove_ = new QPushButton(tr("Remove this one"));
    remove_->setObjectName("removeProbe");
    rows->addWidget(heading(tr("Probes"), "h1"));
    rows->addWidget(list_, 1);
    rows->addWidget(add_);
    rows->addWidget(make_instrument_button());
    rows->addWidget(remove_);
    rows->addWidget(make_chart_button());
    connect(add_, &QPushButton::clicked, this, [this] {
        Probe p;
        p.name = "Return pipe";
        p.place = ProbePlace::return_pipe;
        p.sensor.tolerance.kind = ToleranceKind::class_b;
        add_probe(p);
    });
    connect(remove_, &QPushButton::clicked, this, &ProbesStation::remove_probe);
    connect(list_, &QListWidget::currentRowChanged, this, [this](int row) {
        if (row >= 0) {
            shown_ = static_cast<std::size_t>(row);
            meter_->refresh();
            show_fitting_pages();
            bring_up_to_date();
        }
    });
    return side;
}

QPushButton* ProbesStation::make_chart_button()
{
    auto* chart = new QPushButton(tr("Pocket chart …"));
    chart->setObjectName("pocketChart");
    chart->setToolTip(tr("Ohms against °C and °F for these probes, on one page"));
    auto* menu = new QMenu(chart);
    menu->addAction(tr("Print …"), this, &ProbesStation::chart_print_wanted);
    menu->addAction(tr("Save as PDF or CSV …"), this, &ProbesStation::chart_save_wanted);
    chart->setMenu(menu);
    return chart;
}

void ProbesStation::choose(std::size_t probe) { list_->setCurrentRow(static_cast<int>(probe)); }

void ProbesStation::show_page(int page) { tabs_->setCurrentIndex(page); }

void ProbesStation::show_page_of(const QString& settings)
{
    const std::map<QString, int> pages{{"lead", 2}, {"probe", 2}, {"input", 3}, {"condition", 4}, {"knob", 6}};
    const auto it = pages.find(settings);
    show_page(it == pages.end() ? 0 : it->second);
}

void ProbesStation::show_page_of(ProbePage sums) { show_page(sums == ProbePage::lead ? 2 : sums == ProbePage::input ? 3
                                                                                       : sums == ProbePage::knob    ? 6
                                                                                                                    : 4); }

void ProbesStation::read_points(const QString& path)
{
    show_page(pages_->indexOf(points_));
    points_->read_file(path);
}

void ProbesStation::add_probe(Probe p)
{
    session_.document().edit_variant(tr("Add a probe"), [&](Variant& v) {
        const auto taken = [&](const std::string& key) { return std::any_of(v.probes.begin(), v.probes.end(), [&](const Probe& x) { return x.key == key; }); };
        p.key.clear();
        for (std::size_t n = v.probes.size() + 1; p.key.empty() || taken(p.key); ++n)
            p.key = "S" + std::to_string(n);
        v.probes.push_back(p);
    });
    list_->setCurrentRow(list_->count() - 1);
}

// What this loop has a place for.
QPushButton* ProbesStation::make_instrument_button()
{
    add_instrument_ = new QPushButton(tr("Add an instrument"));
    add_instrument_->setObjectName("addInstrument");
    add_instrument_->setToolTip(tr("An input that reads a flow, a pressure or the sun"));
    auto* menu = new QMenu(add_instrument_);
    connect(menu, &QMenu::aboutToShow, this, [this, menu] {
        menu->clear();
        for (ProbePlace place : arrangement_of(session_.document().variant().loop).places)
            if (reads_at(place) != Reads::temperature)
                menu->addAction(tr(place_names[static_cast<std::size_t>(place)]), this, [this, place] {
                    Probe p;
                    p.name = place_names[static_cast<std::size_t>(place)];
                    p.place = place;
                    add_probe(p);
                });
    });
    add_instrument_->setMenu(menu);
    return add_instrument_;
}

void ProbesStation::show_fitting_pages()
{
    const bool thermometer = reads_temperature(session_.document().variant().probes[shown_]);
    tabs_->setVisible(thermometer);
    meter_->setVisible(thermometer);
    if (thermometer)
        pages_->setCurrentIndex(tabs_->currentIndex());
    else
        pages_->setCurrentWidget(instrument_);
}

void ProbesStation::remove_probe()
{
    if (session_.document().variant().probes.size() > 1)
        session_.document().edit_variant(tr("Remove a probe"), [this](Variant& v) { v.probes.erase(v.probes.begin() + static_cast<std::ptrdiff_t>(shown_)); });
}

QString ProbesStation::row_text(const Probe& p) const
{
    return QStringLiteral("%1%2  %3\n%4").arg(p.condition.kind == ConditionKind::sound ? QString() : QStringLiteral("■ "), qs(p.key), qs(p.name), reads_temperature(p) ? shelf_.title(p.curve) : tr("reads %1").arg(qs(name_of(reads_at(p.place)))));
}

void ProbesStation::refresh()
{
    const auto& all = session_.document().variant().probes;
    shown_ = std::min(shown_, all.size() - 1);
    const QSignalBlocker quiet(list_);
    while (list_->count() > static_cast<int>(all.size()))
        delete list_->takeItem(list_->count() - 1);
    for (int i = 0; i < static_cast<int>(all.size()); ++i) {
        if (i == list_->count())
            list_->addItem(QString());
        list_->item(i)->setText(row_text(all[static_cast<std::size_t>(i)]));
    }
    list_->setCurrentRow(static_cast<int>(shown_));
    add_->setEnabled(all.size() < max_probes);
    add_instrument_->setEnabled(all.size() < max_probes);
    show_fitting_pages();
    remove_->setEnabled(all.size() > 1);
    meter_->refresh();
    mark_findings();
    bring_up_to_date();
}

// A mark at the right of each probe that something was found of.
void ProbesStation::mark_findings()
{
    const auto& all = session_.document().variant().probes;
    for (int i = 0; i < list_->count() && i < static_cast<int>(all.size()); ++i) {
        std::vector<Finding> found;
        for (const Finding& f : session_.findings())
            if (is_at(f, "probe/" + all[static_cast<std::size_t>(i)].id))
                found.push_back(f);
        QWidget* over = list_->itemWidget(list_->item(i));
        if (!over && found.empty())
            continue;
        if (!over) {
            over = new QWidget;
            auto* row = new QHBoxLayout(over);
            row->setContentsMargins(0, 0, 0, 0);
            row->addStretch(1);
            auto* mark = new FindingMark(session_);
            mark->setObjectName(QStringLiteral("probeMark"));
            mark->setFixedSize(24, 32);
            row->addWidget(mark, 0, Qt::AlignTop);
            list_->setItemWidget(list_->item(i), over);
        }
        over->findChild<FindingMark*>()->show_findings(found);
    }
}

void ProbesStation::bring_up_to_date()
{
    if (auto* page = qobject_cast<ProbePageView*>(pages_->currentWidget()))
        page->bring_up_to_date();
}

} // namespace vernal
