// Where the pump really switches: the budget drawn around the set points.
#pragma once

#include "app/widgets/picture.h"
#include "core/sums/switching.h"
#include "probe_page.h"

namespace vernal {

// Set points, real points and their width over an axis of differences, and below
// the causes, widest first.
class BudgetChart : public QWidget, public Picture {
    Q_OBJECT
public:
    explicit BudgetChart(Session& session, QWidget* parent = nullptr);
    void set(const std::optional<RealPoints>& points);
    QString picture_name() const override { return QStringLiteral("budget"); }
    QSizeF picture_size() const override { return size(); }
    void paint_picture(QPainter& p) override { render(&p); }

protected:
    void paintEvent(QPaintEvent* e) override;

private:
    double x_of(double k) const;
    void paint_axis(QPainter& p) const;
    void paint_point(QPainter& p, const Budget& b, double y, const QString& name, const QColor& colour) const;
    void paint_causes(QPainter& p, double top) const;
    Session& session_;
    std::optional<RealPoints> points_;
    double low_k_ = 0, high_k_ = 10;
};

class ProbeBudgetPage : public ProbePageView {
    Q_OBJECT
public:
    ProbeBudgetPage(Session& session, const std::size_t& shown);

private:
    void refresh() override;
    std::size_t rule() const; // chosen difference; rules.size(): none
    BudgetChart* chart_;
    QComboBox* rule_;
    NumberEdit *store_, *air_;
    QLabel* words_;
    std::vector<std::size_t> rules_;
};

} // namespace vernal
