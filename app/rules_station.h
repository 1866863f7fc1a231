// Rules as sentences with numbers in them, beside the operating map.
#pragma once

#include "number_edit.h"
#include "operating_map.h"

#include <QFrame>

class QVBoxLayout;
class QPushButton;

namespace vernal {

// One rule: its sentence, its switch, its explanation.
class RuleCard : public QFrame {
    Q_OBJECT
public:
    RuleCard(Session& session, std::size_t rule, QWidget* parent = nullptr);
    void refresh(); // numbers from the document
private:
    void build();
    void add_word(QLayout& line, const QString& word, bool attached = false);
    void add_output(QLayout& line);
    void add_number(QLayout& line, const std::string& key);
    void add_probe(QLayout& line, const std::string& key);
    QWidget* head();
    const Rule& rule() const { return session_.document().variant().unit.rules[rule_]; }
    Session& session_;
    std::size_t rule_;
    std::vector<std::pair<std::string, NumberEdit*>> numbers_;
};

class RulesStation : public QWidget {
    Q_OBJECT
public:
    explicit RulesStation(Session& session, QWidget* parent = nullptr);

private:
    void refresh();
    void rebuild();
    QWidget* outputs_row();
    QWidget* add_button();
    Session& session_;
    QVBoxLayout *cards_, *outputs_;
    OperatingMap* map_;
    std::vector<RuleCard*> shown_;
    QString shape_; // kinds, switches, probes of the cards now shown
};

} // namespace vernal
