#include "unit_page.h"

#include "bench_parts.h"
#include "terminal_strip.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "core/job/ids.h"
#include "core/job/job_check.h"
#include "files/attachment.h"
#include "files/disk.h"
#include "files/unit_file.h"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QScrollArea>
#include <QSignalBlocker>
#include <QStackedWidget>
#include <QTabBar>
#include <QTableWidget>

#include <algorithm>

namespace vernal {
namespace {

QWidget* page_of(std::initializer_list<QWidget*> widgets, int stretched)
{
    auto* page = new QWidget;
    auto* box = new QVBoxLayout(page);
    box->setContentsMargins(0, 6, 0, 0);
    int i = 0;
    for (QWidget* w : widgets)
        box->addWidget(w, i++ == stretched ? 1 : 0);
    if (stretched < 0)
        box->addStretch(1);
    return page;
}

} // namespace

UnitPage::UnitPage(Session& session, const Dialogs& dialogs, QWidget* parent) : QWidget(parent), session_(session), dialogs_(dialogs)
{
    auto* card = new QFrame;
    card->setObjectName(QStringLiteral("card"));
    auto* in = new QVBoxLayout(card);
    in->setContentsMargins(12, 8, 12, 10);
    about_ = remark();
    said_ = remark();
    said_->setObjectName(QStringLiteral("unitSaid"));
    said_->hide();
    tabs_ = new QTabBar;
    tabs_->setObjectName(QStringLiteral("unitPages"));
    tabs_->setDrawBase(false);
    tabs_->setExpanding(false);
    pages_ = new QStackedWidget;
    in->addLayout(make_head());
    in->addWidget(about_);
    in->addWidget(said_);
    in->addWidget(tabs_);
    in->addWidget(pages_, 1);
    const std::pair<QString, QWidget*> pages[] = {{tr("Wiring"), make_wiring()}, {tr("Keys"), make_keys()}, {tr("Presets"), make_presets()}, {tr("Lamps"), make_lamps()}, {tr("In place of"), make_replaced()}, {tr("The sheet's text"), make_text()}};
    for (const auto& [name, page] : pages) {
        tabs_->addTab(name);
        pages_->addWidget(page);
    }
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->addWidget(card);
    connect(tabs_, &QTabBar::currentChanged, this, [this](int i) {
        pages_->setCurrentIndex(i);
        refresh();
    });
    for (auto signal : {&Document::changed, &Document::view_changed})
        connect(&session.document(), signal, this, [this] {
            if (isVisible())
                collect();
        });
    connect(&session, &Session::units_changed, this, &UnitPage::refresh);
}

QLayout* UnitPage::make_head()
{
    which_ = new QComboBox;
    which_->setObjectName(QStringLiteral("unitSheet"));
    which_->setAccessibleName(tr("Unit sheet"));
    keep_ = new QPushButton(tr("Keep with the job"));
    keep_->setObjectName(QStringLiteral("keepSheet"));
    auto* open = new QPushButton(tr("From a file …"));
    open->setObjectName(QStringLiteral("openSheet"));
    auto* save = new QPushButton(tr("To a file …"));
    save->setObjectName(QStringLiteral("saveSheet"));
    auto* row = new QHBoxLayout;
    row->addWidget(which_);
    row->addStretch(1);
    for (QPushButton* b : {keep_, open, save})
        row->addWidget(b);
    connect(which_, &QComboBox::currentIndexChanged, this, [this] {
        lay_out_lamps();
        show_text();
        refresh();
    });
    connect(keep_, &QPushButton::clicked, this, &UnitPage::keep);
    connect(open, &QPushButton::clicked, this, &UnitPage::open_file);
    connect(save, &QPushButton::clicked, this, &UnitPage::save_file);
    return row;
}

QWidget* UnitPage::make_wiring()
{
    strip_ = new TerminalStrip;
    wiring_ = bench_table("wiringTable", tr("Wiring"), {tr("Terminal"), tr("Goes to"), tr("Mind")}, 2);
    auto* caution = remark(tr("Isolate and prove dead before the cover comes off; mains is a licensed person's work. Probes and mains do not share a cable. The maker's manual and local codes hold."));
    return page_of({strip_, wiring_, caution}, 1);
}

QWidget* UnitPage::make_keys()
{
    fahrenheit_ = new QCheckBox(tr("in °F"));
    fahrenheit_->setObjectName(QStringLiteral("keysFahrenheit"));
    as_variant_ = new QPushButton(tr("Show it on the strip"));
    as_variant_->setObjectName(QStringLiteral("asVariant"));
    as_variant_->setToolTip(tr("A new variant as it stands on this unit, compared with this one"));
    key_words_ = remark();
    auto* row = new QWidget;
    auto* in = new QHBoxLayout(row);
    in->setContentsMargins(0, 0, 0, 0);
    in->addWidget(key_words_, 1);
    in->addWidget(fahrenheit_);
    in->addWidget(as_variant_);
    keys_ = bench_table("keyTable", tr("Key by key"), {tr("Setting"), tr("Where"), tr("Keys"), tr("Set"), tr("Wanted"), tr("Mind")}, 5);
    connect(fahrenheit_, &QCheckBox::clicked, this, &UnitPage::refresh);
    connect(as_variant_, &QPushButton::clicked, this, &UnitPage::as_variant);
    return page_of({row, keys_}, 1);
}

QWidget* UnitPage::make_presets()
{
    presets_ = new QLabel;
    presets_->setObjectName(QStringLiteral("presets"));
    presets_->setWordWrap(true);
    presets_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
    auto* scroll = new QScrollArea;
    scroll->setWidget(presets_);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->viewport()->setAutoFillBackground(false);
    presets_->setAutoFillBackground(false); // setWidget() has turned it on
    return page_of({remark(tr("What the unit leaves the factory with, put into this job: what would then be found that is not found now.")), scroll}, 1);
}

QWidget* UnitPage::make_lamps()
{
    auto* rows = new QWidget;
    lamp_rows_ = new QGridLayout(rows);
    lamp_rows_->setContentsMargins(0, 0, 0, 0);
    lamp_words_ = new QLabel;
    lamp_words_->setObjectName(QStringLiteral("lampWords"));
    lamp_words_->setWordWrap(true);
    return page_of({remark(tr("How do its lamps look?")), rows, lamp_words_}, -1);
}

QWidget* UnitPage::make_replaced()
{
    instead_of_ = new QComboBox;
    instead_of_->setObjectName(QStringLiteral("insteadOf"));
    instead_of_->setAccessibleName(tr("The unit that it replaces"));
    auto* row = new QWidget;
    auto* in = new QHBoxLayout(row);
    in->setContentsMargins(0, 0, 0, 0);
    in->addWidget(new QLabel(tr("The unit above in place of")));
    in->addWidget(instead_of_);
    in->addStretch(1);
    replaced_ = bench_table("replacedTable", tr("What is lost or changes"), {tr("What"), tr("Was"), tr("Is")}, 2);
    connect(instead_of_, &QComboBox::activated, this, &UnitPage::show_replaced);
    return page_of({row, replaced_, remark(tr("“Show it on the strip” on the page Keys runs this job as the unit above can be set."))}, 1);
}

QWidget* UnitPage::make_text()
{
    text_ = new QPlainTextEdit;
    text_->setObjectName(QStringLiteral("sheetText"));
    text_->setAccessibleName(tr("The sheet as text"));
    text_->setTabChangesFocus(true);
    text_->setLineWrapMode(QPlainTextEdit::NoWrap);
    text_said_ = remark();
    text_said_->setObjectName(QStringLiteral("sheetTextSaid"));
    take_text_ = new QPushButton(tr("Take it into the job"));
    take_text_->setObjectName(QStringLiteral("takeSheetText"));
    auto* row = new QWidget;
    auto* in = new QHBoxLayout(row);
    in->setContentsMargins(0, 0, 0, 0);
    in->addWidget(text_said_, 1);
    in->addWidget(take_text_);
    connect(text_, &QPlainTextEdit::textChanged, this, &UnitPage::check_text);
    connect(take_text_, &QPushButton::clicked, this, [this] {
        if (const auto error = take_sheet(tr("the text"), text_->toPlainText().toStdString()))
            text_said_->setText(qs(error->text()));
    });
    return page_of({text_, row}, 0);
}

void UnitPage::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    collect();
}

