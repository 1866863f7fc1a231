// A paper on pages: letterhead, its own header and page numbers, pictures as vectors.
#pragma once

#include "app/shell/dialogs.h"
#include "app/shell/document.h"
#include "files/report/paper_html.h"

#include <QPageSize>
#include <QString>

class QPagedPaintDevice;

namespace vernal {

// False: the device cannot be painted on. Gives the number of pages.
int paint_paper(QPagedPaintDevice& device, const Paper& paper, const Letterhead& head, const PaperPictures& pictures);

// .pdf, .html, .json, .csv or .txt by the name's ending. The reason where it cannot be written; empty: done.
QString write_paper(const QString& path, const Paper& paper, const Letterhead& head, const PaperPictures& pictures, QPageSize::PageSizeId size);

// A paper of the chosen variant that has no pictures, saved as PDF or printed by the hand of all
// papers; the reason where that fails, empty: done, or not wanted.
QString write_plain_paper(const QString& path, const std::string& kind, const Document& d, const Units& units);
QString print_plain_paper(QWidget* over, const Dialogs& dialogs, const std::string& kind, const Document& d, const Units& units);

// The person's own, kept among the preferences.
Letterhead own_letterhead();
void keep_letterhead(const QString& lines, const QString& logo_file);
QString letterhead_lines();
QString letterhead_logo(); // its file

// Page size by the preference, else by the country.
QPageSize::PageSizeId usual_paper();

} // namespace vernal
