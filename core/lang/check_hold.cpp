// `hold hue of COLOUR [in MODEL]`
#include "base/said.hpp"
#include "lang/check_body.hpp"

#include <fmt/format.h>
#include <set>

namespace kasuri::lang {
namespace {

/// What in these steps differs from place to place, so that nobody can say what becomes of a colour.
class Places {
public:
    explicit Places(const Rule& rule) : rule_(rule) {}

    /// The first such name, or nothing.
    std::string in(const std::vector<Step>& steps) {
        for (const Step& step : steps)
            if (const std::string found = in(step.value); !found.empty())
                return found;
        return {};
    }

private:
    std::string in(TypedId id) {
        if (!seen_.insert(id).second)
            return {};
        const Typed& t = rule_.exprs[id];
        if (t.kind == TypedKind::source)
            return rule_.sources[t.index].name;
        if (t.kind == TypedKind::input)
            for (const InputRow& row : input_table())
                if (static_cast<std::uint32_t>(row.which) == t.index &&
                    (row.which == InputName::pos || row.which == InputName::pixel))
                    return std::string(row.name);
        for (const TypedId arg : t.args)
            if (const std::string found = in(arg); !found.empty())
                return found;
        return {};
    }

    const Rule& rule_;
    std::set<TypedId> seen_;
};

} // namespace

void BodyChecker::hold(const Statement& s) {
    if (!rule_) {
        e_.fault(Code::outside_function, s.span, {"hold hue"});
        return;
    }
    if (s.name != "hue") {
        e_.fault(Code::unknown_finish, s.name_span, {s.name, said("held"), "hold hue of a colour"},
                 e_.meant(s.name, {"hue"}, s.name_span));
        return;
    }
    const TypedId key = e_.check(s.value);
    const Type came = e_.type(key);
    if (came.kind == Kind::none)
        return;
    if (came != vec3_type) {
        std::vector<Fix> fixes;
        if (came.kind == Kind::model)
            fixes.push_back({"turn it into r, g, b", e_.span(key), "rgb(" + e_.text(e_.span(key)) + ")"});
        e_.fault(Code::wrong_type, e_.span(key), {name(vec3_type), name(came)}, std::move(fixes));
        return;
    }
    if (body_.exprs[key].rate == Rate::pixel) {
        e_.fault(Code::rate, e_.span(key), {"the colour", "hold hue"});
        return;
    }
    Step step = colour_step(s.span);
    step.value = key;
    step.hold_hue = true;
    if (!s.type.text.empty()) {
        std::vector<std::string> able;
        for (const ModelShape& model : e_.models())
            if (model.hue != HueWay::none) {
                able.emplace_back(model.name);
                if (model.name == s.type.text)
                    step.model = &model;
            }
        if (!step.model) {
            e_.fault(Code::no_hue, s.type.span, {s.type.text, fmt::format("{}", fmt::join(able, ", "))},
                     e_.meant(s.type.text, able, s.type.span));
            return;
        }
    }
    const Typed& typed = body_.exprs[key];
    if (typed.kind == TypedKind::construct && typed.args.size() == 3) {
        const auto red = e_.constant_value(typed.args[0]), green = e_.constant_value(typed.args[1]),
                   blue = e_.constant_value(typed.args[2]);
        if (red && green && blue && *red == *green && *green == *blue) {
            e_.fault(Code::neutral_hue, e_.span(key), {});
            return;
        }
    }
    if (const std::string place = Places(*rule_).in(body_.steps); !place.empty()) {
        e_.fault(Code::hold_place, s.span, {place});
        return;
    }
    // The rule up to here is worked out for the colour, too; what becomes of the colours of lines before is known.
    const std::size_t plain = body_.weight - body_.held;
    body_.held += plain;
    body_.weight += plain;
    body_.steps.push_back(step);
}

} // namespace kasuri::lang
