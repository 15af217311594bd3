#pragma once
#include "document/bench_file.hpp"
#include "model/session.hpp"

#include <QObject>
#include <QString>

#include <vector>

namespace kasuri::app {

using Take = document::KeptTake;

/// Remembered states of rule and values, to flip back to. Kept with the document.
class TakesModel : public QObject {
    Q_OBJECT
public:
    explicit TakesModel(Session& session, QObject* parent = nullptr);

    const std::vector<Take>& takes() const { return takes_; }
    /// The take that is what is on the bench now; -1: none.
    int current() const;
    /// Remembers what is on the bench; its index. One that is there already is not kept twice.
    int remember();
    /// Puts one on the bench, as one step that can be undone.
    void flip_to(int index);
    /// The next one, or the one before; from none to the last.
    void flip(int by);
    void rename(int index, const QString& name);
    void remove(int index);
    QString name(int index) const;

    const std::vector<Take>& arrangement() const { return takes_; }
    /// Goes back to those, by undo or for another document.
    void arrange(std::vector<Take> takes);

signals:
    void changed();
    void rearranged(const QString& name, const QString& key, const std::vector<kasuri::document::KeptTake>& before);

private:
    Session& session_;
    std::vector<Take> takes_;
};

} // namespace kasuri::app
