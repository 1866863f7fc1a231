#include "probe_points_page.h"

#include "app/shell/theme.h"
#include "files/disk.h"
#include "files/points_csv.h"

#include <QComboBox>
#include <QListWidget>
#include <QPlainTextEdit>
#include <QPushButton>
#include <QTimer>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace vernal {
namespace {

constexpr int typing_ms = 250;
constexpr std::size_t listed_points = 400; // more are not written back into the text

} // namespace

ProbePointsPage::ProbePointsPage(Session& session, CurveShelf& shelf, const std::size_t& shown) : ProbePageView(session, shown), shelf_(shelf)
{
    auto* left = new QWidget;
    auto* rows = new QVBoxLayout(left);
    rows->setContentsMargins(0, 0, 0, 0);
    auto* top = new QHBoxLayout;
    top->addLayout(typed_column());
    top->addLayout(match_column(), 1);
    rows->addLayout(top, 1);
    fill_fit_column(*beside(*this, left));
    soon_ = new QTimer(this);
    soon_->setObjectName("pointsSoon");
    soon_->setSingleShot(true);
    soon_->setInterval(typing_ms);
    connect(text_, &QPlainTextEdit::textChanged, soon_, qOverload<>(&QTimer::start));
    connect(soon_, &QTimer::timeout, this, &ProbePointsPage::take_text);
    connect(use_fit_, &QPushButton::clicked, this, &ProbePointsPage::use_fit);
    connect(keep_fit_, &QPushButton::clicked, this, &ProbePointsPage::keep_fit);
    connect(use_match_, &QPushButton::clicked, this, &ProbePointsPage::use_match);
    connect(matches_, &QListWidget::itemDoubleClicked, this, &ProbePointsPage::use_match);
}

QLayout* ProbePointsPage::typed_column()
{
    auto* typed = new QVBoxLayout;
    text_ = new QPlainTextEdit;
    text_->setObjectName("pointsText");
    text_->setAccessibleName(tr("Measured points, degrees and ohms in a line"));
    text_->setPlaceholderText(tr("One point a line, temperature first:\n\n0, 1000\n100, 1385.1\n\nor 212 °F  1.3851 kΩ"));
    text_->setMinimumWidth(90);
    text_->setMaximumWidth(160);
    text_->setFont(text_font(13));
    text_->setTabChangesFocus(true);
    auto* file = new QPushButton(tr("From a file …"));
    file->setObjectName("pointsFile");
    connect(file, &QPushButton::clicked, this, &ProbePointsPage::file_wanted);
    typed->addWidget(heading(tr("Measured points")));
    typed->addWidget(text_, 1);
    typed->addWidget(file);
    return typed;
}

QLayout* ProbePointsPage::match_column()
{
    auto* which = new QVBoxLayout;
    matches_ = new QListWidget;
    matches_->setObjectName("matches");
    matches_->setAccessibleName(tr("Curves, the closest first"));
    matches_->setWordWrap(true);
    matches_->setMinimumWidth(90);
    matches_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    advice_ = new QLabel;
    advice_->setObjectName("identifyAdvice");
    advice_->setWordWrap(true);
    use_match_ = new QPushButton(tr("Use the chosen curve"));
    use_match_->setObjectName("useMatch");
    which->addWidget(heading(tr("Which curve is this?")));
    which->addWidget(advice_);
    which->addWidget(matches_, 1);
    which->addWidget(use_match_);
    return which;
}

void ProbePointsPage::fill_fit_column(QVBoxLayout& column)
{
    plot_ = new QCustomPlot;
    plot_->setObjectName("residualPlot");
    plot_->setMinimumHeight(120);
    column.addWidget(heading(tr("Fit")));
    auto* sheet = new FieldSheet(session_);
    law_ = choice_row(*sheet, QStringLiteral("fitLaw"), tr("Law"), {tr("beta"), tr("three terms")}, [this](int) { show_fit(); });
    column.addWidget(sheet);
    trouble_ = new QLabel;
    trouble_->setObjectName("bad");
    trouble_->setProperty("of", QStringLiteral("points"));
    trouble_->setWordWrap(true);
    trouble_->hide();
    verdict_ = new QLabel;
    verdict_->setObjectName("fitVerdict");
    verdict_->setWordWrap(true);
    verdict_->setTextInteractionFlags(Qt::TextSelectableByMouse);
    use_fit_ = new QPushButton(tr("Use this fit for the probe"));
    use_fit_->setObjectName("act");
    keep_fit_ = new QPushButton(tr("Keep it among my curves"));
    keep_fit_->setObjectName("keepFit");
    kept_ = remark();
    column.addWidget(trouble_);
    column.addWidget(verdict_);
    column.addWidget(plot_, 1);
    for (QWidget* w : {static_cast<QWidget*>(use_fit_), static_cast<QWidget*>(keep_fit_), static_cast<QWidget*>(kept_)})
        column.addWidget(w);
}

