#include "letterhead_sheet.h"

#include "app/print/paper_print.h"
#include "app/widgets/form.h"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QSettings>
#include <QVBoxLayout>

namespace vernal {

LetterheadSheet::LetterheadSheet(QWidget* parent) : QDialog(parent)
{
    setObjectName(QStringLiteral("letterheadSheet"));
    setWindowTitle(tr("Letterhead and paper"));
    auto* lines = new QPlainTextEdit(letterhead_lines());
    lines->setObjectName(QStringLiteral("letterheadLines"));
    lines->setAccessibleName(tr("Name, street, telephone"));
    lines->setPlaceholderText(tr("Name, street, telephone: a line each"));
    lines->setTabChangesFocus(true);
    auto* logo = new QLineEdit(letterhead_logo());
    logo->setObjectName(QStringLiteral("letterheadLogo"));
    logo->setAccessibleName(tr("File of the logo"));
    logo->setPlaceholderText(tr("File of the logo: SVG, PNG or JPEG; empty: none"));
    logo->setMinimumHeight(36);
    auto* choose = new QPushButton(tr("Choose …"));
    auto* paper = new QComboBox;
    paper->setObjectName(QStringLiteral("letterheadPaper"));
    paper->setAccessibleName(tr("Paper"));
    paper->addItems({QStringLiteral("A4"), tr("Letter")});
    paper->setCurrentIndex(usual_paper() == QPageSize::Letter ? 1 : 0);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel);
    auto* row = new QHBoxLayout;
    row->addWidget(logo, 1);
    row->addWidget(choose);
    auto* box = new QVBoxLayout(this);
    box->addWidget(remark(tr("Stands on the first page of all papers. It is kept with this computer, not in the job.")));
    box->addWidget(lines);
    box->addLayout(row);
    box->addWidget(paper, 0, Qt::AlignLeft);
    box->addWidget(buttons);
    constexpr int usual_px = 460;
    resize(usual_px, sizeHint().height());
    connect(choose, &QPushButton::clicked, this, [this, logo] {
        const QString file = QFileDialog::getOpenFileName(this, tr("Logo"), {}, tr("Pictures (*.svg *.png *.jpg *.jpeg)"));
        if (!file.isEmpty())
            logo->setText(file);
    });
    connect(buttons, &QDialogButtonBox::accepted, this, [this, lines, logo, paper] {
        keep_letterhead(lines->toPlainText(), logo->text().trimmed());
        QSettings().setValue(QStringLiteral("paper"), paper->currentIndex() == 1 ? QStringLiteral("letter") : QStringLiteral("a4"));
        accept();
    });
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
}

} // namespace vernal
