#include "known_layouts.h"

#include <QCryptographicHash>
#include <QSettings>

#include <algorithm>

namespace vernal {
namespace {

QString key_of(const LogLayout& layout)
{
    const std::string key = layout_key(layout);
    return QStringLiteral("logs/") + QString::fromLatin1(QCryptographicHash::hash(QByteArrayView(key.data(), static_cast<qsizetype>(key.size())), QCryptographicHash::Sha1).toHex());
}

} // namespace

std::optional<LogLayout> known_layout(const LogLayout& guessed)
{
    const QByteArray json = QSettings().value(key_of(guessed)).toByteArray();
    if (json.isEmpty())
        return {};
    const auto layout = read_layout(json.toStdString());
    if (!layout || layout->delimiter != guessed.delimiter || layout_key(*layout) != layout_key(guessed))
        return {};
    LogLayout out = *layout;
    out.header_line = guessed.header_line; // lines before it differ from file to file
    out.first_line = guessed.first_line;
    for (const auto& word : guessed.words)
        if (std::none_of(out.words.begin(), out.words.end(), [&](const auto& w) { return w.first == word.first; }))
            out.words.push_back(word);
    return out;
}

void keep_layout(const LogLayout& layout)
{
    QSettings().setValue(key_of(layout), QByteArray::fromStdString(write_layout(layout)));
}

} // namespace vernal