QString ProbePointsPage::text_of(const std::vector<CurvePoint>& points) const
{
    QString out;
    for (const CurvePoint& p : points)
        out += QString::number(to_display(p.temp_c, Quantity::temperature, session_.units()), 'g', 7) + QStringLiteral(", ") + QString::number(p.ohm, 'g', 8) + QLatin1Char('\n');
    return out;
}

void ProbePointsPage::read_file(const QString& path)
{
    const auto content = vernal::read_file(path.toStdString());
    if (content)
        text_->setPlainText(qs(*content));
    tell(content ? QString() : qs(content.error().text()));
}

void ProbePointsPage::tell(const QString& trouble)
{
    trouble_->setText(trouble);
    trouble_->setVisible(!trouble.isEmpty());
}

// What cannot be read stays as it was typed, with the reason beside it; the job
// keeps the last points that could be read.
void ProbePointsPage::take_text()
{
    const QString typed = text_->toPlainText();
    if (typed.trimmed().isEmpty()) {
        tell({});
        edit(tr("Clear the points"), [](Probe& p) { p.points.clear(); });
        return refresh();
    }
    const auto points = read_points(typed.toStdString(), tr("Points").toStdString(), session_.units().fahrenheit);
    tell(points ? QString() : qs(points.error().text()));
    if (points && *points != probe().points)
        edit(
            tr("Measured points"), [&](Probe& p) { p.points = *points; }, QStringLiteral("points"));
    show_fit();
    show_matches();
}

void ProbePointsPage::refresh()
{
    const std::string now = variant().name + "/" + probe().key;
    const auto standing = read_points(text_->toPlainText().toStdString(), "", session_.units().fahrenheit);
    const bool same = standing ? *standing == probe().points : probe().points.empty() || !trouble_->text().isEmpty();
    if (now != shown_for_ || !same) { // another probe, or undone
        shown_for_ = now;
        const QSignalBlocker quiet(text_);
        if (probe().points.size() <= listed_points)
            text_->setPlainText(text_of(probe().points));
        tell({});
    }
    show_fit();
    show_matches();
}

void ProbePointsPage::show_fit()
{
    fit_.reset();
    const auto& points = probe().points;
    const FitLaw law = static_cast<FitLaw>(law_->currentIndex());
    if (points.empty()) {
        verdict_->setText(tr("Type, paste or load two points or more. Disconnect the probe first: the unit reads in parallel."));
    } else if (const auto f = fit_curve(points, law)) {
        fit_ = *f;
        QString s = qs(curve_text(f->curve)).section(QLatin1Char(';'), 0, 0).replace(QLatin1Char(','), QStringLiteral(", "));
        if (const auto* b = std::get_if<NtcBetaCurve>(&f->curve.law))
            s = tr("%1 at 25 °C, B %2 K").arg(text(b->r25_ohm, Quantity::resistance, session_.units())).arg(b->beta_k, 0, 'f', 0);
        s += QLatin1Char('\n') + tr("Off by %1 together (rms).").arg(text(f->rms_k, Quantity::small_difference, session_.units()));
        if (f->suspect)
            s += QLatin1Char('\n') + tr("Measure point %1 again, %2: without it the others agree far better than without any other.").arg(*f->suspect + 1).arg(text(points[*f->suspect].temp_c, Quantity::temperature, session_.units()));
        else if (f->left_out_rms.empty())
            s += QLatin1Char('\n') + tr("Too few points to name a wrong one.");
        verdict_->setText(s);
    } else {
        verdict_->setText(qs(f.error().text()));
    }
    use_fit_->setEnabled(fit_.has_value());
    keep_fit_->setEnabled(fit_.has_value());
    kept_->clear();
    draw();
}

