// One field sum beside a part: folded to its title, opened to its inputs, the
// formula with the numbers in it, and the button that writes the result.
#pragma once

#include "app/shell/session.h"
#include "core/sums/field_sums.h"

#include <QFrame>

class QLabel;
class QPushButton;

namespace vernal {

class NumberEdit;

class SumBox : public QFrame {
    Q_OBJECT
public:
    // probe: of a probe's sum; < probes of the variant.
    SumBox(Session& session, const FieldSum& sum, Part part, std::size_t probe = 0, QWidget* parent = nullptr);
    void refresh(); // the loop or the units changed

private:
    void open(bool open);
    void build();
    std::vector<double> inputs() const;
    SumContext context() const;
    void take();
    Session& session_;
    const FieldSum& sum_;
    Part part_;
    std::size_t probe_;
    QWidget* body_ = nullptr;
    QLabel* formula_ = nullptr;
    QPushButton* take_ = nullptr;
    std::vector<NumberEdit*> edits_;
};

} // namespace vernal
