#include "widgets/writing/editor_settings.hpp"

#include "widgets/writing/rule_editor.hpp"

#include <QSettings>

#include <algorithm>
#include <cmath>

namespace kasuri::app {
namespace {
const QString size_key = QStringLiteral("editor/size"), wrap_key = QStringLiteral("editor/wrap");
}

double text_size(const RuleEditor& editor) {
    return usual_text_size + static_cast<double>(editor.SendScintilla(QsciScintillaBase::SCI_GETZOOM));
}

void set_text_size(RuleEditor& editor, double points) {
    if (std::isfinite(points))
        editor.zoomTo(
            static_cast<int>(std::lround(std::clamp(points, least_text_size, max_text_size) - usual_text_size)));
}

bool wraps(const RuleEditor& editor) { return editor.wrapMode() != QsciScintilla::WrapNone; }

void set_wraps(RuleEditor& editor, bool on) {
    editor.setWrapMode(on ? QsciScintilla::WrapWord : QsciScintilla::WrapNone);
    editor.SendScintilla(QsciScintillaBase::SCI_SETHSCROLLBAR, on ? 0 : 1);
    QSettings().setValue(wrap_key, on);
}

void restore_editor(RuleEditor& editor) {
    set_text_size(editor, QSettings().value(size_key, usual_text_size).toDouble());
    set_wraps(editor, QSettings().value(wrap_key, true).toBool());
    QObject::connect(&editor, &QsciScintillaBase::SCN_ZOOM, &editor, [&editor] {
        if (const double wanted = text_size(editor); wanted < least_text_size || wanted > max_text_size)
            set_text_size(editor, wanted); // comes back here
        else
            QSettings().setValue(size_key, wanted);
    });
}

} // namespace kasuri::app
