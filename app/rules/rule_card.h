// One rule: its sentence, its switch, its explanation.
#pragma once

#include "app/widgets/number_edit.h"

#include <QFrame>
#include <QLayout>

class QLabel;
class QPushButton;

namespace vernal {

class RuleCard : public QFrame {
    Q_OBJECT
public:
    RuleCard(Session& session, std::size_t rule, bool open, QWidget* parent = nullptr);
    void refresh(); // numbers from the document

signals:
    void opened(std::size_t rule, bool open); // its details
    void refused(const QString& reason);      // of a move out of its priority

private:
    void build();
    QWidget* head();
    QWidget* sentence(const char* words);
    void add_word(QLayout& line, const QString& word, bool attached = false);
    void add_field(QLayout& line, const std::string& key);
    void add_key(QLayout& line, const KeyOf& key);
    void add_number(QLayout& line, const std::string& key);
    void add_choice(QLayout& line, const std::string& key, const std::vector<std::string>& names, std::size_t now, const QStringList& words);
    std::string path(const std::string& field) const;
    void move(int by);
    bool has_details() const;
    bool details_said() const; // some detail is not as a new rule has it
    const Rule& rule() const;
    Session& session_;
    std::size_t rule_;
    bool open_;
    std::vector<std::pair<std::string, NumberEdit*>> numbers_;
};

// What a card shows besides its numbers: cards are built anew when it changes.
QString shape_of(const Rule& rule);

} // namespace vernal
