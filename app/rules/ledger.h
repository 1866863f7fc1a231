// The rules as one sheet: lines in the order in which they win, the margin naming each
// rank once, and a thread for every output that runs down through them. Where a rule
// concerns an output there is a knot on its thread; from the one that decides the thread
// is thick down to the foot, where it stands what the output does.
#pragma once

#include "core/wording/threads.h"
#include "ledger_line.h"

#include <QFrame>

#include <set>

class QLabel;
class QPushButton;
class QScrollArea;

namespace vernal {

// Where the threads run, counted from the right edge of the sheet.
struct ThreadColumns {
    std::size_t outputs = 1;
    int right = 0; // x of the sheet's edge
    int each() const { return outputs <= 3 ? 46 : outputs <= 5 ? 32
                                                               : 22; }
    int left() const { return right - static_cast<int>(outputs) * each(); }
    int centre(std::size_t output) const { return left() + static_cast<int>(output) * each() + each() / 2; }
};

class Ledger : public QFrame {
    Q_OBJECT
public:
    explicit Ledger(Session& session, QWidget* parent = nullptr);
    std::size_t output() const { return output_; } // whose reasons stand at the foot
    void choose_output(std::size_t output);
    const std::vector<LedgerLine*>& lines() const { return lines_; }
    QWidget* foot() const { return foot_; }
    void refresh(); // from the document
    void go_to(std::size_t rule, const std::string& field = {});

signals:
    void output_chosen(std::size_t output);

protected:
    void resizeEvent(QResizeEvent* e) override;
    bool eventFilter(QObject* watched, QEvent* e) override;

private:
    static constexpr int rank_px = 62; // margin with the ranks
    struct Row {                       // of the sheet: a line, or a rank that is folded
        QRect at;
        std::vector<std::size_t> rules;
        LedgerLine* line = nullptr;
    };
    struct Rank {
        Priority priority = Priority::nothing;
        QPushButton* name = nullptr;
        QRect at;
    };
    void make_head();
    void make_foot();
    void make_lines();
    void make_ranks();
    void make_outputs();
    void make_switches();
    void order_tabs();
    void lay_out();
    void show_why();
    void mark_findings();
    void fill_additions(QMenu* menu);
    void paint_sheet();
    void paint_thread(QPainter& p, std::size_t output) const;
    void paint_outcome(QPainter& p, const QRect& area) const;
    ThreadColumns threads() const;
    Knot knot(const Row& row, std::size_t output) const;
    QColor colour_of(std::size_t output) const;
    Session& session_;
    std::size_t output_ = 0;
    QWidget *head_ = nullptr, *sheet_ = nullptr, *foot_ = nullptr;
    QScrollArea* scroll_ = nullptr;
    QLabel *refusal_ = nullptr, *why_ = nullptr;
    QPushButton* add_ = nullptr;
    std::vector<QPushButton*> keys_, modes_;
    std::vector<LedgerLine*> lines_;
    std::vector<QString> shapes_; // of the lines
    QString outputs_shape_;
    std::vector<Rank> ranks_;
    std::vector<Row> rows_;
    std::set<std::string> open_;           // ids of rules whose details are shown
    std::set<Priority> folded_;            // ranks shown as one line
    std::vector<std::vector<Knot>> knots_; // per output
};

} // namespace vernal
