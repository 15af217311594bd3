#pragma once
#include "model/preview_result.hpp"
#include "model/readout.hpp"
#include "widgets/frame/window_parts.hpp"

#include <QWidget>

#include <memory>

namespace kasuri::app {

class Bench;
class CompareActions;
class Files;
class FirstMinute;
class HandoverActions;
class LibraryPanel;
class LibrarySample;
class LookActions;
class LookRow;
class MixPanel;
class PinsPanel;
class PointerPanel;
class Previewing;
class ProofsBar;
class ReadingsColumn;
class Recovery;
class RulePanel;
class SheetView;
class SideWindows;
class SourcesPanel;
class StatusLine;
class StepPanel;
class TopBar;
class ValuesPanel;
class WindowLayout;

/// Makes the parts, puts them side by side and carries results to them. What commands do stands in the parts that they
/// are about.
class MainWindow : public QWidget {
    Q_OBJECT
public:
    explicit MainWindow(QWidget* parent = nullptr);
    ~MainWindow() override;

    Bench& bench() { return *bench_; }
    /// Any other part, by its type.
    template <class Part>
    Part& part() {
        return parts_.get<Part>();
    }
    const WindowParts& parts() const { return parts_; }

    /// Whether everything asked for has been shown, proofs included.
    bool settled() const;
    void show_before(bool before);
    void restore_layout();
    /// The cells of the last session, or a chart if there were none.
    void restore_sheet();

    void toggle_library();
    void toggle_mix();
    /// The expression at the caret as a lens of the current cell, or back.
    void peek();
    /// Pins what is pointed at in a cell.
    void pin_pointed();
    /// Plays the sequence of the current cell, else of the first that has one; or stops.
    void play();
    /// The cell that would be played; 0, and a word about it, if there is none.
    int playable_cell();
    /// The active pin's colour in every frame, as a strip.
    void pin_over_time();
    /// The keyboard goes to the next panel.
    void next_panel();
    void open_menu();

signals:
    void sheet_shown();
    void readings_shown();

protected:
    bool event(QEvent* event) override;
    void closeEvent(QCloseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void dragEnterEvent(QDragEnterEvent* event) override;
    void dropEvent(QDropEvent* event) override;
    bool eventFilter(QObject* object, QEvent* event) override;

private:
    void make_commands();
    void make_panels();
    void lay_out();
    void connect_models();
    void connect_top();
    void connect_rule();
    void connect_sheet();
    void connect_results();
    void connect_words();
    void show_sheet(const SheetPtr& sheet);
    void show_proofs(const ProofsPtr& proofs);
    void show_line_values(const SheetResult& sheet);
    void show_step_faults(const SheetResult& sheet);
    void refresh_titles();
    void refresh_against(const std::string& fault);
    void mark_old();
    void show_pointed(const Readout& readout);
    void follow(const proof::Outcome& outcome);
    void take_rule();
    void show_sample();
    void see_lens(const std::string& lens);

    WindowParts parts_;
    Bench* bench_;
    LookActions* look_actions_;
    Files* files_;
    Recovery* recovery_;
    CompareActions* compare_;
    HandoverActions* handover_;
    SideWindows* side_;
    TopBar* top_;
    FirstMinute* first_;
    LookRow* look_;
    RulePanel* rule_;
    ValuesPanel* values_;
    StepPanel* step_;
    MixPanel* mix_;
    SourcesPanel* sources_;
    SheetView* sheet_;
    ReadingsColumn* readings_;
    PointerPanel* pointer_;
    LibraryPanel* library_;
    ProofsBar* proofs_;
    StatusLine* status_;
    WindowLayout* layout_ = nullptr;
    std::unique_ptr<LibrarySample> sample_;
    Previewing* previewing_;
    QString against_shown_ = QStringLiteral("\n");
    Readout worst_; ///< of the proof that was followed: shown while nothing is pointed at
};

} // namespace kasuri::app
