// How a log from elsewhere is read: chosen on one page, with its first rows and its
// picture, before it is taken in.
#pragma once

#include "app/shell/session.h"
#include "app/widgets/worker.h"
#include "files/import/log_reader.h"

#include <QWidget>

#include <memory>

class QComboBox;
class QLabel;
class QListWidget;
class QProgressBar;
class QPushButton;
class QSpinBox;

namespace vernal {

class FieldSheet;
class LogPicture;
class LogTable;

struct LogText {
    std::string name; // of the file, without folder
    std::string text; // UTF-8
};

class ImportPage : public QWidget {
    Q_OBJECT
public:
    explicit ImportPage(Session& session, QWidget* parent = nullptr);
    void open(std::vector<LogText> files); // at least one
    bool runs() const { return worker_.runs(); }

signals:
    // What was read of all files, joined; the troubles in one sentence.
    void taken(std::shared_ptr<const vernal::Trace> trace, const QString& name, const QString& said);
    void left();

protected:
    void keyPressEvent(QKeyEvent* e) override;

private:
    struct Read { // of all files
        Result<Trace> trace;
        std::size_t troubles = 0;
        std::string first_trouble;
        std::string dropped; // by file, where more than one row in a thousand was left out
    };
    static Read read_all(const std::vector<LogText>& files, const std::vector<LogLayout>& layouts, const std::vector<LogTarget>& targets, const Place& place, const std::function<void(double)>& progress, const std::stop_token& stop);
    void build_controls(FieldSheet& sheet);
    void guess();
    void show_layout();
    void add_word_rows();
    void change(const std::function<void(LogLayout&)>& how, bool columns_too);
    void look();
    void list_troubles(const ImportedLog& log, const QString& of);
    void run();
    void take(Read read);
    void show_running();
    LogLayout layout_for(const LogText& file) const;
    Session& session_;
    std::vector<LogText> files_;
    std::vector<LogTarget> targets_;
    LogLayout layout_;
    bool known_ = false; // it was read as the last one of this header
    bool asked_ = false; // whether rows may be left out
    QLabel *title_, *said_;
    LogTable* table_;
    LogPicture* picture_;
    QListWidget* troubles_;
    QComboBox *delimiter_, *decimal_, *form_, *clock_;
    QSpinBox *header_, *first_;
    FieldSheet* words_;
    QPushButton *take_, *again_, *leave_;
    QProgressBar* bar_;
    Worker worker_{*this}; // last
};

} // namespace vernal
