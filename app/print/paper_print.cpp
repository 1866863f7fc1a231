#include "paper_print.h"

#include "app/shell/session.h"
#include "app/shell/theme.h"
#include "files/disk.h"
#include "files/report/paper_data.h"

#include <QAbstractTextDocumentLayout>
#include <QBuffer>
#include <QDate>
#include <QFile>
#include <QFileInfo>
#include <QImage>
#include <QLocale>
#include <QObject>
#include <QPainter>
#include <QPdfWriter>
#include <QPrinter>
#include <QSettings>
#include <QSvgRenderer>
#include <QTextBlock>
#include <QTextCursor>
#include <QTextDocument>
#include <QTextTable>

#include <algorithm>
#include <memory>

namespace vernal {
namespace {

// The hand: sizes in points, as files/report/paper_html.cpp has them.
constexpr double text_pt = 9.5, small_pt = 8, title_pt = 17, heading_pt = 11.5, card_pt = 14;
constexpr double margin_pt = 45, head_pt = 26, foot_pt = 22;
const QColor ink(0x20, 0x27, 0x2B), second(0x56, 0x5F, 0x64), hairline(0xD8, 0xD2, 0xC4), caution_ground(0xF7, 0xEF, 0xDD), caution_edge(0x8F, 0x5F, 0x00);

QTextCharFormat letters(double pt, bool bold = false, const QColor& colour = ink)
{
    QTextCharFormat f;
    f.setFont(text_font(pt, bold));
    f.setForeground(colour);
    return f;
}

// Drawings keep their lines: they are painted, not turned into dots.
class PictureObject : public QObject, public QTextObjectInterface {
    Q_OBJECT
    Q_INTERFACES(QTextObjectInterface)
public:
    static constexpr int type = QTextFormat::UserObject + 7, name_property = QTextFormat::UserProperty + 7;
    PictureObject(const PaperPictures& pictures, double width_pt, QObject* parent) : QObject(parent), pictures_(pictures), width_pt_(width_pt) {}
    bool has(const std::string& name) const { return pictures_.count(name) != 0; }

    QSizeF intrinsicSize(QTextDocument*, int, const QTextFormat& f) override
    {
        const QSizeF natural = natural_size(name_of(f));
        if (natural.isEmpty())
            return {1, 1};
        const double mm = pictures_.at(name_of(f)).width_mm;
        constexpr double pt_per_mm = 72 / 25.4;
        const double most = 0.55 * 842; // no picture takes more than about half a page
        double w = std::min(width_pt_, mm > 0 ? mm * pt_per_mm : width_pt_);
        if (w * natural.height() / natural.width() > most)
            w = most * natural.width() / natural.height();
        return {w, w * natural.height() / natural.width()};
    }
    void drawObject(QPainter* p, const QRectF& rect, QTextDocument*, int, const QTextFormat& f) override
    {
        const std::string name = name_of(f);
        if (QSvgRenderer* svg = drawing(name))
            svg->render(p, rect);
        else
            p->drawImage(rect, image(name));
    }

private:
    static std::string name_of(const QTextFormat& f) { return f.property(name_property).toString().toStdString(); }
    QSizeF natural_size(const std::string& name)
    {
        if (QSvgRenderer* svg = drawing(name))
            return svg->viewBoxF().size();
        return image(name).size();
    }
    QSvgRenderer* drawing(const std::string& name)
    {
        const auto it = pictures_.find(name);
        if (it == pictures_.end() || it->second.mime != "image/svg+xml")
            return nullptr;
        auto& kept = drawings_[name];
        if (!kept) {
            kept = std::make_unique<QSvgRenderer>(QByteArray::fromStdString(it->second.bytes));
            kept->setAspectRatioMode(Qt::KeepAspectRatio);
        }
        return kept.get();
    }
    QImage image(const std::string& name)
    {
        const auto it = pictures_.find(name);
        if (it == pictures_.end())
            return {};
        QImage& kept = images_[name];
        if (kept.isNull())
            kept = QImage::fromData(QByteArray::fromStdString(it->second.bytes));
        return kept;
    }
    const PaperPictures& pictures_;
    double width_pt_;
    std::map<std::string, std::unique_ptr<QSvgRenderer>> drawings_;
    std::map<std::string, QImage> images_;
};

constexpr int keeps_with_next = QTextFormat::UserProperty + 8;

// A heading that would stand last on its page goes on to the next with what it heads.
void keep_headings(QTextDocument& d)
{
    const double page = d.pageSize().height();
    const auto page_of = [&](const QTextBlock& b) { return static_cast<int>(d.documentLayout()->blockBoundingRect(b).top() / page); };
    for (QTextBlock b = d.begin(); b.isValid(); b = b.next()) {
        const QTextBlock next = b.next();
        if (!b.blockFormat().property(keeps_with_next).toBool() || !next.isValid() || page_of(b) == page_of(next))
            continue;
        QTextBlockFormat f = b.blockFormat();
        f.setPageBreakPolicy(QTextFormat::PageBreak_AlwaysBefore);
        f.setProperty(keeps_with_next, false);
        QTextCursor(b).setBlockFormat(f);
    }
}

class Composer {
public:
    Composer(QTextDocument& d, double width_pt, const PaperPictures& pictures) : cursor_(&d), width_(width_pt)
    {
        d.setDocumentMargin(0);
        d.setDefaultFont(text_font(text_pt));
        pictures_ = new PictureObject(pictures, width_pt, &d);
        d.documentLayout()->registerHandler(PictureObject::type, pictures_);
    }

