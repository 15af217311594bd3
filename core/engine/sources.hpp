#pragma once
#include "engine/evaluate.hpp"
#include "lang/rule.hpp"

#include <memory>
#include <span>
#include <string>
#include <vector>

namespace kasuri::engine {

/// The further pictures of a rule, ready to be read: `spaces` for CompileOptions::source_spaces, `planes` for
/// Source::more. Keeps the planes alive.
struct BoundSources {
    std::vector<std::string> spaces;
    std::vector<PlaneView> planes;
    std::vector<image::Plane> kept;
};

/// One picture for each of the rule's sources, in their order, of the size of the picture that the rule works on; null
/// reads as 0. A float is the first channel (what a single channel shows), a vec3 the colour, a vec4 has alpha 1 where
/// the picture has none.
BoundSources bind_sources(std::span<const lang::SourceInput> sources,
                          std::span<const std::shared_ptr<const image::Picture>> pictures);
BoundSources bind_sources(const lang::Rule& rule, std::span<const std::shared_ptr<const image::Picture>> pictures);

/// Those of the rule's sources that somebody has to bring, in their order.
std::vector<lang::SourceInput> external_sources(const lang::Rule& rule);

/// The rule with sources that look back as pictures that somebody has to bring, of one channel where they read one.
lang::Rule with_own_sources(lang::Rule rule);

/// What `source NAME` reads from a picture file when nothing else is said: its layer of that name, or its channel.
std::shared_ptr<const image::Picture> source_in(const image::Image& image, std::string_view name);

} // namespace kasuri::engine
