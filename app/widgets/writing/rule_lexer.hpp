#pragma once
#include <Qsci/qscilexercustom.h>

#include <set>
#include <string>

namespace kasuri::app {

/// Colours the text from the language's own tokens: there is no second grammar.
class RuleLexer : public QsciLexerCustom {
    Q_OBJECT
public:
    /// The colours of the room in force.
    void take_room();
    enum Style { plain, keyword, number, string, comment, parameter };

    explicit RuleLexer(QObject* parent = nullptr);
    const char* language() const override { return "Kasuri"; }
    QString description(int style) const override;
    void styleText(int start, int end) override;
    void set_parameters(std::set<std::string> names);

private:
    void mark_folds(const std::string& text);
    std::set<std::string> parameters_;
    std::string folded_;        ///< the text whose folds are marked
    std::size_t styled_to_ = 0; ///< where its last styled lines end
};

} // namespace kasuri::app