const UnitSheet* UnitPage::sheet() const
{
    const int i = which_->currentIndex();
    return i >= 0 && static_cast<std::size_t>(i) < sheets_.size() ? &sheets_[static_cast<std::size_t>(i)] : nullptr;
}

bool UnitPage::is_kept(const UnitSheet& sheet) const
{
    return std::find(sheets_.begin(), sheets_.begin() + static_cast<std::ptrdiff_t>(own_), sheet) != sheets_.begin() + static_cast<std::ptrdiff_t>(own_);
}

// The job's sheets come first.
void UnitPage::collect()
{
    std::vector<UnitSheet> now = sheets_of(session_.document().job());
    own_ = now.size();
    for (const UnitSheet& s : example_sheets())
        if (std::find(now.begin(), now.end(), s) == now.end())
            now.push_back(s);
    const bool same = now == sheets_;
    if (!same) {
        const QString was = which_->currentText();
        sheets_ = std::move(now);
        for (QComboBox* box : {which_, instead_of_}) {
            const QSignalBlocker quiet(box);
            box->clear();
            for (const UnitSheet& s : sheets_)
                box->addItem(qs(s.name));
        }
        const QSignalBlocker quiet(which_);
        which_->setCurrentIndex(std::max(0, which_->findText(was)));
        lay_out_lamps();
        show_text();
    }
    refresh();
}

