// A visit as a page of the logbook, and the line in which it is dictated.
#pragma once

#include "app/shell/dialogs.h"
#include "app/shell/session.h"
#include "photo_intake.h"

#include <QTextBrowser>

#include <map>

class QLabel;
class QLineEdit;
class QPushButton;

namespace vernal {

// The page; it shows the job's photos small.
class PageView : public QTextBrowser {
    Q_OBJECT
public:
    explicit PageView(Document& document, QWidget* parent = nullptr);
    QVariant loadResource(int type, const QUrl& name) override;

signals:
    void photos_dropped(const QStringList& paths);
    void image_pasted(const QImage& image);

protected:
    void dragEnterEvent(QDragEnterEvent* e) override;
    void dragMoveEvent(QDragMoveEvent* e) override;
    void dropEvent(QDropEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;

private:
    Document& document_;
    std::map<QString, QImage> small_;
};

class VisitPage : public QWidget {
    Q_OBJECT
public:
    VisitPage(Session& session, const Dialogs& dialogs, QWidget* parent = nullptr);
    void show_visit(const std::string& id);
    const std::string& visit_id() const { return id_; }
    const Visit* visit() const;
    void say(const QString& words); // puts them into the line, the caret behind them
    void begin_amending();
    PhotoIntake& photos() { return intake_; }
    void take_photos();

protected:
    void showEvent(QShowEvent* e) override;
    bool eventFilter(QObject* watched, QEvent* e) override;

private:
    QLayout* make_line();
    QWidget* make_amend();
    void refresh();
    void follow(const QUrl& link);
    void take_line();
    void edit_line(std::size_t index);
    void remove_line();
    void leave_line();
    void take_amendment();
    void keep_photo(const Attachment& photo);
    void ask_caption(const QString& hash);
    void tell(const QString& words, bool wrong);
    Session& session_;
    const Dialogs& dialogs_;
    std::string id_;
    bool glare_ = false;
    PageView* view_;
    QLineEdit* line_;
    QLabel* said_;
    QPushButton *take_, *remove_;
    QWidget *saying_, *amending_;
    QLineEdit *what_, *reason_, *by_;
    std::optional<std::size_t> edited_; // line that is being changed
    QString doubted_;                   // line that was asked about; said again it is kept
    QString captioned_;                 // photo whose caption is being typed
    PhotoIntake intake_{this};          // last but for what it needs
};

} // namespace vernal
