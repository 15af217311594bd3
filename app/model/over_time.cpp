#include "model/over_time.hpp"

#include <algorithm>
#include <limits>
#include <optional>
#include <set>

namespace kasuri::app {
namespace {

constexpr int pause_ms = 120;
constexpr float unknown = std::numeric_limits<float>::quiet_NaN();

/// The colour of one pixel of a layer, straight; nothing if there is no such layer or pixel.
std::optional<std::array<float, 3>> colour_at(const image::Image& image, const std::string& layer, QPoint pixel) {
    if (pixel.x() < 0 || pixel.y() < 0 || pixel.x() >= image.width || pixel.y() >= image.height)
        return std::nullopt;
    const std::size_t index = static_cast<std::size_t>(pixel.y()) * static_cast<std::size_t>(image.width) +
        static_cast<std::size_t>(pixel.x());
    image::Image one = image; // planes are shared; each is replaced
    one.width = one.height = 1;
    for (image::Channel& channel : one.channels)
        channel.plane = image::make_plane(image::Samples(1, (*channel.plane)[index]));
    const std::optional<image::Picture> picture = image::picture_of(one, layer);
    if (!picture)
        return std::nullopt;
    const std::array<float, 4> at = picture->at(0);
    return std::array{at[0], at[1], at[2]};
}

} // namespace

OverTime::OverTime(SheetModel& sheet, FrameStore& store, QObject* parent)
    : QObject(parent), sheet_(sheet), store_(store) {
    pause_.setSingleShot(true);
    pause_.setInterval(pause_ms);
    connect(&pause_, &QTimer::timeout, this, &OverTime::changed);
    connect(&sheet, &SheetModel::changed, this, &OverTime::refresh);
    connect(&sheet, &SheetModel::pins_changed, this, &OverTime::refresh);
    connect(&store, &FrameStore::arrived, this, &OverTime::take);
    connect(&store, &FrameStore::failed, this, [this](const FrameFile& frame, const Error&) { take(frame, nullptr); });
}

void OverTime::refresh() {
    std::map<int, Samples> now;
    bool anew = false;
    for (const Strip& strip : sheet_.strips()) {
        const auto pin = std::find_if(sheet_.pins().begin(), sheet_.pins().end(),
                                      [&](const Pin& each) { return each.number == strip.pin; });
        if (strip.pin == 0 || pin == sheet_.pins().end())
            continue;
        Cell shown; // as a cell that shows the pin's picture
        const std::size_t layer = pin->source.rfind('#');
        if (layer == std::string::npos)
            continue;
        shown.picture = pin->source.substr(0, layer);
        const io::Sequence& sequence = sheet_.sequence_of(shown);
        if (sequence.frames.size() < 2)
            continue;
        Samples samples;
        for (const auto& frame : sequence.frames) {
            samples.place.files.push_back(frame.path.string());
            samples.numbers.push_back(frame.number);
        }
        samples.place.layer = pin->source.substr(layer + 1);
        samples.place.space = sheet_.frame_file(shown.picture).space;
        samples.place.pixel = pin->pixel;
        if (const auto old = samples_.find(strip.pin); old != samples_.end() && old->second.place == samples.place) {
            samples = std::move(old->second);
        } else {
            samples.colours.assign(samples.numbers.size(), {unknown, unknown, unknown});
            samples.known.assign(samples.numbers.size(), 0);
            anew = true;
        }
        samples.at = sequence.at;
        now[strip.pin] = std::move(samples);
    }
    const bool fewer = now.size() < samples_.size();
    samples_ = std::move(now);
    if (!anew && !fewer)
        return;
    for (auto& [pin, samples] : samples_) // what is in memory is there at once
        for (std::size_t i = 0; i < samples.known.size(); ++i)
            if (!samples.known[i])
                if (const FrameFile file{samples.place.files[i], samples.place.space};
                    const ImagePtr image = store_.find(file))
                    take(file, image);
    read_missing();
}

void OverTime::read_missing() {
    std::vector<FrameFile> missing;
    std::set<FrameFile> once;
    for (const auto& [pin, samples] : samples_)
        for (std::size_t i = 0; i < samples.known.size(); ++i)
            if (const FrameFile file{samples.place.files[i], samples.place.space};
                !samples.known[i] && once.insert(file).second)
                missing.push_back(file);
    store_.visit(std::move(missing));
}

void OverTime::take(const FrameFile& frame, const ImagePtr& image) {
    for (auto& [pin, samples] : samples_) {
        if (samples.place.space != frame.space)
            continue;
        const auto file = std::find(samples.place.files.begin(), samples.place.files.end(), frame.path);
        if (file == samples.place.files.end())
            continue;
        const auto i = static_cast<std::size_t>(file - samples.place.files.begin());
        samples.known[i] = 1;
        samples.colours[i] = {unknown, unknown, unknown};
        if (!image)
            continue;
        samples.colour_space = image->space;
        if (const auto colour = colour_at(*image, samples.place.layer, samples.place.pixel))
            samples.colours[i] = *colour;
        if (!pause_.isActive())
            pause_.start();
    }
}

OverTime::Row OverTime::row(int pin) const {
    const auto found = samples_.find(pin);
    if (found == samples_.end())
        return {};
    const Samples& samples = found->second;
    image::Picture picture = image::generated(static_cast<int>(samples.colours.size()), 1,
                                              [&](int x, int) { return samples.colours[static_cast<std::size_t>(x)]; });
    if (!samples.colour_space.empty())
        picture.space = samples.colour_space;
    return {std::make_shared<const image::Picture>(std::move(picture)), samples.numbers,
            static_cast<std::size_t>(std::count(samples.known.begin(), samples.known.end(), 1)), samples.at};
}

} // namespace kasuri::app
