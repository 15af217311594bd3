#include "runner/runner.hpp"
#include "widgets/frame/application.hpp"
#include "widgets/parts/theme.hpp"

#include <QSettings>
#include <QTemporaryDir>

int main(int argc, char** argv) {
    // Without a display unless one is asked for: also while ctest lists the tests at build time.
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM"))
        qputenv("QT_QPA_PLATFORM", "offscreen");
    // Settings of the tests must not touch the user's, nor each other's.
    QTemporaryDir settings;
    qputenv("XDG_DATA_HOME", settings.path().toUtf8());
    QSettings::setPath(QSettings::NativeFormat, QSettings::UserScope, settings.path());
    QSettings::setDefaultFormat(QSettings::NativeFormat);
    kasuri::app::Application application(argc, argv);
    QApplication::setApplicationName("kasuri-test");
    QApplication::setOrganizationName("kasuri-test");
    kasuri::app::theme::apply(application);
    return kasuri::test::run_tests(argc, argv);
}
