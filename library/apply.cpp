#include "objects.hpp"

#include "base/parallel.hpp"
#include "engine/evaluate.hpp"
#include "engine/sources.hpp"
#include "io/helper.hpp"

#include <array>
#include <cstdint>
#include <cstring>
#include <limits>

using namespace kasuri;
using library::failed;
using library::guarded;
using library::guarded_value;

namespace {

struct Kind {
    engine::Sample sample;
    std::ptrdiff_t bytes;
};
/// A program in C may have any number there.
const Kind* kind_of(const kasuri_number& numbers) {
    static constexpr Kind kinds[] = {{engine::Sample::float32, 4},
                                     {engine::Sample::half, 2},
                                     {engine::Sample::uint8, 1},
                                     {engine::Sample::uint16, 2}};
    unsigned index = 0;
    static_assert(sizeof index == sizeof numbers);
    std::memcpy(&index, &numbers, sizeof index);
    return index < std::size(kinds) ? &kinds[index] : nullptr;
}

/// A picture with its strides said, in bytes.
struct Laid {
    const kasuri_picture& picture;
    const Kind& kind;
    std::ptrdiff_t pixel, row;

    /// Where a plane lies: from its first byte to behind its last one.
    std::pair<std::intptr_t, std::intptr_t> range(const void* plane) const {
        const auto at = reinterpret_cast<std::intptr_t>(plane);
        const std::intptr_t across = pixel * static_cast<std::ptrdiff_t>(picture.width - 1),
                            down = row * static_cast<std::ptrdiff_t>(picture.height - 1);
        return {at + std::min<std::intptr_t>(across, 0) + std::min<std::intptr_t>(down, 0),
                at + std::max<std::intptr_t>(across, 0) + std::max<std::intptr_t>(down, 0) + kind.bytes};
    }
};

/// Nothing, and it says why, if the picture cannot be read or written so.
std::optional<Laid> laid(const kasuri_picture* picture, const char* which, kasuri_said& said) {
    const auto wrong = [&](const char* what) {
        said.line(std::string(which) + ": " + what);
        return std::nullopt;
    };
    if (!picture)
        return wrong("there is no picture");
    const Kind* kind = kind_of(picture->numbers);
    if (!kind)
        return wrong("no such kind of numbers");
    if (picture->width > static_cast<std::size_t>(std::numeric_limits<int>::max()) ||
        picture->height > static_cast<std::size_t>(std::numeric_limits<int>::max()))
        return wrong("more than 2147483647 pixels wide or high");
    Laid made{*picture, *kind, picture->pixel_stride != 0 ? picture->pixel_stride : kind->bytes, picture->row_stride};
    if (made.row == 0)
        made.row = made.pixel * static_cast<std::ptrdiff_t>(picture->width);
    if (made.pixel % kind->bytes != 0 || made.row % kind->bytes != 0)
        return wrong("strides are not multiples of a number's size");
    for (const void* plane : picture->planes)
        if (reinterpret_cast<std::uintptr_t>(plane) % static_cast<std::uintptr_t>(kind->bytes) != 0)
            return wrong("a plane is not aligned to its numbers");
    return made;
}

engine::PlaneView view_of(const Laid& it, std::size_t plane) {
    // Of a picture of one channel it stands for all three.
    const bool grey = !it.picture.planes[1] && !it.picture.planes[2];
    const void* data = it.picture.planes[grey && plane < 3 ? 0 : plane];
    return data ? engine::PlaneView(data, it.kind.sample, it.pixel / it.kind.bytes, it.row / it.kind.bytes)
                : engine::PlaneView();
}

bool readable(const Laid& it, const char* which, kasuri_said& said) {
    const auto& planes = it.picture.planes;
    if (!planes[0] || !planes[1] != !planes[2]) {
        said.line(std::string(which) + ": give one plane, three, or four with alpha");
        return false;
    }
    return true;
}

enum class Overlap { none, in_place, wrong };
/// How the planes that are written lie to those that are read.
Overlap overlap(const Laid& in, const Laid& out) {
    Overlap found = Overlap::none;
    for (const void* to : out.picture.planes)
        for (const void* from : in.picture.planes) {
            if (!to || !from)
                continue;
            const auto a = in.range(from), b = out.range(to);
            if (a.second <= b.first || b.second <= a.first)
                continue;
            // The same memory may also be read between: red and green of one row of pixels.
            const std::ptrdiff_t apart = static_cast<const char*>(to) - static_cast<const char*>(from);
            if (in.pixel != out.pixel || in.row != out.row || std::abs(apart) >= std::abs(in.pixel))
                return Overlap::wrong;
            found = Overlap::in_place;
        }
    return found;
}

/// The further pictures as the program reads them, in the order of the subject's sources.
std::optional<engine::BoundSources> sources_of(const kasuri_filter* filter, const kasuri_picture& in,
                                               kasuri_said& said) {
    const auto width = static_cast<int>(in.width), height = static_cast<int>(in.height);
    if (const auto missing = subject::without_picture(filter->subject, nullptr); !missing.empty()) {
        said.line("no picture was given for the source " + missing.front());
        return std::nullopt;
    }
    for (const auto& [name, bound] : filter->subject.bindings())
        if (bound.picture && (bound.picture->width != width || bound.picture->height != height)) {
            said.line("the picture of the source " + name + " is " + std::to_string(bound.picture->width) + " x " +
                      std::to_string(bound.picture->height) + " pixels, and not " + std::to_string(width) + " x " +
                      std::to_string(height));
            return std::nullopt;
        }
    return engine::bind_sources(filter->subject.sources(),
                                subject::pictures_for(filter->subject, nullptr, width, height, nullptr));
}

} // namespace

