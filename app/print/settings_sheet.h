// The settings card as one printed page, and as a page of the window.
#pragma once

#include "app/shell/session.h"
#include "core/wording/settings_card.h"

#include <QWidget>

class QPagedPaintDevice;
class QTextBrowser;

namespace vernal {

// Fills one page. False: the device cannot be painted on.
bool paint_settings_card(QPagedPaintDevice& device, const std::vector<CardRow>& rows, const QString& title);

// .pdf or .csv by the name's ending. The reason where it cannot be written; empty: done.
QString write_settings_card(const QString& path, const std::vector<CardRow>& rows, const QString& title);

class SettingsSheet : public QWidget {
    Q_OBJECT
public:
    explicit SettingsSheet(Session& session, QWidget* parent = nullptr);

signals:
    void save_wanted();
    void print_wanted();

protected:
    void showEvent(QShowEvent* e) override;

private:
    void refresh();
    Session& session_;
    QTextBrowser* view_;
};

} // namespace vernal
