#pragma once
#include "model/bench.hpp"
#include "model/session.hpp"
#include "widgets/compare/compare_actions.hpp"
#include "widgets/files/files.hpp"
#include "widgets/files/recovery.hpp"
#include "widgets/frame/main_window.hpp"
#include "widgets/frame/side_windows.hpp"
#include "widgets/frame/status_line.hpp"
#include "widgets/handover/handover_actions.hpp"
#include "widgets/parts/number_field.hpp"
#include "widgets/proofs/proofs_bar.hpp"
#include "widgets/sheet/cell_view.hpp"
#include "widgets/sheet/sheet_view.hpp"
#include "widgets/sheet/strip_view.hpp"
#include "widgets/tuning/values_panel.hpp"
#include "widgets/writing/rule_editor.hpp"
#include "widgets/writing/rule_panel.hpp"

#include <QApplication>
#include <QFile>
#include <QTemporaryDir>
#include <QTest>

#include <catch2/catch.hpp>

namespace kasuri::test {

/// The real window, shown on Qt's offscreen platform, with hands.
class Driver {
public:
    app::MainWindow window;
    QTemporaryDir folder;

    Driver() {
        window.resize(1280, 800);
        window.show();
        window.bench().add_chart();
        settle();
    }
    ~Driver() { window.bench().session().take_as_saved(); } // no question about unsaved work

    app::Session& session() { return window.bench().session(); }
    app::RuleEditor& editor() { return *window.part<app::RulePanel>().editor(); }
    app::SheetView& sheet() { return window.part<app::SheetView>(); }
    QString file(const QString& name) const { return folder.filePath(name); }

    /// Waits until everything asked for is shown.
    void settle() {
        QTest::qWait(1);
        REQUIRE(QTest::qWaitFor([this] { return window.settled(); }, 20000));
        QTest::qWait(1);
    }
    /// Waits for what the text says, compiling or not.
    void settle_text() {
        const auto done = [this] { return !session().compiles() || window.settled(); };
        QTest::qWait(1);
        REQUIRE(QTest::qWaitFor(done, 20000));
        QTest::qWait(60);
    }

    void type(const QString& text) {
        editor().setFocus();
        for (const QChar c : text)
            if (c == '\n')
                QTest::keyClick(&editor(), Qt::Key_Return);
            else
                QTest::keyClick(&editor(), c.toLatin1());
    }
    void end_of_text() { editor().SendScintilla(QsciScintillaBase::SCI_DOCUMENTEND); }
    void replace_text(const QString& text) {
        editor().selectAll();
        editor().replaceSelectedText(text);
    }
    void trigger(const char* id) {
        for (QAction* action : window.actions())
            if (action->objectName() == id) {
                action->trigger();
                return;
            }
        FAIL("no action " << id);
    }
    std::string text() { return session().text(); }

    /// What a strip shows at a share of its width.
    std::array<float, 4> after(int strip, double share) {
        const app::StripView* view = sheet().strips()[static_cast<std::size_t>(strip)];
        REQUIRE(view->result());
        return view->result()->after.at(static_cast<std::size_t>(view->sample_at(share)));
    }
    const proof::Outcome* outcome(const std::string& function) {
        for (const app::ProofItem* item : window.part<app::ProofsBar>().items())
            if (item->outcome().function == function)
                return &item->outcome();
        return nullptr;
    }
};

} // namespace kasuri::test
