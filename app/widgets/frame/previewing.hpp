#pragma once
#include "model/preview.hpp"

#include <QObject>

#include <optional>

namespace kasuri::app {

class Bench;
class SheetView;

/// Asks the preview for what the window shows whenever something of it changes, and knows whether all of it is there.
class Previewing : public QObject {
    Q_OBJECT
public:
    Previewing(Bench& bench, SheetView& sheet, QObject* parent);

    /// Soon; changes of one turn of the event loop go together.
    void request();
    /// Whether everything asked for has been shown, proofs included.
    bool settled() const;
    /// From now on the rule is traced at the worst colour of a failing proof, until a pin is put or it passes.
    void look_into(const proof::Place& place);
    bool looks_into() const { return looked_into_.has_value(); }

signals:
    void asked(const kasuri::app::PreviewRequest& wanted);
    void sheet_ready(const kasuri::app::SheetPtr& sheet);
    void readings_ready(const kasuri::app::ReadingsPtr& readings);
    void proofs_ready(const kasuri::app::ProofsPtr& proofs);

private:
    void ask();
    PreviewRequest wanted() const;
    void stop_looking_into();

    Bench& bench_;
    SheetView& sheet_;
    Preview preview_;
    std::optional<proof::Place> looked_into_;
    std::uint64_t asked_ = 0, shown_ = 0, read_ = 0, proved_ = 0; ///< generations
    bool pending_ = false;
};

} // namespace kasuri::app
