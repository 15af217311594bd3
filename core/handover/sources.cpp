#include "base/digest.hpp"
#include "base/movie_name.hpp"
#include "handover/render.hpp"
#include "io/picture_file.hpp"
#include "targets/target.hpp"

#include <algorithm>
#include <fmt/format.h>

namespace kasuri::handover {
namespace {

namespace fs = std::filesystem;

/// Where the file is and what is meant in it: behind the last colon, unless there is a file of the whole name.
std::pair<fs::path, std::string> parted(const std::string& where) {
    std::error_code error;
    // The colon of "target:" is none that a part stands behind.
    const std::size_t colon = where.find(':', is_target(where) ? target_prefix.size() : 0) == std::string::npos
        ? std::string::npos
        : where.rfind(':');
    if (colon == std::string::npos || colon == 0 || fs::exists(where, error) ||
        movie_frame(where).at.find(':') != std::string::npos) // of a timecode
        return {where, {}};
    return {where.substr(0, colon), where.substr(colon + 1)};
}

std::string listed(const std::vector<std::string>& names) {
    return names.empty() ? "none" : fmt::format("{}", fmt::join(names, ", "));
}

constexpr int target_width = 1920;

} // namespace

bool is_target(const std::string& where) { return where.starts_with(target_prefix); }

Result<image::Image> source_image(const std::string& where, std::string_view space) {
    if (!is_target(where))
        return io::load(where, std::string(space));
    const std::string name = where.substr(target_prefix.size());
    const targets::Target* const target = targets::find(name);
    if (!target)
        return Error{said("there is no target {}", name), where, "kasuri-cli target lists them."};
    image::Image made = image::image_of(targets::picture_beside(*target, target_width));
    if (!space.empty())
        made.space = space;
    return made;
}

std::string identity_of(const fs::path& file, const std::string& part) {
    std::error_code error;
    Digest digest;
    if (is_target(file.string())) {
        digest.add(file.string());
        digest.add(part);
        return digest.text();
    }
    digest.add(fs::weakly_canonical(file, error).string());
    digest.add(part);
    const fs::path held = file_of(file);
    digest.add(static_cast<std::uint64_t>(fs::file_size(held, error)));
    digest.add(static_cast<std::uint64_t>(fs::last_write_time(held, error).time_since_epoch().count()));
    return digest.text();
}

Result<subject::Bound> source_from(const std::string& where) {
    const auto [file, part] = parted(where);
    const Result<image::Image> loaded = source_image(file.string());
    if (!loaded)
        return loaded.error();
    const image::Image& image = loaded.value();
    subject::Bound bound;
    bound.label = file.filename().string() + (part.empty() ? "" : ":" + part);
    bound.identity = identity_of(file, part);
    if (part.empty()) {
        if (std::optional<image::Picture> picture = image::picture_of(image, image::usual_layer(image)))
            bound.picture = std::make_shared<const image::Picture>(std::move(*picture));
        else
            return Error{"has no channel to read", file.string(), ""};
        return bound;
    }
    bound.picture = engine::source_in(image, part);
    if (bound.picture)
        return bound;
    std::vector<std::string> channels;
    for (const image::Channel& channel : image.channels)
        channels.push_back(channel.name);
    return Error{said("there is no layer or channel {}", part), file.string(),
                 said("Its channels are: {}.", listed(channels))};
}

Result<subject::Subject> with_sources(const subject::Subject& subject, const std::vector<std::string>& texts) {
    subject::Bindings bindings = subject.bindings();
    std::vector<std::string> names;
    for (const lang::SourceInput& source : subject.sources())
        if (std::find(names.begin(), names.end(), source.name) == names.end())
            names.push_back(source.name);
    for (const std::string& text : texts) {
        const std::size_t equals = text.find('=');
        const std::string name = text.substr(0, equals),
                          where = equals == std::string::npos ? "" : text.substr(equals + 1);
        if (name.empty() || where.empty())
            return Error{said("\"{}\" does not say which picture a source reads", text), "",
                         "Write NAME=FILE, NAME=FILE:LAYER, NAME=FILE:CHANNEL or NAME=target:TARGET."};
        if (std::find(names.begin(), names.end(), name) == names.end())
            return Error{said("the {} has no source {}", translated(subject.noun()), name), "",
                         said("It has: {}.", listed(names))};
        Result<subject::Bound> bound = source_from(where);
        if (!bound)
            return bound.error();
        bindings[name] = std::move(bound.value());
    }
    return subject.with_bindings(std::move(bindings));
}

} // namespace kasuri::handover
