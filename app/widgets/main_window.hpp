#pragma once
#include "model/preview.hpp"

#include <QPointer>
#include <QWidget>

class QSplitter;

namespace kasuri::app {

class Bench;
class HelpWindow;
class LibraryPanel;
class LookRow;
class MixPanel;
class NumbersPanel;
class ProofsBar;
class ReadingsColumn;
class PinsPanel;
class PreferencesWindow;
class RulePanel;
class SheetView;
class SourcesPanel;
class StatusLine;
class StepPanel;
class TopBar;
class TornWindow;
class TraceWindow;
class WishesWindow;
class ValuesPanel;

/// Puts the parts side by side and carries results to them; what commands do stands in Bench.
class MainWindow : public QWidget {
    Q_OBJECT
public:
    explicit MainWindow(QWidget* parent = nullptr);
    ~MainWindow() override;

    Bench& bench() { return *bench_; }
    RulePanel& rule_panel() { return *rule_; }
    LibraryPanel& library() { return *library_; }
    ValuesPanel& values_panel() { return *values_; }
    SheetView& sheet_view() { return *sheet_; }
    ProofsBar& proofs_bar() { return *proofs_; }
    StatusLine& status_line() { return *status_; }
    ReadingsColumn& readings_column() { return *readings_; }
    PinsPanel& pins_panel() { return *pins_; }
    SourcesPanel& sources_panel() { return *sources_; }
    MixPanel& mix_panel() { return *mix_; }
    TopBar& top_bar() { return *top_; }
    WishesWindow* wishes() const { return wishes_; }
    /// Whether everything asked for has been shown, proofs included.
    bool settled() const;
    void show_before(bool before);
    void restore_layout();
    /// The cells of the last session, or a chart if there were none.
    void restore_sheet();

signals:
    void sheet_shown();
    void readings_shown();

protected:
    bool event(QEvent* event) override;
    void closeEvent(QCloseEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    bool eventFilter(QObject* object, QEvent* event) override;

private:
    void lay_out();
    void connect_parts();
    void request();
    void refresh_titles();
    void mark_old();
    void follow(const proof::Outcome& outcome);
    void next_panel();
    void connect_sheet();
    void take_rule();
    void show_trace(const SheetResult& sheet);
    void open_trace();
    void peek();
    void toggle_library();
    void show_sample();
    void see_lens(const std::string& lens);
    void show_step_faults(const SheetResult& sheet);
    void refresh_against(const std::string& fault);
    /// The sheet in a window of its own, or back.
    void tear_off_sheet();

    Bench* bench_;
    Preview preview_;
    TopBar* top_;
    RulePanel* rule_;
    ValuesPanel* values_;
    SourcesPanel* sources_;
    MixPanel* mix_;
    LookRow* look_;
    LibraryPanel* library_;
    HelpWindow* help_ = nullptr;
    QSplitter* outer_;  ///< everything to the left, and the readings
    QSplitter* middle_; ///< rule and sheet, the library below
    /// What the thumbnails of the library are made of.
    struct Sampled {
        PicturePtr picture;
        const targets::Target* target = nullptr;
        std::vector<double> settings;
        Screen screen;
        friend bool operator==(const Sampled&, const Sampled&) = default;
    };
    Sampled sampled_;
    StepPanel* step_;
    SheetView* sheet_;
    ReadingsColumn* readings_;
    PinsPanel* pins_;
    NumbersPanel* numbers_;
    ProofsBar* proofs_;
    StatusLine* status_;
    QSplitter* columns_;
    QSplitter* left_;
    QSplitter* right_;
    std::uint64_t asked_ = 0, shown_ = 0, read_ = 0, proved_ = 0;
    bool pending_ = false;
    QPointer<TornWindow> torn_;
    QPointer<TraceWindow> trace_;
    QPointer<PreferencesWindow> preferences_;
    WishesWindow* wishes_ = nullptr;
    std::optional<proof::Place> looked_into_; ///< the worst colour of a failing proof that was followed
    QString against_shown_ = QStringLiteral("\n");
};

} // namespace kasuri::app
