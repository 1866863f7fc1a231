// One rule as a line of the ledger: its sentence with the numbers and names to be
// changed in it. Words are painted; only what can be changed is a widget.
#pragma once

#include "app/widgets/number_edit.h"

#include <QWidget>

class QMenu;
class QPushButton;

namespace vernal {

class FindingMark;

class LedgerLine : public QWidget {
    Q_OBJECT
public:
    LedgerLine(Session& session, std::size_t rule, bool open, QWidget* parent = nullptr);
    std::size_t rule() const { return index_; }
    void set_rule(std::size_t index); // others were added or removed before it
    void refresh();                   // numbers from the document
    int height_for(int width) const;
    bool open() const { return open_; }
    QList<QWidget*> in_order() const;             // for Tab
    void mark(const std::vector<Finding>& found); // those of this rule
    void take_focus();

signals:
    void opened(std::size_t rule, bool open); // its details
    void refused(const QString& reason);      // of a move out of its rank
    void grew();                              // it wants another height
    void addition_wanted();
    void touched(); // it got the focus

protected:
    void paintEvent(QPaintEvent* e) override;
    void resizeEvent(QResizeEvent* e) override;
    void mousePressEvent(QMouseEvent* e) override;
    void contextMenuEvent(QContextMenuEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;
    bool eventFilter(QObject* watched, QEvent* e) override;

private:
    struct Token {
        QString word; // painted where there is no editor
        QWidget* editor = nullptr;
        bool attached = false, strong = false, detail = false, new_line = false;
        QRect at;
    };
    const Rule& body() const;
    std::string path(const std::string& field) const;
    void add_sentence(const char* words, bool detail);
    void add_word(const QString& word, bool attached, bool strong = false);
    void add_field(const std::string& key);
    void add_key(const KeyOf& key);
    void add_number(const std::string& key);
    void add_choice(const std::string& key, const std::vector<std::string>& names, std::size_t now, const QStringList& words);
    void add_editor(QWidget* editor);
    void make_menu();
    int arrange(int width, std::vector<Token>& tokens) const;
    void place();
    void move(int by);
    void remove();
    Session& session_;
    std::size_t index_;
    std::string id_; // of the rule: a field that loses the focus because its rule is gone still speaks
    bool open_, detail_ = false;
    std::vector<Token> tokens_;
    std::vector<std::pair<std::string, NumberEdit*>> numbers_;
    QPushButton* more_ = nullptr;
    QMenu* menu_ = nullptr;
    FindingMark* mark_ = nullptr;
};

} // namespace vernal
