#pragma once
#include "base/result.hpp"
#include "model/preview_request.hpp"

#include <QObject>
#include <QString>

#include <optional>

namespace kasuri::app {

/// What "before" is, everywhere on the sheet and in the readings: the picture as it comes, or what another rule makes
/// of it.
class Against : public QObject {
    Q_OBJECT
public:
    explicit Against(QObject* parent = nullptr) : QObject(parent) {}

    const std::optional<OtherRule>& rule() const { return rule_; }
    /// What the other rule is called; empty: none.
    const QString& name() const { return name_; }

    void set(const QString& name, OtherRule rule);
    /// A filter file, at its defaults, a look file, or a LUT whose numbers mean what `lut_space` says (empty: as
    /// usual).
    Status open(const std::filesystem::path& path, const std::string& lut_space = {});
    /// A whole look.
    void set_look(const QString& name, document::Look look);
    /// What comes into the active step.
    void set_what_comes_in();
    void clear();

signals:
    void changed();

private:
    Status open_look(const std::filesystem::path& path);
    Status open_lut(const std::filesystem::path& path, const std::string& space);

    QString name_;
    std::optional<OtherRule> rule_;
};

} // namespace kasuri::app