    void paper(const Paper& p)
    {
        line(qs(p.title), letters(title_pt, true), 0, 2);
        line(qs(p.about), letters(text_pt, false, second), 0, 8);
        std::vector<PaperBlock> photos;
        for (const PaperBlock& b : p.blocks) {
            const bool photo = b.is == PaperBlock::Is::picture && b.picture.starts_with("photo/");
            if (photo && pictures_->has(b.picture)) {
                photos.push_back(b);
                continue;
            }
            side_by_side(photos);
            if (!photo)
                block(b);
        }
        side_by_side(photos);
    }

private:
    void block(const PaperBlock& b)
    {
        switch (b.is) {
        case PaperBlock::Is::heading: return line(qs(b.text), letters(heading_pt, true), 12, 3, true);
        case PaperBlock::Is::text: return line(qs(b.text), letters(text_pt), 1, 3);
        case PaperBlock::Is::card: return line(qs(b.text), letters(card_pt), 3, 6);
        case PaperBlock::Is::settings: return settings(b);
        case PaperBlock::Is::table: return table(b.table);
        case PaperBlock::Is::picture: return picture(b);
        case PaperBlock::Is::caution: return caution(b);
        case PaperBlock::Is::sign: return line(QStringLiteral("______________________________    ") + qs(b.text) + QObject::tr(", date"), letters(small_pt, false, second), 30, 2);
        case PaperBlock::Is::ticks: return ticks(b);
        }
    }

    // with_next: never the last on its page.
    void begin(double above, double below, bool with_next = false, double line_percent = 125)
    {
        QTextBlockFormat f;
        f.setTopMargin(above);
        f.setBottomMargin(below);
        f.setLineHeight(line_percent, QTextBlockFormat::ProportionalHeight);
        f.setProperty(keeps_with_next, with_next);
        if (fresh_)
            cursor_.setBlockFormat(f);
        else
            cursor_.insertBlock(f);
        fresh_ = false;
    }

    void line(const QString& s, const QTextCharFormat& f, double above, double below, bool with_next = false)
    {
        begin(above, below, with_next);
        cursor_.insertText(s, f);
    }

    void settings(const PaperBlock& b)
    {
        for (const SettingLine& l : b.lines) {
            begin(1, 2);
            for (std::size_t i = 0; i < l.size(); ++i) {
                QTextCharFormat f = letters(text_pt, l[i].is == SettingPiece::Is::now, l[i].is == SettingPiece::Is::was ? second : ink);
                f.setFontStrikeOut(l[i].is == SettingPiece::Is::was);
                cursor_.insertText((i > 0 ? QStringLiteral(" ") : QString()), letters(text_pt));
                cursor_.insertText(qs(l[i].text), f);
            }
        }
    }

