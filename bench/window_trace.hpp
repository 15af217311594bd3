#pragma once
#include <QApplication>

#include <set>
#include <string>
#include <vector>

/// An application that puts what each event did on the time line, by its kind and by the class it was for.
class TracedApplication : public QApplication {
public:
    using QApplication::QApplication;
    bool notify(QObject* receiver, QEvent* event) override;

private:
    std::set<std::string> names_; ///< recorded stretches point to them
};

/// What the threads did in the stretches called `action`, of which there are several: milliseconds an action, by
/// thread.
void print_shares(const std::string& action);
