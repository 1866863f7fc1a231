#include "dialogs.h"

#include <QAbstractButton>
#include <QFileDialog>
#include <QMessageBox>
#include <QPrintDialog>
#include <QPrinter>

namespace vernal {
namespace {

constexpr const char* job_filter = "Vernal Relay jobs (*.vrelay *.json)";

Dialogs::Unsaved ask_unsaved(QWidget* w)
{
    const auto answer = QMessageBox::question(w, QObject::tr("Unsaved work"), QObject::tr("The job was changed since it was saved."), QMessageBox::Save | QMessageBox::Discard | QMessageBox::Cancel);
    if (answer == QMessageBox::Save)
        return Dialogs::Unsaved::save;
    return answer == QMessageBox::Discard ? Dialogs::Unsaved::drop : Dialogs::Unsaved::cancel;
}

Dialogs::Changed ask_changed(QWidget* w, const QString& path)
{
    QMessageBox box(QMessageBox::Question, QObject::tr("Changed meanwhile"), QObject::tr("%1 was changed by another program or window since it was opened here.").arg(path), QMessageBox::Cancel, w);
    const auto* mine = box.addButton(QObject::tr("Keep mine"), QMessageBox::DestructiveRole);
    const auto* theirs = box.addButton(QObject::tr("Take theirs"), QMessageBox::DestructiveRole);
    const auto* visits = box.addButton(QObject::tr("Keep mine and take over their visits"), QMessageBox::AcceptRole);
    const auto* beside = box.addButton(QObject::tr("Save mine beside it"), QMessageBox::AcceptRole);
    box.exec();
    const QAbstractButton* chosen = box.clickedButton();
    if (chosen == visits)
        return Dialogs::Changed::take_visits;
    return chosen == mine ? Dialogs::Changed::keep_mine : chosen == theirs ? Dialogs::Changed::take_theirs
                                                      : chosen == beside   ? Dialogs::Changed::save_beside
                                                                           : Dialogs::Changed::cancel;
}

} // namespace

Dialogs Dialogs::usual()
{
    Dialogs s;
    s.open_file = [](QWidget* w) { return QFileDialog::getOpenFileName(w, QObject::tr("Open a job"), {}, QString::fromLatin1(job_filter)); };
    s.open_log = [](QWidget* w) { return QFileDialog::getOpenFileName(w, QObject::tr("Import measured points"), {}, QObject::tr("Tables (*.csv *.txt *.tsv);;All files (*)")); };
    s.open_logs = [](QWidget* w) { return QFileDialog::getOpenFileNames(w, QObject::tr("Import logs or weather"), {}, QObject::tr("Logs and weather (*.csv *.txt *.tsv *.log *.dat *.epw);;All files (*)")); };
    s.open_photos = [](QWidget* w) { return QFileDialog::getOpenFileNames(w, QObject::tr("Photos"), {}, QObject::tr("Photos (*.jpg *.jpeg *.png *.bmp *.gif);;All files (*)")); };
    s.open_folder = [](QWidget* w) { return QFileDialog::getExistingDirectory(w, QObject::tr("Folder of jobs")); };
    s.save_file = [](QWidget* w, const QString& path) { return QFileDialog::getSaveFileName(w, QObject::tr("Save the job"), path, QString::fromLatin1(job_filter)); };
    s.save_as = [](QWidget* w, const QString& suggested, const QString& filter) { return QFileDialog::getSaveFileName(w, QObject::tr("Save"), suggested, filter); };
    s.unsaved = ask_unsaved;
    s.changed = ask_changed;
    s.printer = [](QWidget* w, QPrinter& to) { return QPrintDialog(&to, w).exec() == QDialog::Accepted; };
    s.tell = [](QWidget* w, const QString& text) { QMessageBox::warning(w, QStringLiteral("Vernal Relay"), text); };
    return s;
}

} // namespace vernal