    void table(const PaperTable& t)
    {
        const auto columns = static_cast<int>(std::max(t.heads.size(), t.rows.empty() ? 0 : t.rows.front().size()));
        const bool headed = std::any_of(t.heads.begin(), t.heads.end(), [](const std::string& h) { return !h.empty(); });
        QTextTableFormat f;
        f.setWidth(QTextLength(QTextLength::FixedLength, width_));
        f.setCellPadding(2.2);
        f.setCellSpacing(0);
        f.setBorder(t.blank ? 0.5 : 0);
        f.setBorderStyle(QTextFrameFormat::BorderStyle_Solid);
        f.setBorderBrush(hairline);
        f.setBorderCollapse(true);
        f.setTopMargin(3);
        f.setBottomMargin(4);
        f.setHeaderRowCount(headed ? 1 : 0);
        f.setColumnWidthConstraints(widths(t, columns));
        QTextTable* table = cursor_.insertTable(static_cast<int>(t.rows.size()) + (headed ? 1 : 0), columns, f);
        int row = 0;
        if (headed)
            fill(*table, row++, t.heads, t, letters(small_pt, false, second));
        for (std::size_t r = 0; r < t.rows.size(); ++r)
            fill(*table, row++, t.rows[r], t, letters(small_pt + 0.5, r < t.strong.size() && t.strong[r]));
        cursor_.movePosition(QTextCursor::End);
        fresh_ = true; // an empty block stands behind a table
    }

    // By what stands in them: figures as wide as they are, words share the rest.
    QVector<QTextLength> widths(const PaperTable& t, int columns) const
    {
        const QFontMetricsF metrics{text_font(small_pt + 0.5)};
        std::vector<double> widest(static_cast<std::size_t>(columns), 12), mean(static_cast<std::size_t>(columns), 1);
        const auto look = [&](const std::vector<std::string>& row) {
            for (std::size_t c = 0; c < row.size(); ++c) {
                const double w = metrics.horizontalAdvance(qs(row[c])) + 17; // with its paddings
                widest[c] = std::max(widest[c], w);
                mean[c] += std::min(w, 260.0);
            }
        };
        look(t.heads);
        for (const auto& row : t.rows)
            look(row);
        QVector<QTextLength> out;
        double left = width_, spread = 0;
        std::vector<double> wide(widest.size(), 0);
        for (std::size_t c = 0; c < widest.size(); ++c) {
            const bool figures = c < t.right.size() && t.right[c];
            constexpr double narrow = 98;
            wide[c] = (figures && widest[c] < 2 * narrow) || widest[c] < narrow ? widest[c] : 0;
            left -= wide[c];
            spread += wide[c] == 0 ? mean[c] : 0;
        }
        for (std::size_t c = 0; c < widest.size(); ++c)
            out << QTextLength(QTextLength::FixedLength, wide[c] > 0 ? wide[c] + (spread == 0 ? left / static_cast<double>(widest.size()) : 0) : std::max(40.0, left * mean[c] / spread));
        return out;
    }

    static void fill(QTextTable& table, int row, const std::vector<std::string>& cells, const PaperTable& t, const QTextCharFormat& f)
    {
        for (std::size_t c = 0; c < cells.size(); ++c) {
            QTextTableCell cell = table.cellAt(row, static_cast<int>(c));
            if (!t.blank) {
                QTextTableCellFormat line;
                line.setBottomBorder(0.4);
                line.setBottomBorderStyle(QTextFrameFormat::BorderStyle_Solid);
                line.setBottomBorderBrush(hairline);
                line.setPadding(2.2);
                line.setRightPadding(c < t.right.size() && t.right[c] ? 9 : 4);
                cell.setFormat(line);
            }
            QTextCursor at = cell.firstCursorPosition();
            QTextBlockFormat b;
            b.setAlignment(c < t.right.size() && t.right[c] ? Qt::AlignRight : Qt::AlignLeft);
            at.setBlockFormat(b);
            at.insertText(qs(cells[c]), f);
        }
    }

