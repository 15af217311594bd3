#pragma once
#include "subject/subject.hpp"

namespace kasuri::subject {

// Further pictures where colours are looked at one by one: each is the same at every pixel.

/// How many things they are taken to be.
inline constexpr std::size_t source_variations = 8;

/// What the sources are taken to be, a number for each of their channels in the order of the chain: pictures that are
/// bound are read at some places; the others are 0, 1, a half, and random numbers between 0 and 1, which depend on
/// name and channel alone. One empty set if the subject reads none.
std::vector<std::vector<float>> source_settings(const Subject& subject);

/// The spaces of the pictures that are bound, in the order of the sources; empty: the step's own.
std::vector<std::string> source_spaces(const Subject& subject);

/// Sources that have no picture, each once.
std::vector<std::string> unbound(const Subject& subject);

/// Planes that are the same everywhere; `values` must outlive them.
std::vector<engine::PlaneView> constant_planes(std::span<const float> values);

} // namespace kasuri::subject
