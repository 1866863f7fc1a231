// What the bench's pages are put together from.
#pragma once

#include "core/units/result.h"

#include <QFrame>
#include <QLabel>

#include <functional>
#include <optional>

class QPushButton;
class QTableWidget;

namespace vernal {

QLabel* wrapped_label(const char* name); // its text goes over several lines
QFrame* bench_card();
QPushButton* bench_button(const QString& words, const char* name);
// Whole rows are chosen, nothing is edited; the column `wide` takes what is left of the width.
QTableWidget* bench_table(const char* name, const QString& says, const QStringList& heads, int wide);
QString in_colour(const QColor& c, const QString& words); // as rich text

// Asks for a file and hands its name, without folder, and its text on. None: taken, or none was chosen.
std::optional<Error> take_own_file(QWidget* parent, const QString& title, const QString& filter, const std::function<std::optional<Error>(const QString& name, const std::string& text)>& take);

} // namespace vernal
