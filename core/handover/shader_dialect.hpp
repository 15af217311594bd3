#pragma once
#include "ir/graph.hpp"

#include <span>
#include <string>
#include <string_view>

namespace kasuri::handover {

/// One row: an operation in a language. {0} to {2} are its operands, {n} the prefix of helpers.
struct OpText {
    ir::Op op;
    std::string_view text;
    std::string_view helper = {}; ///< that it calls
};

/// A function that a text brings along, after those that it calls.
struct Helper {
    std::string_view name, calls, text;
};

/// Where the values that can be set stand.
enum class Values {
    uniforms, ///< with their defaults
    plain,    ///< uniforms that have none
    block,    ///< a uniform block
    argument, ///< a struct
};

/// One row: a language that rules are written in.
struct Dialect {
    std::string_view name, doc;
    std::span<const OpText> operations; ///< in the order of ir::Op, from neg on
    std::span<const Helper> helpers;
    Values values = Values::uniforms;
    std::string_view number; ///< its type
    std::string (*literal)(double value);
    std::string_view reserved = {}; ///< words between blanks that cannot be names
};
std::span<const Dialect> dialects();
const Dialect* find_dialect(std::string_view name);

extern const std::span<const OpText> c_operations;
extern const std::span<const Helper> c_helpers;

/// Whether everything that a graph can hold has its row, and everything that a row calls has its helper.
constexpr bool complete(std::span<const OpText> operations, std::span<const Helper> helpers) {
    const auto has_helper = [&](std::string_view name) {
        for (const Helper& each : helpers)
            if (each.name == name)
                return true;
        return name.empty();
    };
    std::size_t at = 0;
    for (auto op = static_cast<int>(ir::Op::neg); op <= static_cast<int>(ir::Op::hexcone_b); ++op, ++at)
        if (at >= operations.size() || operations[at].op != static_cast<ir::Op>(op) ||
            !has_helper(operations[at].helper))
            return false;
    for (const Helper& each : helpers)
        for (std::string_view calls = each.calls; !calls.empty();) {
            const std::size_t end = calls.find(' ') == std::string_view::npos ? calls.size() : calls.find(' ');
            if (!has_helper(calls.substr(0, end)))
                return false;
            calls.remove_prefix(end == calls.size() ? end : end + 1);
        }
    return at == operations.size();
}

} // namespace kasuri::handover
