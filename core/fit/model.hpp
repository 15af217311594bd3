#pragma once
#include "fit/family.hpp"
#include "fit/pairs.hpp"

#include <optional>

namespace kasuri::fit {

/// A form in one working space, ready to be evaluated: what it makes of many colours at any values, and how fast that
/// changes with each of them. It takes numbers of the pairs' space and gives such, or OKLab of them.
class Model {
public:
    /// `text`: open_text of a form, without its working space. `by_eye`: what it makes comes as OKLab. Errors: the text
    /// is no rule (a fault of ours), or it was called off.
    static Result<Model> make(const std::string& text, std::string_view working, std::string_view space, bool by_eye,
                              const CancelToken& cancel);

    std::size_t values() const { return count_; }
    /// Three numbers for each colour. False if called off.
    bool predict(std::span<const double> values, const Planes& from, Planes& made, const CancelToken& cancel) const;

    /// And their slopes: of channel c along value v, where it is not always 0, in plane [v * 3 + c]; else empty.
    struct Slopes {
        Planes made;
        std::vector<std::vector<float>> along;
    };
    bool slopes(std::span<const double> values, const Planes& from, Slopes& made, const CancelToken& cancel) const;

private:
    std::size_t count_ = 0;
    engine::ProgramPtr plain_, sloped_;
    std::vector<std::size_t> places_; ///< which plane each further output of `sloped_` is
};

/// Numbers of a space as OKLab: colour by colour, at double precision.
Planes by_eye(const Planes& colours, const std::string& space);

/// The rule of a text, checked by the builtin vocabulary, proofs passed over. Errors name the place in it.
Result<lang::Rule> rule_of(const std::string& text);

/// What a program of three outputs makes of colours. False if called off.
bool run(const engine::Program& program, std::span<const double> values, const Planes& from, Planes& made,
         const CancelToken& cancel);

} // namespace kasuri::fit
