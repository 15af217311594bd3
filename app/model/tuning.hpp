#pragma once
#include "document/bench_file.hpp"
#include "model/session.hpp"

#include <QObject>

namespace kasuri::app {

/// How values are set: which of them move together, and over which part of their range. It changes nothing by itself,
/// and is kept with the document.
class Tuning : public QObject {
    Q_OBJECT
public:
    explicit Tuning(Session& session, QObject* parent = nullptr);

    /// Sets a value; those that are linked with it move by as much, as far as their ranges let them. One step of undo.
    void set(int parameter, double value);
    /// From now on both move together, and everything that one of them was linked with already.
    void link(const std::string& a, const std::string& b);
    void unlink(const std::string& name);
    /// The others that move with it.
    std::vector<std::string> linked_with(const std::string& name) const;

    /// The range over which it is set: its own, or the narrower one if the value is inside.
    std::pair<double, double> range(const lang::Parameter& parameter, double value) const;
    /// A narrower one; the parameter's own if it is not narrower, or empty.
    void narrow(const lang::Parameter& parameter, double low, double high);
    /// A quarter of the range that it has now, around the value.
    void narrow_around(const lang::Parameter& parameter, double value);
    bool narrowed(const std::string& name) const { return kept_.ranges.contains(name); }

    const document::KeptTuning& arrangement() const { return kept_; }
    /// Goes back to it, by undo or for another document.
    void arrange(document::KeptTuning kept);

signals:
    void changed();
    void rearranged(const QString& name, const QString& key, const kasuri::document::KeptTuning& before);

private:
    void change(document::KeptTuning kept, const QString& name);

    Session& session_;
    document::KeptTuning kept_;
};

} // namespace kasuri::app
