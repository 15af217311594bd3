#pragma once
#include "model/file_watch.hpp"

#include <QWidget>

namespace kasuri::app {

/// Says that the file was changed by somebody else in the same lines, and asks which way to go. Nothing stops
/// meanwhile.
class DiskBar : public QWidget {
    Q_OBJECT
public:
    explicit DiskBar(FileWatch& watch, QWidget* parent = nullptr);
};

} // namespace kasuri::app
