// Measured points: a fit through them with its residuals, and which known curve
// they belong to.
#pragma once

#include "core/probe/fit.h"
#include "curve_shelf.h"
#include "probe_page.h"

class QLayout;
class QListWidget;
class QPlainTextEdit;
class QPushButton;
class QTimer;
class QVBoxLayout;

namespace vernal {

class ProbePointsPage : public ProbePageView {
    Q_OBJECT
public:
    ProbePointsPage(Session& session, CurveShelf& shelf, const std::size_t& shown);
    void read_file(const QString& path); // its text takes the place of what stands there

signals:
    void file_wanted();

private:
    QLayout* typed_column();
    QLayout* match_column();
    void fill_fit_column(QVBoxLayout& column);
    void refresh() override;
    void take_text();
    void tell(const QString& trouble); // beside what was typed; empty: none
    void show_fit();
    void show_matches();
    void draw();
    void use_fit();
    void keep_fit();
    void use_match();
    QString text_of(const std::vector<CurvePoint>& points) const;
    CurveShelf& shelf_;
    QPlainTextEdit* text_;
    QLabel *trouble_, *verdict_, *advice_, *kept_;
    QComboBox* law_;
    QPushButton *use_fit_, *keep_fit_, *use_match_;
    QListWidget* matches_;
    QCustomPlot* plot_;
    QTimer* soon_;
    std::optional<Fit> fit_;
    std::vector<std::size_t> match_curves_; // entry of the shelf by row
    std::string shown_for_;                 // variant and probe whose text stands there
};

} // namespace vernal
