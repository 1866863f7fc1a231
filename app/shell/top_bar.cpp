#include "top_bar.h"

#include "core/job/job_check.h"

#include "app/widgets/elided.h"
#include "app/widgets/form.h"

#include <QAction>
#include <QDateTime>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QMenu>
#include <QPushButton>
#include <QToolButton>

namespace vernal {

namespace {

constexpr int variant_px = 150; // of a name, at most

// What a person may choose apart from the others.
struct UnitPair {
    const char *metric, *us, *about;
    bool Units::*member;
};
constexpr UnitPair unit_pairs[] = {
    {"°C, K", "°F", "temperatures and differences", &Units::fahrenheit},
    {"L", "gal", "fluids", &Units::us_gallons},
    {"bar", "psi", "pressures", &Units::psi},
    {"m", "ft", "lengths, areas, bores", &Units::feet},
    {"mm²", "AWG", "wire", &Units::gauge},
    {"kWh", "BTU", "heat, sun, losses", &Units::btu},
};

} // namespace

TopBar::TopBar(Session& session, QAction* save, QAction* sheet, const QList<QAction*>& others, QWidget* parent) : QFrame(parent), session_(session)
{
    setObjectName("top");
    setFixedHeight(42);
    auto* box = new QHBoxLayout(this);
    box->setContentsMargins(14, 3, 8, 4);
    box->setSpacing(4);
    title_ = new Elided;
    title_->setObjectName("h1");
    title_->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Preferred); // gives way before the buttons do
    site_ = new QPushButton;
    site_->setObjectName("quiet");
    site_->setProperty("chip", "site");
    connect(site_, &QPushButton::clicked, sheet, &QAction::trigger);
    title_->setMinimumWidth(90);
    box->addWidget(title_);
    box->addSpacing(8);
    box->addWidget(site_);
    box->addStretch(1);
    variants_ = new QHBoxLayout;
    variants_->setSpacing(0);
    box->addLayout(variants_);
    box->addStretch(1);
    make_units();
    box->addWidget(units_);
    for (QAction* a : others) {
        auto* b = new QToolButton;
        b->setObjectName("quiet");
        b->setDefaultAction(a);
        b->setFocusPolicy(Qt::StrongFocus);
        box->addWidget(b);
    }
    saved_ = new QPushButton;
    saved_->setObjectName("quiet");
    connect(saved_, &QPushButton::clicked, save, &QAction::trigger);
    box->addWidget(saved_);
    auto* find = new QPushButton(tr("Find or do …   Ctrl K"));
    find->setObjectName("findOrDo");
    connect(find, &QPushButton::clicked, this, &TopBar::palette_wanted);
    box->addWidget(find);
    connect(&session.document(), &Document::changed, this, &TopBar::refresh);
    connect(&session.document(), &Document::view_changed, this, &TopBar::refresh);
    connect(&session.document(), &Document::path_changed, this, &TopBar::refresh);
    connect(&session.document().undo_stack(), &QUndoStack::cleanChanged, this, &TopBar::refresh);
    connect(&session, &Session::units_changed, this, &TopBar::show_units);
    refresh();
    show_units();
}

void TopBar::make_units()
{
    units_ = new QPushButton;
    units_->setObjectName("quiet");
    units_->setProperty("chip", "units");
    auto* menu = new QMenu(units_);
    menu->addAction(tr("Metric"), this, [this] { session_.set_units(Units::metric()); });
    menu->addAction(tr("US"), this, [this] { session_.set_units(Units::us()); });
    menu->addSeparator();
    for (const UnitPair& pair : unit_pairs) {
        QAction* a = menu->addAction(tr("%1 in place of %2: %3").arg(QString::fromUtf8(pair.us), QString::fromUtf8(pair.metric), tr(pair.about)));
        a->setCheckable(true);
        connect(a, &QAction::triggered, this, [this, m = pair.member](bool on) {
            Units u = session_.units();
            u.*m = on;
            session_.set_units(u);
        });
        connect(menu, &QMenu::aboutToShow, a, [this, a, m = pair.member] { a->setChecked(session_.units().*m); });
    }
    units_->setMenu(menu);
}

// "°C · L · bar"; one's own mix says its first three as well.
void TopBar::show_units()
{
    QStringList now;
    for (const UnitPair& pair : unit_pairs)
        now << QString::fromUtf8(session_.units().*pair.member ? pair.us : pair.metric).section(',', 0, 0);
    units_->setText(now.mid(0, 3).join(QStringLiteral(" · ")) + QStringLiteral(" ▾"));
    units_->setAccessibleName(tr("Units: %1").arg(now.join(QStringLiteral(", "))));
    units_->setToolTip(units_->accessibleName());
}

