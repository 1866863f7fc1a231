// The horizon of the chosen variant: drawn, or typed.
#pragma once

#include "app/shell/session.h"

#include <QWidget>

class QLabel;
class QLineEdit;

namespace vernal {

class HorizonPicture;

class HorizonSheet : public QWidget {
    Q_OBJECT
public:
    explicit HorizonSheet(Session& session, QWidget* parent = nullptr);
    void refresh();

private:
    void typed();
    void tell(const QString& what);
    Session& session_;
    HorizonPicture* picture_;
    QLineEdit* line_;
    QLabel* note_;
};

} // namespace vernal