void UnitPage::refresh()
{
    const UnitSheet* s = sheet();
    if (!s || !isVisible())
        return;
    about_->setText(qs(s->about));
    keep_->setVisible(!is_kept(*s));
    switch (pages_->currentIndex()) {
    case 0: return show_wiring();
    case 1: return show_keys();
    case 2: return show_presets();
    case 3: return show_lamps();
    case 4: return show_replaced();
    default: return;
    }
}

void UnitPage::show_text()
{
    if (const UnitSheet* s = sheet())
        text_->setPlainText(qs(write_unit_sheet(*s)));
}

void UnitPage::check_text()
{
    const auto read = read_unit_sheet(text_->toPlainText().toStdString(), tr("the text").toStdString());
    const bool new_text = read && !(sheet() && is_kept(*sheet()) && *read == *sheet());
    take_text_->setEnabled(new_text);
    text_said_->setText(!read ? qs(read.error().text()) : new_text ? tr("It can be taken. A sheet of the same name in the job is replaced.")
                                                                   : tr("As it is kept in the job. Write what your unit is like; what is wrong is said here."));
}

std::optional<Error> UnitPage::take_sheet(const QString& file, const std::string& text)
{
    const auto sheet = read_unit_sheet(text, file.toStdString());
    if (!sheet)
        return sheet.error();
    const Attachment a = make_attachment(sheet_file_name(*sheet), write_unit_sheet(*sheet));
    session_.document().edit(tr("Sheet of %1").arg(qs(sheet->name)), [&](Job& j) { keep_attachment(j, a); });
    collect();
    which_->setCurrentIndex(which_->findText(qs(sheet->name)));
    return {};
}

void UnitPage::keep()
{
    if (const UnitSheet* s = sheet())
        take_sheet(qs(s->name), write_unit_sheet(*s));
}

void UnitPage::open_file()
{
    const auto error = take_own_file(this, tr("A unit's sheet"), tr("Unit sheets (*.json);;All files (*)"), [this](const QString& name, const std::string& text) { return take_sheet(name, text); });
    said_->setVisible(error.has_value());
    if (error)
        said_->setText(in_colour(theme().protect, qs(error->text())));
}

void UnitPage::save_file()
{
    const UnitSheet* s = sheet();
    const QString path = s ? dialogs_.save_as(this, qs(sheet_file_name(*s)), tr("Unit sheets (*.json)")) : QString();
    if (path.isEmpty())
        return;
    if (const auto written = write_file_atomically(path.toStdString(), write_unit_sheet(*s)); !written)
        dialogs_.tell(this, qs(written.error().text()));
}

void UnitPage::as_variant()
{
    Document& doc = session_.document();
    const std::size_t from = doc.variant_index();
    Variant on = as_set(*sheet(), doc.job(), from, fahrenheit_->isChecked());
    on.id.clear();
    doc.edit(tr("As set on %1").arg(qs(sheet()->name)), [&](Job& j) {
        on.name = free_name(j.variants, "on " + sheet()->name);
        j.variants.push_back(on);
    });
    doc.choose_variant(doc.job().variants.size() - 1);
    doc.choose_baseline(from);
    said_->setText(tr("It stands as the variant “%1”. Run and its strip show it against “%2”.").arg(qs(on.name), qs(doc.job().variants[from].name)));
    said_->show();
}

} // namespace vernal
