#include "top_bar.h"

#include "core/job/job_check.h"

#include "app/widgets/form.h"

#include <QAction>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QMenu>
#include <QPushButton>
#include <QToolButton>

namespace vernal {

TopBar::TopBar(Session& session, const QList<QAction*>& actions, QWidget* parent) : QFrame(parent), session_(session)
{
    setObjectName("top");
    setFixedHeight(48);
    auto* box = new QHBoxLayout(this);
    box->setContentsMargins(14, 4, 12, 4);
    box->setSpacing(5);
    title_ = new QLabel;
    title_->setObjectName("h1");
    site_ = new QLabel;
    site_->setObjectName("second");
    for (QLabel* l : {title_, site_}) // the names of things give way before the buttons do
        l->setMinimumWidth(1);
    box->addWidget(title_);
    box->addSpacing(8);
    box->addWidget(site_);
    box->addStretch(1);
    variants_ = new QHBoxLayout;
    box->addLayout(variants_);
    box->addStretch(1);
    celsius_ = unit_button(QStringLiteral("°C"), {false, false}, true);
    fahrenheit_ = unit_button(QStringLiteral("°F"), {true, false}, true);
    litre_ = unit_button(QStringLiteral("L"), {false, false}, false);
    gallon_ = unit_button(QStringLiteral("gal"), {false, true}, false);
    gallon_->setToolTip(tr("US gallons and feet"));
    litre_->setToolTip(tr("Litres and metres"));
    for (QPushButton* b : {celsius_, fahrenheit_, litre_, gallon_})
        box->addWidget(b);
    for (QAction* a : actions) {
        auto* b = new QToolButton;
        b->setObjectName("quiet");
        b->setDefaultAction(a);
        b->setMinimumHeight(34);
        box->addWidget(b);
    }
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

QPushButton* TopBar::unit_button(const QString& name, Units when_on, bool is_temperature)
{
    auto* b = new QPushButton(name);
    b->setObjectName("quiet");
    b->setAccessibleName(tr("Units: %1").arg(name));
    b->setProperty("unit", name);
    b->setCheckable(true);
    b->setFixedSize(name.size() > 2 ? 42 : 36, 34);
    b->setStyleSheet(QStringLiteral("padding: 2px;"));
    connect(b, &QPushButton::clicked, this, [this, when_on, is_temperature] {
        Units u = session_.units();
        (is_temperature ? u.fahrenheit : u.us_gallons) = is_temperature ? when_on.fahrenheit : when_on.us_gallons;
        session_.set_units(u);
        show_units();
    });
    return b;
}

void TopBar::show_units()
{
    celsius_->setChecked(!session_.units().fahrenheit);
    fahrenheit_->setChecked(session_.units().fahrenheit);
    litre_->setChecked(!session_.units().us_gallons);
    gallon_->setChecked(session_.units().us_gallons);
}

void TopBar::refresh()
{
    Document& d = session_.document();
    title_->setText(qs(d.job().title) + (d.unsaved() ? QStringLiteral(" •") : QString()));
    title_->setToolTip(d.unsaved() ? tr("Changed since it was saved") : QString());
    site_->setText(qs(d.job().site.name));
    QString names = QStringLiteral("%1 %2").arg(d.variant_index()).arg(d.baseline_index());
    for (const Variant& v : d.job().variants)
        names += QLatin1Char('\n') + qs(v.name);
    if (names == shown_)
        return;
    shown_ = names;
    clear_layout(variants_);
    for (std::size_t i = 0; i < d.job().variants.size(); ++i) {
        auto* b = new QPushButton(qs(d.job().variants[i].name));
        b->setObjectName("pill");
        b->setProperty("variant", static_cast<int>(i));
        b->setCheckable(true);
        b->setChecked(i == d.variant_index());
        b->setContextMenuPolicy(Qt::CustomContextMenu);
        b->setToolTip(i == d.baseline_index() ? tr("The strip compares with this one") : tr("Right-click to compare with it, rename or remove it"));
        connect(b, &QPushButton::clicked, this, [this, i] {
            shown_.clear(); // a click on the chosen one must not leave it unchecked
            session_.document().choose_variant(i);
        });
        connect(b, &QPushButton::customContextMenuRequested, this, [this, b, i](const QPoint& p) {
            QMenu menu;
            menu.addAction(tr("Compare with this one"), this, [this, i] { session_.document().choose_baseline(i); });
            menu.addAction(tr("Rename …"), this, [this, i] {
                const QString name = QInputDialog::getText(this, tr("Rename"), tr("Name of the variant"), QLineEdit::Normal, qs(session_.document().job().variants[i].name));
                if (!name.isEmpty())
                    session_.document().edit(tr("Rename a variant"), [&](Job& j) { j.variants[i].name = name.toStdString(); });
            });
            if (session_.document().job().variants.size() > 1)
                menu.addAction(tr("Remove"), this, [this, i] { session_.document().edit(tr("Remove a variant"), [i](Job& j) { j.variants.erase(j.variants.begin() + static_cast<std::ptrdiff_t>(i)); }); });
            menu.exec(b->mapToGlobal(p));
        });
        variants_->addWidget(b);
    }
    auto* add = new QPushButton(QStringLiteral("+"));
    add->setObjectName("pill");
    add->setAccessibleName(tr("New variant, a copy of this one"));
    add->setToolTip(add->accessibleName());
    add->setFixedSize(40, 34);
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
