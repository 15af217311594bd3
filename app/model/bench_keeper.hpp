#pragma once
#include "document/bench_file.hpp"
#include "model/config_use.hpp"
#include "model/look_model.hpp"
#include "model/session.hpp"
#include "model/sheet.hpp"
#include "model/takes.hpp"
#include "model/tuning.hpp"

#include <QObject>
#include <QTimer>

#include <filesystem>

namespace kasuri::app {

/// Keeps takes, pins, how values are set and what the colour config's variables are with the document, in the file
/// beside it: read when a filter is opened, written soon after a change and when the filter gets another name. Those of
/// a step of a look go into the look. What cannot be read is never overwritten.
class BenchKeeper : public QObject {
    Q_OBJECT
public:
    BenchKeeper(Session& session, LookModel& look, SheetModel& sheet, TakesModel& takes, Tuning& tuning,
                ConfigUse& config, QObject* parent = nullptr);
    ~BenchKeeper() override;

    /// What is to be kept now, with paths relative to the folder of `filter`.
    document::BenchFile bench(const std::filesystem::path& filter) const;
    /// Writes now what would be written soon.
    void write_now();
    void take(const document::BenchFile& bench, const std::filesystem::path& filter);

signals:
    void failed(const kasuri::Error& error);

private:
    void another_document();
    void perhaps_renamed();
    void changed();

    Session& session_;
    LookModel& look_;
    SheetModel& sheet_;
    TakesModel& takes_;
    Tuning& tuning_;
    ConfigUse& config_;
    QTimer soon_;
    std::filesystem::path path_;      ///< of the filter whose things these are
    std::filesystem::path look_path_; ///< of the look whose steps these are
    document::BenchFile written_;     ///< what the file holds
    bool foreign_ = false;            ///< the file could not be read
    bool taking_ = false;
    bool due_ = false; ///< something has not been written
};

} // namespace kasuri::app
