// The unit at hand by its sheet: wiring, keys, presets, lamps, another unit in its place, and the
// sheet's own text.
#pragma once

#include "app/shell/dialogs.h"
#include "app/shell/session.h"
#include "core/unit/unit_lists.h"

#include <QWidget>

class QCheckBox;
class QComboBox;
class QGridLayout;
class QLabel;
class QPlainTextEdit;
class QPushButton;
class QStackedWidget;
class QTabBar;
class QTableWidget;

namespace vernal {

class TerminalStrip;

class UnitPage : public QWidget {
    Q_OBJECT
public:
    UnitPage(Session& session, const Dialogs& dialogs, QWidget* parent = nullptr);
    // A sheet's text taken into the job; else what is wrong with it.
    std::optional<Error> take_sheet(const QString& file, const std::string& text);
    const UnitSheet* sheet() const; // chosen; null: none
    int sheets() const { return static_cast<int>(sheets_.size()); }

protected:
    void showEvent(QShowEvent* e) override;

private:
    QLayout* make_head();
    QWidget* make_wiring();
    QWidget* make_keys();
    QWidget* make_presets();
    QWidget* make_lamps();
    QWidget* make_replaced();
    QWidget* make_text();
    void collect();
    void refresh();
    void show_wiring();
    void show_keys();
    void show_presets();
    void lay_out_lamps();
    void show_lamps();
    void show_replaced();
    void show_text();
    void check_text();
    void open_file();
    void save_file();
    void keep();
    void as_variant();
    bool is_kept(const UnitSheet& sheet) const;
    Session& session_;
    const Dialogs& dialogs_;
    std::vector<UnitSheet> sheets_; // the job's, then the examples
    std::size_t own_ = 0;           // how many are the job's
    QComboBox *which_, *instead_of_;
    QLabel *about_, *said_, *presets_, *lamp_words_, *text_said_, *key_words_;
    QPushButton *keep_, *as_variant_, *take_text_;
    QTabBar* tabs_;
    QStackedWidget* pages_;
    TerminalStrip* strip_;
    QTableWidget *wiring_, *keys_, *replaced_;
    QCheckBox* fahrenheit_;
    QGridLayout* lamp_rows_;
    std::vector<std::pair<std::string, QComboBox*>> lamps_;
    QPlainTextEdit* text_;
};

} // namespace vernal
