#pragma once
#include "io/config.hpp"

#include <QObject>
#include <QThreadPool>

namespace kasuri::app {

/// The colour config in use, which is one for all documents, and the values of its variables, which belong to the
/// document. It is read in the background, again when a value changes; of several wishes the last one counts.
class ConfigUse : public QObject {
    Q_OBJECT
public:
    explicit ConfigUse(QObject* parent = nullptr);
    ~ConfigUse() override;

    /// Reads an OpenColorIO config and remembers it; then its spaces can be used everywhere.
    void use(const QString& file);
    /// The config of the last session, else the one of $OCIO.
    void restore();

    /// The document's values, "SHOT=sh010, SHOW=ford".
    QString values() const;
    /// Of this form, or empty; false, and nothing changes, if it is not.
    bool set_values(const QString& text);
    const io::ConfigContext& arrangement() const { return values_; }
    /// Goes back to these, by undo or for another document.
    void arrange(io::ConfigContext values);

signals:
    void changed(); ///< the values
    void rearranged(const QString& name, const QString& key, const kasuri::io::ConfigContext& before);
    void spaces_changed();
    void said(const QString& message, bool bad);

private:
    void read();

    QThreadPool one_by_one_;
    QString file_;
    io::ConfigContext values_;
    int wish_ = 0;
};

} // namespace kasuri::app