    static QTextCharFormat object_of(const PaperBlock& b)
    {
        QTextCharFormat f;
        f.setObjectType(PictureObject::type);
        f.setProperty(PictureObject::name_property, qs(b.picture));
        return f;
    }

    void picture(const PaperBlock& b)
    {
        if (!pictures_->has(b.picture))
            return;
        begin(6, 1, !b.text.empty(), 100);
        cursor_.insertText(QString(QChar::ObjectReplacementCharacter), object_of(b));
        if (!b.text.empty())
            line(qs(b.text), letters(small_pt, false, second), 1, 5);
    }

    // Photos in two columns, each with its caption under it.
    void side_by_side(std::vector<PaperBlock>& photos)
    {
        if (photos.empty())
            return;
        constexpr int columns = 2;
        const int rows = (static_cast<int>(photos.size()) + columns - 1) / columns;
        QTextTableFormat f;
        f.setCellPadding(2);
        f.setCellSpacing(0);
        f.setBorder(0);
        f.setColumnWidthConstraints({QTextLength(QTextLength::FixedLength, width_ / columns), QTextLength(QTextLength::FixedLength, width_ / columns)});
        QTextTable* table = cursor_.insertTable(rows, columns, f);
        for (std::size_t i = 0; i < photos.size(); ++i) {
            QTextCursor at = table->cellAt(static_cast<int>(i) / columns, static_cast<int>(i) % columns).firstCursorPosition();
            at.insertText(QString(QChar::ObjectReplacementCharacter), object_of(photos[i]));
            at.insertBlock();
            at.insertText(qs(photos[i].text), letters(small_pt, false, second));
        }
        cursor_.movePosition(QTextCursor::End);
        fresh_ = true;
        photos.clear();
    }

    void caution(const PaperBlock& b)
    {
        QTextFrameFormat f;
        f.setBackground(caution_ground);
        f.setBorder(0);
        f.setPadding(5);
        f.setTopMargin(3);
        f.setBottomMargin(3);
        f.setWidth(QTextLength(QTextLength::FixedLength, width_));
        cursor_.insertFrame(f);
        QTextCharFormat mark = letters(text_pt, true, caution_edge);
        cursor_.insertText(QStringLiteral("▲ "), mark);
        cursor_.insertText(qs(b.text), letters(text_pt));
        cursor_.movePosition(QTextCursor::End);
        fresh_ = true;
    }

    void ticks(const PaperBlock& b)
    {
        if (!b.text.empty())
            line(qs(b.text), letters(text_pt, true), 6, 1, true);
        for (const auto& [box, words] : b.items) {
            begin(0, 1);
            QTextBlockFormat f = cursor_.blockFormat();
            f.setLeftMargin(16);
            f.setTextIndent(-16);
            cursor_.setBlockFormat(f);
            cursor_.insertText(box.empty() ? QStringLiteral("☐  ") : qs(box) + QStringLiteral("  "), letters(text_pt, true));
            cursor_.insertText(qs(words), letters(text_pt));
        }
    }

