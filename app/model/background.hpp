#pragma once
#include <QThreadPool>

namespace kasuri::app {

/// Where long work is done. Not Qt's own pool: Qt paints large areas with that, so that what waits for a picture or a
/// solver there keeps the window from being painted. What has begun is over before the application is gone.
QThreadPool& background();

} // namespace kasuri::app
