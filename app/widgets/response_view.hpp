#pragma once
#include "scopes/response.hpp"

#include <QWidget>

namespace kasuri::app {

/// The response reading: what comes out for greys, channel by channel, on linear or logarithmic axes.
class ResponseView : public QWidget {
    Q_OBJECT
public:
    explicit ResponseView(QWidget* parent = nullptr);
    void show_response(const scopes::Response& response);
    void set_logarithmic(bool logarithmic);

protected:
    void paintEvent(QPaintEvent* event) override;
    QSize sizeHint() const override { return {268, 216}; }

private:
    scopes::Response response_;
    bool logarithmic_ = false;
};

} // namespace kasuri::app
