// What the pages of the Probes station have in common: the probe they show.
#pragma once

#include "app/widgets/form.h"
#include "core/sums/field_sums.h"

#include <qcustomplot.h>

class QVBoxLayout;

namespace vernal {

class ProbePageView : public QWidget {
    Q_OBJECT
public:
    // shown: index of the probe the station has chosen; lives as long as the page.
    ProbePageView(Session& session, const std::size_t& shown, QWidget* parent = nullptr);
    // The probe, the job or the units changed. Does nothing while hidden: a page
    // is brought up to date when it comes to light.
    void bring_up_to_date();

protected:
    virtual void refresh() = 0;
    void showEvent(QShowEvent* e) override;
    const Variant& variant() const { return session_.document().variant(); }
    const Probe& probe() const { return variant().probes[index()]; }
    std::size_t index() const { return std::min(shown_, variant().probes.size() - 1); }
    void edit(const QString& label, const std::function<void(Probe&)>& change, const QString& merge_key = {});
    void set(const QString& label, const std::string& key, double to); // a setting by its path behind probe/ID/
    // Sums of a page, made anew when another probe is shown, else brought up to date.
    void show_sums(QVBoxLayout& box, ProbePage page);
    Session& session_;

private:
    const std::size_t& shown_;
    std::string sums_of_;
};

// Plot and panel side by side; the panel scrolls. Returns the panel's column.
QVBoxLayout* beside(QWidget& page, QWidget* main);

// Colours and lettering of the theme on every axis of a plot.
void style_plot(QCustomPlot& plot);
void style_axes(QCPAxisRect& rect);

// A second plot under the first, over the same temperatures.
QCPAxisRect* plot_below(QCustomPlot& plot);

} // namespace vernal
