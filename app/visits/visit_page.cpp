#include "visit_page.h"

#include "app/shell/theme.h"
#include "app/widgets/form.h"
#include "core/visit/dictation.h"
#include "core/visit/measured.h"
#include "core/visit/reading_kind.h"
#include "files/attachment.h"
#include "visit_edits.h"
#include "visit_html.h"

#include <QClipboard>
#include <QCompleter>
#include <QDragEnterEvent>
#include <QFileDialog>
#include <QGuiApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QMimeData>
#include <QPushButton>
#include <QScrollBar>
#include <QVBoxLayout>

#include <algorithm>

namespace vernal {

PageView::PageView(Document& document, QWidget* parent) : QTextBrowser(parent), document_(document)
{
    setOpenLinks(false);
    setAcceptDrops(true);
}

QVariant PageView::loadResource(int type, const QUrl& name)
{
    const QString key = name.toString();
    if (type != QTextDocument::ImageResource || !key.startsWith(QLatin1String("photo/")))
        return QTextBrowser::loadResource(type, name);
    QImage& kept = small_[key];
    if (kept.isNull())
        for (const Attachment& a : document_.job().attachments)
            if (a.bytes && QStringLiteral("photo/") + qs(a.sha256) == key) {
                constexpr int high_px = 160; // twice as fine as shown
                kept = QImage::fromData(QByteArray::fromStdString(*a.bytes)).scaledToHeight(high_px, Qt::SmoothTransformation);
            }
    return kept;
}

void PageView::dragEnterEvent(QDragEnterEvent* e)
{
    if (e->mimeData()->hasUrls() || e->mimeData()->hasImage())
        e->acceptProposedAction();
}
void PageView::dragMoveEvent(QDragMoveEvent* e) { e->acceptProposedAction(); }

void PageView::dropEvent(QDropEvent* e)
{
    QStringList paths;
    for (const QUrl& url : e->mimeData()->urls())
        if (url.isLocalFile())
            paths << url.toLocalFile();
    if (!paths.isEmpty())
        emit photos_dropped(paths);
    else if (e->mimeData()->hasImage())
        emit image_pasted(qvariant_cast<QImage>(e->mimeData()->imageData()));
    e->acceptProposedAction();
}

void PageView::keyPressEvent(QKeyEvent* e)
{
    if (e->matches(QKeySequence::Paste)) {
        const QMimeData* clip = QGuiApplication::clipboard()->mimeData();
        if (clip && clip->hasImage())
            return emit image_pasted(qvariant_cast<QImage>(clip->imageData()));
    }
    QTextBrowser::keyPressEvent(e);
}

VisitPage::VisitPage(Session& session, const Dialogs& dialogs, QWidget* parent) : QWidget(parent), session_(session), dialogs_(dialogs)
{
    view_ = new PageView(session.document());
    view_->setObjectName(QStringLiteral("visitPage"));
    view_->setAccessibleName(tr("Page of the visit"));
    view_->document()->setDocumentMargin(18);
    view_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* box = new QVBoxLayout(this);
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(6);
    box->addWidget(view_, 1);
    saying_ = new QWidget;
    saying_->setLayout(make_line());
    box->addWidget(saying_);
    amending_ = make_amend();
    box->addWidget(amending_);
    connect(view_, &QTextBrowser::anchorClicked, this, &VisitPage::follow);
    connect(view_, &PageView::photos_dropped, &intake_, &PhotoIntake::take_files);
    connect(view_, &PageView::image_pasted, &intake_, &PhotoIntake::take_image);
    connect(&intake_, &PhotoIntake::taken, this, &VisitPage::keep_photo);
    connect(&intake_, &PhotoIntake::refused, this, [this](const QString& why) { tell(why, true); });
    connect(&session.document(), &Document::changed, this, &VisitPage::refresh);
    connect(&session, &Session::units_changed, this, &VisitPage::refresh);
    connect(&session, &Session::outcome_changed, this, [this] {
        if (glare_ != theme().glare) // the page has the theme's colours in it
            refresh();
    });
}

QLayout* VisitPage::make_line()
{
    line_ = new QLineEdit;
    line_->setObjectName(QStringLiteral("sayLine"));
    line_->setAccessibleName(tr("Say a line"));
    line_->setPlaceholderText(tr("Say it: S1 … ohm, bucket, flow, pressure, done:, fault:, next:"));
    line_->setMinimumHeight(36);
    line_->installEventFilter(this);
    take_ = new QPushButton(tr("Take"));
    take_->setObjectName(QStringLiteral("takeLine"));
    remove_ = new QPushButton(tr("Remove this line"));
    remove_->setObjectName(QStringLiteral("removeLine"));
    remove_->hide();
    said_ = remark();
    said_->setObjectName(QStringLiteral("lineSaid"));
    auto* row = new QHBoxLayout;
    row->addWidget(line_, 1);
    row->addWidget(take_);
    row->addWidget(remove_);
    auto* box = new QVBoxLayout;
    box->setContentsMargins(0, 0, 0, 0);
    box->setSpacing(2);
    box->addLayout(row);
    box->addWidget(said_);
    connect(line_, &QLineEdit::returnPressed, this, &VisitPage::take_line);
    connect(take_, &QPushButton::clicked, this, &VisitPage::take_line);
    connect(remove_, &QPushButton::clicked, this, &VisitPage::remove_line);
    return box;
}

QWidget* VisitPage::make_amend()
{
    auto* w = new QWidget;
    what_ = new QLineEdit;
    what_->setObjectName(QStringLiteral("amendWhat"));
    what_->setPlaceholderText(tr("What is right: words, or a reading as on the page"));
    reason_ = new QLineEdit;
    reason_->setObjectName(QStringLiteral("amendReason"));
    reason_->setPlaceholderText(tr("Why it is amended"));
    by_ = new QLineEdit;
    by_->setObjectName(QStringLiteral("amendBy"));
    by_->setPlaceholderText(tr("By whom"));
    auto* take = new QPushButton(tr("Amend"));
    take->setObjectName(QStringLiteral("takeAmendment"));
    auto* leave = new QPushButton(tr("Leave it"));
    leave->setProperty("look", QStringLiteral("quiet"));
    auto* row = new QHBoxLayout(w);
    row->setContentsMargins(0, 0, 0, 0);
    for (QLineEdit* e : {what_, reason_, by_}) {
        e->setMinimumHeight(36);
        e->setAccessibleName(e->placeholderText());
    }
    row->addWidget(what_, 3);
    row->addWidget(reason_, 3);
    row->addWidget(by_, 1);
    row->addWidget(take);
    row->addWidget(leave);
    w->hide();
    connect(take, &QPushButton::clicked, this, &VisitPage::take_amendment);
    connect(by_, &QLineEdit::returnPressed, this, &VisitPage::take_amendment);
    connect(leave, &QPushButton::clicked, w, &QWidget::hide);
    return w;
}

const Visit* VisitPage::visit() const { return find_visit(session_.document().job(), id_); }

void VisitPage::show_visit(const std::string& id)
{
    if (id_ != id) {
        id_ = id;
        amending_->hide();
        leave_line();
        said_->clear();
    }
    refresh();
}

void VisitPage::showEvent(QShowEvent* e)
{
    QWidget::showEvent(e);
    refresh();
}

void VisitPage::refresh()
{
    const Visit* v = visit();
    if (!isVisible() || !v)
        return;
    glare_ = theme().glare;
    const int at = view_->verticalScrollBar()->value();
    view_->setHtml(visit_html(session_.document().job(), *v, session_.units()));
    view_->verticalScrollBar()->setValue(at);
    saying_->setVisible(!v->closed);
    if (!v->closed)
        amending_->hide();
}

void VisitPage::tell(const QString& words, bool wrong)
{
    said_->setText(wrong ? QStringLiteral("▲ ") + words : words);
    QPalette p = said_->palette();
    p.setColor(QPalette::WindowText, wrong ? theme().caution : theme().second_ink);
    said_->setPalette(p);
}

void VisitPage::say(const QString& words)
{
    leave_line();
    line_->setText(words);
    line_->setFocus();
}

void VisitPage::follow(const QUrl& link)
{
    const QString s = QUrl::fromPercentEncoding(link.toEncoded());
    if (s.startsWith(QLatin1String("line:")))
        edit_line(s.mid(5).toULongLong());
    else if (s.startsWith(QLatin1String("say:")))
        say(s.mid(4) + QLatin1Char(' '));
    else if (s.startsWith(QLatin1String("photo:")))
        ask_caption(s.mid(6));
}

void VisitPage::edit_line(std::size_t index)
{
    const Visit* v = visit();
    if (!v || v->closed)
        return;
    const auto lines = dictated(*v);
    if (index >= lines.size())
        return;
    leave_line();
    edited_ = index;
    line_->setText(qs(lines[index]));
    remove_->setVisible(index > 1); // when and purpose stay
    line_->setFocus();
    line_->end(false);
    tell(tr("Change the line and press Enter; Esc leaves it as it was."), false);
}

void VisitPage::ask_caption(const QString& hash)
{
    const Visit* v = visit();
    if (!v || v->closed)
        return;
    leave_line();
    const auto it = std::find_if(v->photos.begin(), v->photos.end(), [&](const VisitPhoto& p) { return qs(p.sha256) == hash; });
    if (it == v->photos.end())
        return;
    captioned_ = hash;
    line_->setText(qs(it->caption + (it->of.empty() ? "" : " | at " + it->of)));
    remove_->show();
    line_->setFocus();
    tell(tr("Caption of the photo, “ | at S1” behind it for the part it belongs to."), false);
}

void VisitPage::leave_line()
{
    edited_.reset();
    captioned_.clear();
    line_->clear();
    remove_->hide();
}

bool VisitPage::eventFilter(QObject* watched, QEvent* e)
{
    if (watched == line_ && e->type() == QEvent::KeyPress) {
        const auto& key = static_cast<const QKeyEvent&>(*e);
        if (key.key() == Qt::Key_Escape && !line_->text().isEmpty()) {
            leave_line();
            said_->clear();
            return true;
        }
        if (key.matches(QKeySequence::Paste)) {
            const QMimeData* clip = QGuiApplication::clipboard()->mimeData();
            if (clip && clip->hasImage() && !clip->hasText()) {
                intake_.take_image(qvariant_cast<QImage>(clip->imageData()));
                return true;
            }
        }
    }
    return QWidget::eventFilter(watched, e);
}

void VisitPage::take_line()
{
    const Visit* v = visit();
    const QString words = line_->text().trimmed();
    if (!v || v->closed || words.isEmpty())
        return;
    Document& d = session_.document();
    const Variant now = variant_of(d.job(), *v);
    if (!captioned_.isEmpty()) {
        const QStringList parts = words.split(QStringLiteral(" | at "));
        const std::string hash = captioned_.toStdString();
        leave_line();
        change_visit(d, id_, tr("Caption of a photo"), [&](Visit& x) {
            for (VisitPhoto& p : x.photos)
                if (p.sha256 == hash) {
                    p.caption = parts.front().trimmed().toStdString();
                    p.of = parts.size() > 1 ? parts[1].trimmed().toStdString() : "";
                }
        });
        return;
    }
    Visit changed = *v;
    std::string understood;
    if (edited_) {
        auto lines = dictated(*v);
        lines[*edited_] = words.toStdString();
        auto rebuilt = with_lines(*v, lines, now, session_.units());
        if (!rebuilt)
            return tell(qs(rebuilt.error().text()), true);
        changed = std::move(*rebuilt);
        understood = words.toStdString();
    } else {
        const auto said = dictate(changed, words.toStdString(), now, session_.units());
        if (!said)
            return tell(qs(said.error().text()), true);
        understood = *said;
    }
    // What no sky gives is asked about once; the same line again keeps it.
    const auto before = doubts_of(d.job(), *v, session_.units());
    for (const std::string& doubt : doubts_of(d.job(), changed, session_.units()))
        if (std::find(before.begin(), before.end(), doubt) == before.end() && doubted_ != words) {
            doubted_ = words;
            return tell(tr("Check first: %1. To keep it all the same, press Enter again.").arg(qs(doubt)), true);
        }
    doubted_.clear();
    leave_line();
    tell(qs(understood), false);
    change_visit(d, id_, tr("Say a line"), [&](Visit& x) { x = changed; });
    view_->verticalScrollBar()->setValue(view_->verticalScrollBar()->value());
}

void VisitPage::remove_line()
{
    const Visit* v = visit();
    if (!v || v->closed)
        return;
    Document& d = session_.document();
    if (!captioned_.isEmpty()) {
        const std::string hash = captioned_.toStdString();
        leave_line();
        said_->clear();
        return change_visit(d, id_, tr("Remove a photo"), [&](Visit& x) { std::erase_if(x.photos, [&](const VisitPhoto& p) { return p.sha256 == hash; }); });
    }
    if (!edited_)
        return;
    auto lines = dictated(*v);
    lines.erase(lines.begin() + static_cast<std::ptrdiff_t>(*edited_));
    auto rebuilt = with_lines(*v, lines, variant_of(d.job(), *v), session_.units());
    if (!rebuilt)
        return tell(qs(rebuilt.error().text()), true);
    leave_line();
    said_->clear();
    change_visit(d, id_, tr("Remove a line"), [&](Visit& x) { x = *rebuilt; });
}

void VisitPage::begin_amending()
{
    amending_->show();
    what_->setFocus();
}

void VisitPage::take_amendment()
{
    const QString why = amend_visit(session_.document(), id_, session_.units(), what_->text().trimmed(), reason_->text().trimmed(), by_->text().trimmed());
    if (!why.isEmpty())
        return dialogs_.tell(this, why);
    for (QLineEdit* e : {what_, reason_})
        e->clear();
    amending_->hide();
}

void VisitPage::take_photos()
{
    if (dialogs_.open_photos)
        intake_.take_files(dialogs_.open_photos(this));
}

void VisitPage::keep_photo(const Attachment& photo)
{
    const Visit* v = visit();
    if (!v || v->closed)
        return;
    session_.document().edit(tr("Add a photo"), [&](Job& j) {
        if (std::none_of(j.attachments.begin(), j.attachments.end(), [&](const Attachment& a) { return a.sha256 == photo.sha256; }))
            j.attachments.push_back(photo);
        if (Visit* x = find_visit(j, id_))
            x->photos.push_back({photo.sha256, "", ""});
    });
    ask_caption(qs(photo.sha256));
}

} // namespace vernal