std::optional<image::Picture> library::copied(const kasuri_picture* picture, const char* which, kasuri_said& said) {
    const auto from = laid(picture, which, said);
    image::Picture copy;
    if (!from || !readable(*from, which, said) || !known_space(picture->space, copy.space, said))
        return std::nullopt;
    copy.width = static_cast<int>(picture->width);
    copy.height = static_cast<int>(picture->height);
    // What changes nothing copies: the engine's own way of reading numbers.
    static const engine::ProgramPtr same = subject::Subject().program();
    engine::Source source{copy.width, copy.height, {}};
    std::vector<engine::PlaneSink> sinks(4);
    std::array<image::Samples, 4> planes;
    for (std::size_t c = 0; c < 4; ++c) {
        source.planes[c] = view_of(*from, c);
        if (!source.planes[c].data)
            continue;
        planes[c] = image::Samples(copy.pixels());
        sinks[c] = engine::PlaneSink(planes[c].data());
    }
    engine::run(*same, source, {}, std::span<const engine::PlaneSink>(sinks));
    for (std::size_t c = 0; c < 4; ++c)
        if (sinks[c].data)
            copy.planes[c] = image::make_plane(std::move(planes[c]));
    return copy;
}

kasuri_picture kasuri_interleaved(void* data, size_t width, size_t height, int channels, kasuri_number numbers) {
    const Kind* kind = kind_of(numbers);
    const std::ptrdiff_t bytes = kind ? kind->bytes : 0;
    kasuri_picture made{width, height, numbers, {}, bytes * channels, 0, nullptr};
    for (int c = 0; c < channels && c < 4; ++c)
        made.planes[c] = static_cast<char*>(data) + c * bytes;
    return made;
}

size_t kasuri_source_count(const kasuri_filter* filter) { return filter->subject.sources().size(); }

kasuri_status kasuri_source_at(const kasuri_filter* filter, size_t index, kasuri_source* source) {
    if (!source || index >= kasuri_source_count(filter))
        return KASURI_BAD_ARGUMENT;
    const lang::SourceInput& it = filter->subject.sources()[index];
    const auto& bound = filter->subject.bindings();
    const auto found = bound.find(it.name);
    *source = {it.name.c_str(), it.description.c_str(), static_cast<int>(lang::width(it.type)),
               !lang::is_external(it) || (found != bound.end() && found->second.picture) ? 1 : 0};
    return KASURI_OK;
}