    QTextCursor cursor_;
    double width_;
    PictureObject* pictures_;
    bool fresh_ = true;
};

// Logo and address over the first page; gives how much of it they take.
double paint_letterhead(QPainter& p, const QRectF& page, const Letterhead& head, bool really)
{
    if (head.lines.empty() && !head.logo)
        return 0;
    const QStringList lines = qs(head.lines).split(QLatin1Char('\n'));
    constexpr double line_pt = 11, logo_pt = 44;
    const double high = std::max(head.logo ? logo_pt : 0.0, line_pt * static_cast<double>(lines.size())) + 10;
    if (!really)
        return high;
    if (head.logo) {
        const QByteArray bytes = QByteArray::fromStdString(head.logo->bytes);
        const QRectF room(page.left(), page.top(), page.width() / 2, logo_pt);
        if (head.logo->mime == "image/svg+xml") {
            QSvgRenderer svg(bytes);
            svg.setAspectRatioMode(Qt::KeepAspectRatio);
            const QSizeF s = QSizeF(svg.defaultSize()).scaled(room.size(), Qt::KeepAspectRatio);
            svg.render(&p, QRectF(room.topLeft(), s));
        } else if (const QImage image = QImage::fromData(bytes); !image.isNull()) {
            p.drawImage(QRectF(room.topLeft(), QSizeF(image.size()).scaled(room.size(), Qt::KeepAspectRatio)), image);
        }
    }
    p.setFont(text_font(small_pt));
    p.setPen(second);
    for (int i = 0; i < lines.size(); ++i)
        p.drawText(QRectF(page.left(), page.top() + i * line_pt, page.width(), line_pt), Qt::AlignRight | Qt::AlignVCenter, lines[i]);
    p.setPen(QPen(hairline, 0.6));
    p.drawLine(QPointF(page.left(), page.top() + high - 5), QPointF(page.right(), page.top() + high - 5));
    return high;
}

// The text of a paper on pages of a size, pt; down: how much the letterhead pushes the first page's text.
std::unique_ptr<QTextDocument> composed(const Paper& paper, const PaperPictures& pictures, const QSizeF& page, double down)
{
    auto d = std::make_unique<QTextDocument>();
    d->documentLayout()->setPaintDevice(nullptr);
    Composer composer(*d, page.width(), pictures);
    d->setPageSize(page);
    if (down > 0) {
        QTextFrameFormat root = d->rootFrame()->frameFormat();
        root.setTopMargin(down + 4);
        d->rootFrame()->setFrameFormat(root);
    }
    composer.paper(paper);
    keep_headings(*d);
    return d;
}

} // namespace

int paint_paper(QPagedPaintDevice& device, const Paper& paper, const Letterhead& head, const PaperPictures& pictures)
{
    device.setPageMargins({});
    QPainter p;
    if (!p.begin(&device))
        return 0;
    const double per_pt = p.device()->logicalDpiX() / 72.0;
    p.scale(per_pt, per_pt);
    const QRectF sheet(0, 0, p.device()->width() / per_pt, p.device()->height() / per_pt);
    const QRectF page = sheet.adjusted(margin_pt, margin_pt, -margin_pt, -margin_pt);
    const double letterhead = paint_letterhead(p, page, head, false);
    const QRectF body = page.adjusted(0, head_pt, 0, -foot_pt);
    // A card goes onto one page, made smaller as far as it can be read.
    constexpr double least_scale = 0.62, finer = 0.04;
    const bool card = paper.kind == "settings" || paper.kind == "owner";
    double scale = 1;
    auto document = composed(paper, pictures, body.size(), letterhead - head_pt);
    while (card && document->pageCount() > 1 && scale > least_scale) {
        scale -= finer;
        document = composed(paper, pictures, body.size() / scale, letterhead / scale - head_pt);
    }
    if (document->pageCount() > 1 && scale < 1) {
        scale = 1;
        document = composed(paper, pictures, body.size(), letterhead - head_pt);
    }
    const double body_height = body.height() / scale;
    const int pages = document->pageCount();
    for (int i = 0; i < pages; ++i) {
        if (i > 0)
            device.newPage();
        if (i == 0)
            paint_letterhead(p, page, head, true);
        p.setFont(text_font(small_pt));
        p.setPen(second);
        if (i > 0)
            p.drawText(QRectF(page.left(), page.top(), page.width(), head_pt - 8), Qt::AlignLeft | Qt::AlignVCenter, p.fontMetrics().elidedText(qs(paper.title + " · " + paper.about), Qt::ElideRight, static_cast<int>(page.width())));
        p.drawText(QRectF(page.left(), page.bottom() - foot_pt + 6, page.width(), foot_pt - 6), Qt::AlignRight | Qt::AlignVCenter, QObject::tr("page %1 of %2").arg(i + 1).arg(pages));
        p.save();
        p.translate(body.left(), body.top());
        p.scale(scale, scale);
        p.translate(0, -i * body_height);
        QAbstractTextDocumentLayout::PaintContext black;
        black.palette.setColor(QPalette::Text, ink);
        black.clip = QRectF(0, i * body_height, body.width() / scale, body_height);
        p.setClipRect(black.clip);
        document->documentLayout()->draw(&p, black);
        p.restore();
    }
    return p.end() ? pages : 0;
}

QString write_paper(const QString& path, const Paper& paper, const Letterhead& head, const PaperPictures& pictures, QPageSize::PageSizeId size)
{
    const QString ending = QFileInfo(path).suffix().toLower();
    std::string text;
    if (ending == QLatin1String("pdf")) {
        QByteArray bytes;
        {
            QBuffer buffer(&bytes);
            buffer.open(QIODevice::WriteOnly);
            QPdfWriter pdf(&buffer);
            pdf.setPageSize(QPageSize(size));
            pdf.setResolution(600);
            pdf.setTitle(qs(paper.title + ", " + paper.about));
            pdf.setCreator(QStringLiteral("Vernal Relay"));
            if (paint_paper(pdf, paper, head, pictures) == 0)
                return QObject::tr("The paper could not be painted.");
        }
        text = bytes.toStdString();
    } else if (ending == QLatin1String("html")) {
        text = paper_html(paper, head, pictures);
    } else if (ending == QLatin1String("json")) {
        text = paper_json(paper);
    } else if (ending == QLatin1String("csv")) {
        text = paper_csv(paper);
    } else if (ending == QLatin1String("txt")) {
        text = paper_text(paper);
    } else {
        return QObject::tr("Give it a name that ends in .pdf, .html, .json, .csv or .txt.");
    }
    const auto done = write_file_atomically(path.toStdString(), text);
    return done ? QString() : qs(done.error().text());
}

namespace {

Result<Paper> plain_paper(const std::string& kind, const Document& d, const Units& units)
{
    return find_paper(kind)->make({d.job(), d.variant_index(), "", units, QDate::currentDate().toString(Qt::ISODate).toStdString(), nullptr});
}

} // namespace

QString write_plain_paper(const QString& path, const std::string& kind, const Document& d, const Units& units)
{
    const auto paper = plain_paper(kind, d, units);
    return paper ? write_paper(path, *paper, own_letterhead(), {}, usual_paper()) : qs(paper.error().text());
}

QString print_plain_paper(QWidget* over, const Dialogs& dialogs, const std::string& kind, const Document& d, const Units& units)
{
    const auto paper = plain_paper(kind, d, units);
    if (!paper)
        return qs(paper.error().text());
    QPrinter printer(QPrinter::HighResolution);
    printer.setPageSize(QPageSize(usual_paper()));
    printer.setDocName(qs(d.job().title));
    if (!dialogs.printer(over, printer) || paint_paper(printer, *paper, own_letterhead(), {}) > 0)
        return {};
    return QObject::tr("The printer did not take it. Look at its name and its paper, or save it as PDF.");
}

QString letterhead_lines() { return QSettings().value(QStringLiteral("letterhead/lines")).toString(); }
QString letterhead_logo() { return QSettings().value(QStringLiteral("letterhead/logo")).toString(); }

void keep_letterhead(const QString& lines, const QString& logo_file)
{
    QSettings settings;
    settings.setValue(QStringLiteral("letterhead/lines"), lines);
    settings.setValue(QStringLiteral("letterhead/logo"), logo_file);
}

Letterhead own_letterhead()
{
    Letterhead out;
    out.lines = letterhead_lines().trimmed().toStdString();
    const QString file = letterhead_logo();
    if (file.isEmpty())
        return out;
    const auto bytes = read_file(file.toStdString());
    const QString ending = QFileInfo(file).suffix().toLower();
    if (bytes)
        out.logo = PaperPicture{ending == QLatin1String("svg") ? "image/svg+xml" : ending == QLatin1String("png") ? "image/png"
                                                                                                                  : "image/jpeg",
            *bytes, 0};
    return out;
}

QPageSize::PageSizeId usual_paper()
{
    const QString kept = QSettings().value(QStringLiteral("paper")).toString();
    if (!kept.isEmpty())
        return kept == QLatin1String("letter") ? QPageSize::Letter : QPageSize::A4;
    return QLocale::system().measurementSystem() == QLocale::ImperialUSSystem ? QPageSize::Letter : QPageSize::A4;
}

} // namespace vernal

#include "paper_print.moc"
