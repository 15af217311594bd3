#pragma once
#include "document/look_file.hpp"
#include "engine/lower.hpp"
#include "handover/look.hpp"
#include "insight/affine.hpp"
#include "insight/formula.hpp"
#include "ir/graph.hpp"

#include <functional>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <vector>

namespace kasuri::handover {

/// A number that a subject can be set by.
struct SubjectParameter {
    std::string name;       ///< for people: "meet", or "step 2: meet"
    std::string identifier; ///< for programs: "meet", "step2_meet"
    std::string description;
    double value = 0, low = 0, high = 1;
};

/// What is handed over to others: a rule or a look, at its values. Keeps what it is made of.
struct Subject {
    std::string title, note;
    bool is_look = false;
    std::string space; ///< of the numbers that come in and go out, unless others are asked for: the (first) rule's
                       ///< working space
    std::vector<SubjectParameter> parameters{}; ///< in the order of the graph's slots
    std::vector<lang::SourceInput> sources{};
    std::function<std::vector<ir::NodeId>(ir::Graph&, const engine::CompileOptions&)> lower{};

    std::vector<double> values() const;
};

Subject subject_of(lang::Rule rule, std::span<const double> values);
Subject subject_of(std::shared_ptr<const RunnableLook> made, const document::Look& look);

/// The program for spaces; empty ones are the subject's own. `colour_only`: three outputs.
engine::ProgramPtr compiled(const Subject& subject, std::string_view in = {}, std::string_view out = {},
                            bool colour_only = false);

/// What algebra and slopes are asked about, at its values, between these spaces. It refers to the subject and has no
/// parameters left.
insight::Formula formula_of(const Subject& subject, std::string_view in = {}, std::string_view out = {});

/// The exact matrix that it is between these spaces, if algebra can show it.
std::optional<insight::Affine> matrix_of(const Subject& subject, std::string_view in = {}, std::string_view out = {});

/// Whether r, g, b of the result each depend on their own channel alone, and alpha stays.
bool is_curves(const Subject& subject, std::string_view in = {}, std::string_view out = {});

} // namespace kasuri::handover
