#include "objects.hpp"

#include "baking/bake.hpp"
#include "handover/cube.hpp"

#include <algorithm>
#include <cstring>

using namespace kasuri;
using library::failed;
using library::guarded;

namespace {

/// The options, or nothing, and it says what makes no sense.
std::optional<baking::BakeOptions> asked(const kasuri_filter* filter, size_t size, double low, double high,
                                         const char* in_space, const char* out_space, kasuri_said& said) {
    baking::BakeOptions options;
    constexpr std::size_t largest = 256;
    if (!filter || size < 2 || size > largest || !(low < high)) {
        said.line(!filter          ? "there is no filter"
                      : low < high ? "a table has 2 to 256 points along an edge"
                                   : "the domain is empty: low must be less than high");
        return std::nullopt;
    }
    options.size = static_cast<int>(size);
    options.low = low;
    options.high = high;
    if (!library::known_space(in_space, options.in_space, said) ||
        !library::known_space(out_space, options.out_space, said))
        return std::nullopt;
    return options;
}

void tell(const baking::LutError& from, std::size_t samples, kasuri_lut_error* to) {
    if (to)
        *to = {from.mean, from.most, from.largest, samples};
}

} // namespace

kasuri_status kasuri_bake(const kasuri_filter* filter, size_t size, double low, double high, const char* in_space,
                          const char* out_space, float* colours, kasuri_lut_error* error, kasuri_said** said) {
    return guarded(said, [&](kasuri_said& say) {
        const auto options = asked(filter, size, low, high, in_space, out_space, say);
        if (!options || !colours)
            return options ? failed(say, KASURI_BAD_ARGUMENT, "there is nowhere to put the table")
                           : KASURI_BAD_ARGUMENT;
        const auto baked = baking::bake(filter->subject, *options);
        if (!baked)
            return failed(say, KASURI_NOT_POSSIBLE, baked.error());
        for (const auto& colour : baked.value().lut.colours)
            colours = std::copy(colour.begin(), colour.end(), colours);
        tell(baked.value().tetrahedral, baked.value().samples, error);
        return KASURI_OK;
    });
}

kasuri_status kasuri_bake_file(const kasuri_filter* filter, const char* ending, size_t size, double low, double high,
                               const char* in_space, const char* out_space, char** bytes, size_t* length,
                               kasuri_lut_error* error, kasuri_said** said) {
    return guarded(said, [&](kasuri_said& say) {
        const auto options = asked(filter, size, low, high, in_space, out_space, say);
        if (!options)
            return KASURI_BAD_ARGUMENT;
        if (!ending || !bytes || !length)
            return failed(say, KASURI_BAD_ARGUMENT, "there is no ending, or nowhere to put the file");
        *bytes = nullptr;
        *length = 0;
        if (!handover::is_lut_ending(ending))
            return failed(say, KASURI_BAD_ARGUMENT, std::string("there is no kind of LUT that ends in ") + ending);
        const auto baked = baking::bake(filter->subject, *options);
        if (!baked)
            return failed(say, KASURI_NOT_POSSIBLE, baked.error());
        const auto file = handover::lut_file(ending, filter->subject, baked.value());
        if (!file)
            return failed(say, KASURI_NOT_POSSIBLE, file.error());
        const std::string& text = file.value().text;
        *bytes = new char[text.size() + 1];
        std::memcpy(*bytes, text.c_str(), text.size() + 1);
        *length = text.size();
        tell(file.value().tetrahedral, file.value().samples, error);
        return KASURI_OK;
    });
}

void kasuri_bytes_free(char* bytes) { delete[] bytes; }