void TopBar::show_saved()
{
    const Document& d = session_.document();
    const QFileInfo file(d.path());
    const bool there = !d.path().isEmpty() && file.exists();
    const QDateTime at = file.lastModified();
    if (d.unsaved() || !there)
        saved_->setText(tr("Save"));
    else
        saved_->setText(tr("saved %1").arg(at.date() == QDate::currentDate() ? at.toString(QStringLiteral("HH:mm")) : at.toString(QStringLiteral("d MMM"))));
    saved_->setToolTip(d.unsaved() ? tr("Changed since it was saved (Ctrl+S)") : there ? tr("Saved at %1, %2 (Ctrl+S)").arg(at.toString(QStringLiteral("HH:mm")), at.toString(QStringLiteral("d MMMM yyyy")))
                                                                                       : tr("Not saved yet (Ctrl+S)"));
    saved_->setAccessibleName(saved_->toolTip());
    QFont f = saved_->font();
    f.setBold(d.unsaved());
    saved_->setFont(f);
}

void TopBar::refresh()
{
    const Document& d = session_.document();
    title_->setText(qs(d.job().title));
    title_->setToolTip(title_->text());
    show_site();
    show_saved();
    show_variants();
}

void TopBar::resizeEvent(QResizeEvent* e)
{
    QFrame::resizeEvent(e);
    show_site();
}

// Where there is little room the title has it.
void TopBar::show_site()
{
    const QString site = qs(session_.document().job().site.name);
    constexpr int wide_px = 1200;
    const int most_px = width() < wide_px ? 90 : 190;
    site_->setText(site.isEmpty() ? tr("place …") : site_->fontMetrics().elidedText(site, Qt::ElideRight, most_px));
    site_->setToolTip(tr("Title, customer and place (F2)") + (site.isEmpty() ? QString() : QStringLiteral("\n") + site));
    site_->setAccessibleName(tr("Title, customer and place: %1").arg(site));
}

void TopBar::variant_menu(QPushButton* b, std::size_t i, const QPoint& at)
{
    QMenu menu;
    menu.addAction(tr("Compare with this one"), this, [this, i] { session_.document().choose_baseline(i); });
    menu.addAction(tr("Rename …"), this, [this, i] {
        const QString name = QInputDialog::getText(this, tr("Rename"), tr("Name of the variant"), QLineEdit::Normal, qs(session_.document().job().variants[i].name));
        if (!name.isEmpty())
            session_.document().edit(tr("Rename a variant"), [&](Job& j) { j.variants[i].name = name.toStdString(); });
    });
    if (session_.document().job().variants.size() > 1)
        menu.addAction(tr("Remove"), this, [this, i] { session_.document().edit(tr("Remove a variant"), [i](Job& j) { j.variants.erase(j.variants.begin() + static_cast<std::ptrdiff_t>(i)); }); });
    menu.exec(b->mapToGlobal(at));
}

void TopBar::show_variants()
{
    const Document& d = session_.document();
    QString names = QStringLiteral("%1 %2").arg(d.variant_index()).arg(d.baseline_index());
    for (const Variant& v : d.job().variants)
        names += QLatin1Char('\n') + qs(v.name);
    if (names == shown_)
        return;
    shown_ = names;
    clear_layout(variants_);
    for (std::size_t i = 0; i < d.job().variants.size(); ++i) {
        const QString name = qs(d.job().variants[i].name);
        auto* b = new QPushButton(fontMetrics().elidedText(name, Qt::ElideRight, variant_px));
        b->setObjectName("part");
        b->setAccessibleName(tr("Variant %1").arg(name));
        b->setProperty("variant", static_cast<int>(i));
        b->setCheckable(true);
        b->setChecked(i == d.variant_index());
        b->setContextMenuPolicy(Qt::CustomContextMenu);
        b->setToolTip(name + QLatin1Char('\n') + (i == d.baseline_index() ? tr("The strip compares with this one") : tr("Right-click to compare with it, rename or remove it")));
        connect(b, &QPushButton::clicked, this, [this, i] {
            shown_.clear(); // a click on the chosen one must not leave it unchecked
            session_.document().choose_variant(i);
        });
        connect(b, &QPushButton::customContextMenuRequested, this, [this, b, i](const QPoint& at) { variant_menu(b, i, at); });
        variants_->addWidget(b);
    }
    auto* add = new QPushButton(QStringLiteral("+"));
    add->setObjectName("part");
    add->setAccessibleName(tr("New variant, a copy of this one"));
    add->setToolTip(add->accessibleName());
    add->setFixedWidth(34);
    connect(add, &QPushButton::clicked, this, [this] {
        Document& doc = session_.document();
        doc.edit(tr("New variant"), [i = doc.variant_index()](Job& j) {
            Variant v = j.variants[i];
            v.name = free_name(j.variants, "proposed " + std::to_string(j.variants.size()));
            j.variants.push_back(v);
        });
        doc.choose_variant(doc.job().variants.size() - 1);
    });
    variants_->addWidget(add);
}

} // namespace vernal
