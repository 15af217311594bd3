#include "pairing/pairing.hpp"

#include "base/file.hpp"
#include "base/file_kind.hpp"
#include "base/said.hpp"
#include "base/text.hpp"
#include "colour/space.hpp"
#include "io/lut_file.hpp"
#include "look/make.hpp"
#include "pairing/pictures.hpp"
#include "pairing/registration.hpp"

#include <cmath>
#include <fmt/format.h>
#include <tuple>

namespace kasuri::pairing {
namespace {

constexpr std::size_t longest_table = std::size_t{64} << 20;
constexpr int usual_points = 33, most_points = 65;

std::optional<Error> unknown(const std::string& space) {
    if (space.empty() || colour::find_space(space))
        return std::nullopt;
    return Error{said("there is no space {}", space), "", ""};
}

/// Shifted by less, or no better there than as they came: they lie on each other.
constexpr double least_shift = 0.3, least_gain = 0.01;

/// Brings the second over the first if it lies elsewhere, and says so.
std::string bring_over(image::Picture& before, image::Picture& after, const CancelToken& cancel) {
    const bool one_size = before.width == after.width && before.height == after.height;
    const auto found = registered(before, after, cancel);
    if (!found || (one_size && (found->farthest < least_shift || found->correlation < found->before + least_gain)))
        return {};
    const auto& m = found->map;
    auto both = brought_over(before, after, *found);
    if (!both)
        return {};
    std::tie(before, after) = std::move(*both);
    return said("brought over each other: the second is moved by {:.1f} and {:.1f} pixels and is {:.4g} times as large",
                m[2] - (m[0] + m[1] - 1) / 2, m[5] - (m[3] + m[4] - 1) / 2,
                1 / std::sqrt(std::fabs(m[0] * m[4] - m[1] * m[3])));
}

Result<Paired> of_pictures(const std::string& first, const std::string& second, const PairingOptions& options,
                           const CancelToken& cancel) {
    Paired made;
    auto before = picture_from(first, options, made.notes);
    if (!before)
        return before.error();
    auto after = picture_from(second, options, made.notes);
    if (!after)
        return after.error();
    if (const std::string was = after.value().picture.space; was != before.value().picture.space) {
        bring_into(after.value().picture, before.value().picture.space);
        made.notes.push_back(said("{}: its numbers are {}; they were converted to {}", name_of(second), was,
                                  before.value().picture.space));
    }
    const std::string moved =
        options.as_they_lie ? std::string() : bring_over(before.value().picture, after.value().picture, cancel);
    auto pairs = fit::pairs_of(before.value().picture, after.value().picture,
                               std::max(before.value().unsure_ends, after.value().unsure_ends));
    if (!pairs)
        return Error{pairs.error().what, second, pairs.error().remedy};
    made.pairs = std::move(pairs.value().pairs);
    made.pairs.title = name_of(second);
    made.detail = said("{} of {} pixels", made.pairs.size(), pairs.value().pixels);
    made.moved = !moved.empty();
    if (made.moved)
        made.detail += "; " + moved;
    if (pairs.value().clipped > 0)
        made.detail += said("; {} that were met are clipped and left out", pairs.value().clipped);
    if (pairs.value().at_edges > 0)
        made.detail += said("; {} are beside edges and left out", pairs.value().at_edges);
    if (pairs.value().not_finite > 0)
        made.detail += moved.empty() ? said("; {} are no numbers and left out", pairs.value().not_finite)
                                     : said("; {} are in one of them alone and left out", pairs.value().not_finite);
    return made;
}

Result<Paired> of_table(const std::string& file, const PairingOptions& options) {
    const auto text = read_file(file, longest_table);
    if (!text)
        return text.error();
    auto pairs = fit::pairs_of(text.value(), file);
    if (!pairs)
        return pairs.error();
    Paired made;
    made.pairs = std::move(pairs.value());
    made.pairs.title = name_of(file);
    if (!options.in_space.empty())
        made.pairs.space = options.in_space;
    made.detail = said("{} lines", made.pairs.size());
    return made;
}

Result<Paired> of_lattice(const subject::Subject& subject, const io::LutAxis& axis, const CancelToken& cancel) {
    if (!(axis.low < axis.high))
        return Error{"the domain is empty", "", "Give the lower end first, such as 0 and 1."};
    const int points = axis.points < 2 ? usual_points : std::min(axis.points, most_points);
    auto pairs = fit::pairs_of(subject, points, axis.low, axis.high, cancel);
    if (!pairs)
        return pairs.error();
    Paired made;
    made.pairs = std::move(pairs.value());
    made.detail = said("{} points an axis from {} to {}", points, number_text(axis.low, 6), number_text(axis.high, 6));
    return made;
}

io::LutAxis wished(io::LutAxis axis, const PairingOptions& options) {
    if (options.domain.size() == 2) {
        axis.low = options.domain[0];
        axis.high = options.domain[1];
    }
    return axis;
}

Result<Paired> of_steps(const std::string& file, const PairingOptions& options, const CancelToken& cancel) {
    document::Look look;
    io::LutAxis axis;
    const bool is_lut = is_kind(file, FileKind::lut);
    if (is_kind(file, FileKind::look)) {
        Result<document::Look> read = document::load_look(file);
        if (!read)
            return read.error();
        look = std::move(read.value());
    } else {
        if (is_lut) { // the file by itself first, so that what is wrong with it is told of it
            const auto known = io::lut_axis(file);
            if (!known)
                return known.error();
            axis = known.value();
        }
        Result<document::LookStep> step = document::step_from(file);
        if (!step)
            return step.error();
        if (is_lut && !options.lut_space.empty())
            step.value().space = options.lut_space;
        look.title = std::filesystem::path(file).stem().string();
        look.steps.push_back(std::move(step.value()));
    }
    // A look's own files are looked for beside it; a filter or a LUT is named from where we are.
    const Result<look::Made> runs = look::make(
        look, is_kind(file, FileKind::look) ? std::filesystem::path(file).parent_path() : std::filesystem::path());
    if (!runs)
        return runs.error();
    auto made = of_lattice(runs.value().subject, wished(axis, options), cancel);
    if (!made)
        return made.error();
    made.value().notes = runs.value().notes;
    made.value().pairs.title = name_of(file);
    return made;
}

bool is_table(const std::string& file) {
    const std::string ending = lower_ending(file);
    return ending == ".csv" || ending == ".tsv" || ending == ".txt";
}

} // namespace

bool holds_pairs(const std::string& file) {
    return is_table(file) || is_kind(file, FileKind::filter) || is_kind(file, FileKind::look) ||
        is_kind(file, FileKind::lut);
}

Result<Paired> pairs_from(const std::vector<std::string>& files, const PairingOptions& options,
                          const CancelToken& cancel) {
    for (const std::string* space : {&options.lut_space, &options.in_space})
        if (const auto wrong = unknown(*space))
            return *wrong;
    if (files.size() == 2)
        return of_pictures(files[0], files[1], options, cancel);
    if (files.size() != 1 || !holds_pairs(files.front()))
        return Error{"is no LUT, look, filter or table (.csv, .tsv, .txt)", files.empty() ? "" : files.front(),
                     "Of pictures give two, before and after."};
    return is_table(files.front()) ? of_table(files.front(), options) : of_steps(files.front(), options, cancel);
}

Result<Paired> pairs_from(document::LookStep step, const std::string& title, const CancelToken& cancel) {
    document::LookStep alone = std::move(step);
    alone.on = true;
    alone.opacity = 1;
    alone.blend = "normal";
    alone.mask.clear();
    io::LutAxis axis;
    if (!alone.lut.empty()) {
        const auto known = io::lut_axis(alone.lut_text.text(), alone.lut, title);
        if (!known)
            return known.error();
        axis = known.value();
    }
    document::Look look;
    look.steps.push_back(std::move(alone));
    const Result<look::Made> runs = look::make(look, {});
    if (!runs)
        return runs.error();
    auto made = of_lattice(runs.value().subject, axis, cancel);
    if (made)
        made.value().pairs.title = title;
    return made;
}

} // namespace kasuri::pairing