kasuri_status kasuri_give_source(kasuri_filter* filter, const char* name, const kasuri_picture* picture,
                                 kasuri_said** said) {
    return guarded(said, [&](kasuri_said& say) {
        if (!filter || !name)
            return failed(say, KASURI_BAD_ARGUMENT, "there is no filter, or no name");
        bool known = false;
        for (const lang::SourceInput& source : filter->subject.sources())
            known = known || source.name == name;
        if (!known)
            return failed(say, KASURI_BAD_ARGUMENT, std::string("there is no source ") + name);
        subject::Bindings bindings = filter->subject.bindings();
        if (picture) {
            auto copy = library::copied(picture, "the source's picture", say);
            if (!copy)
                return KASURI_BAD_ARGUMENT;
            bindings[name] = {std::make_shared<const image::Picture>(std::move(*copy)), name, {}};
        } else {
            bindings.erase(name);
        }
        filter->subject = filter->subject.with_bindings(std::move(bindings));
        filter->identity.clear();
        return KASURI_OK;
    });
}

kasuri_call* kasuri_call_new(void) {
    return guarded_value<kasuri_call*>(nullptr, [] { return new kasuri_call; });
}
void kasuri_call_free(kasuri_call* call) { delete call; }
void kasuri_call_off(const kasuri_call* call) {
    if (call)
        call->cancel.cancel();
}
size_t kasuri_call_done(const kasuri_call* call) { return call ? call->done.load() : 0; }

kasuri_status kasuri_apply(const kasuri_filter* filter, const kasuri_picture* in, const kasuri_picture* out,
                           int threads, const kasuri_call* call, kasuri_said** said) {
    return guarded(said, [&](kasuri_said& say) {
        if (!filter || threads < 0)
            return failed(say, KASURI_BAD_ARGUMENT, filter ? "less than 0 threads" : "there is no filter");
        const auto from = laid(in, "the picture that comes in", say), to = laid(out, "the picture that goes out", say);
        std::string in_space, out_space;
        if (!from || !to || !readable(*from, "the picture that comes in", say) ||
            !library::known_space(in->space, in_space, say) || !library::known_space(out->space, out_space, say))
            return KASURI_BAD_ARGUMENT;
        if (in->width != out->width || in->height != out->height)
            return failed(say, KASURI_BAD_ARGUMENT, "the picture that goes out is not of the same size");
        if (in->width == 0 || in->height == 0)
            return KASURI_OK;
        const Overlap shared = overlap(*from, *to);
        if (shared == Overlap::wrong)
            return failed(
                say, KASURI_BAD_ARGUMENT,
                "the picture that goes out lies across the one that comes in: pixels must lie where they came "
                "from, or elsewhere");
        const auto sources = sources_of(filter, *in, say);
        if (!sources)
            return KASURI_BAD_ARGUMENT;
        engine::Source source{static_cast<int>(in->width), static_cast<int>(in->height), {}, sources->planes};
        source.in_place = shared == Overlap::in_place;
        std::vector<engine::PlaneSink> sinks(4);
        for (std::size_t c = 0; c < 4; ++c) {
            source.planes[c] = view_of(*from, c);
            if (out->planes[c])
                sinks[c] = engine::PlaneSink(out->planes[c], to->kind.sample, to->pixel / to->kind.bytes,
                                             to->row / to->kind.bytes);
        }
        const CancelToken cancel = library::token_of(call);
        if (call)
            call->done = 0;
        bool whole = false;
        within_threads(threads, [&] {
            const engine::ProgramPtr program =
                filter->subject.program(in_space, out_space, sources->spaces, false, &cancel);
            whole = program &&
                engine::run(*program, source, filter->subject.values(), std::span<const engine::PlaneSink>(sinks),
                            cancel, call ? &call->done : nullptr);
        });
        return whole ? KASURI_OK : KASURI_CALLED_OFF;
    });
}

int kasuri_rest(void) {
    return guarded_value(0, [] {
        io::end_resting_helpers();
        return end_threads() ? 1 : 0;
    });
}