void ProbePointsPage::show_matches()
{
    matches_->clear();
    match_curves_.clear();
    const auto found = identify(probe().points, shelf_.book());
    use_match_->setEnabled(static_cast<bool>(found));
    if (!found)
        return advice_->setText(probe().points.empty() ? tr("Two points at different temperatures are needed.") : qs(found.error().text()));
    advice_->setText(qs(found->advice));
    for (const Match& m : found->matches) {
        if (!std::isfinite(m.rms_k))
            continue;
        match_curves_.push_back(m.curve);
        matches_->addItem((m.possible ? QStringLiteral("✓  ") : QStringLiteral("–  ")) + tr("%1\n%2 by %3").arg(qs(shelf_.book()[m.curve].name), m.possible ? tr("fits, off") : tr("differs"), text(m.rms_k, Quantity::small_difference, session_.units())));
    }
    matches_->setCurrentRow(match_curves_.empty() ? -1 : 0);
    use_match_->setEnabled(!match_curves_.empty());
}

void ProbePointsPage::draw()
{
    const Theme& t = theme();
    const Units& u = session_.units();
    plot_->clearGraphs();
    plot_->clearItems();
    style_plot(*plot_);
    plot_->xAxis->setLabel(tr("measured, %1").arg(qs(unit_name(Quantity::temperature, u))));
    plot_->yAxis->setLabel(tr("residual, %1").arg(qs(unit_name(Quantity::difference, u))));
    plot_->setVisible(fit_.has_value());
    if (!fit_)
        return;
    QVector<double> x, y;
    for (std::size_t i = 0; i < probe().points.size(); ++i) {
        x.append(to_display(probe().points[i].temp_c, Quantity::temperature, u));
        y.append(to_display(fit_->residual_k[i], Quantity::difference, u));
    }
    QCPGraph* points = plot_->addGraph();
    points->setData(x, y);
    points->setLineStyle(QCPGraph::lsImpulse);
    points->setPen(QPen(t.collector, t.line_px));
    points->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssDisc, t.collector, t.collector, 8));
    points->rescaleAxes();
    if (fit_->suspect) {
        QCPGraph* ring = plot_->addGraph();
        ring->addData(x[static_cast<qsizetype>(*fit_->suspect)], y[static_cast<qsizetype>(*fit_->suspect)]);
        ring->setLineStyle(QCPGraph::lsNone);
        ring->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssCircle, QPen(t.protect, 2.5), Qt::NoBrush, 17));
    }
    const double most = std::max(0.05, std::max(std::fabs(*std::min_element(y.begin(), y.end())), std::fabs(*std::max_element(y.begin(), y.end()))));
    plot_->yAxis->setRange(-1.4 * most, 1.4 * most);
    plot_->xAxis->scaleRange(1.15);
    plot_->replot(QCustomPlot::rpQueuedReplot);
}

void ProbePointsPage::use_fit()
{
    if (fit_)
        edit(tr("Use the fitted curve"), [this](Probe& p) { p.curve = fit_->curve; });
}

void ProbePointsPage::keep_fit()
{
    if (!fit_)
        return;
    NamedCurve c;
    c.name = probe().name + ", " + session_.document().job().title;
    c.key = "own-" + std::to_string(std::hash<std::string>{}(c.name + curve_text(fit_->curve)) % 1000000);
    c.origin = tr("Fitted to %1 measured points").arg(probe().points.size()).toStdString();
    c.curve = fit_->curve;
    const QString trouble = shelf_.keep(c);
    kept_->setText(trouble.isEmpty() ? tr("Kept as “%1” in %2").arg(qs(c.name), shelf_.own_file()) : trouble);
}

void ProbePointsPage::use_match()
{
    const int row = matches_->currentRow();
    if (row < 0 || static_cast<std::size_t>(row) >= match_curves_.size())
        return;
    const NamedCurve& c = shelf_.book()[match_curves_[static_cast<std::size_t>(row)]];
    edit(tr("Choose a curve"), [&](Probe& p) {
        p.curve = c.curve;
        p.sensor.tolerance = c.tolerance;
    });
}

} // namespace vernal
