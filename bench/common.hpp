#pragma once
#include "colour/space.hpp"
#include "image/image.hpp"
#include "lang/check.hpp"
#include "proof/proof.hpp"
#include "workloads.hpp"

#include <cctype>
#include <string>
#include <utility>

namespace kasuri::bench {

inline lang::Rule rule_of(const std::string& text) { return lang::check(text, proof::vocabulary()).rule; }

/// A picture of gradients and fine detail, with an alpha plane.
inline image::Picture picture_of(int width, int height) {
    image::Picture p = image::generated(width, height, [&](int x, int y) {
        return std::array<double, 3>{x / static_cast<double>(width), y / static_cast<double>(height),
                                     ((x * 7 + y * 13) % 256) / 255.0};
    });
    p.planes[3] = image::make_plane(image::Samples(p.pixels(), 1.0f));
    return p;
}
inline const image::Picture& picture() {
    static const image::Picture made = picture_of(1920, 1080);
    return made;
}

/// The same picture, of a display's sRGB, as ACEScct: what workload (f) brings back.
inline const image::Picture& encoded_picture() {
    static const image::Picture made = [] {
        const colour::Space &from = *colour::find_space("srgb"), &to = *colour::find_space("acescct");
        image::Picture p = picture();
        std::array<image::Samples, 3> planes;
        for (std::size_t i = 0; i < p.pixels(); ++i) {
            const auto c = picture().at(i);
            const colour::Triple code = colour::converted(
                {static_cast<double>(c[0]), static_cast<double>(c[1]), static_cast<double>(c[2])}, from, to);
            for (std::size_t k = 0; k < 3; ++k)
                planes[k].push_back(static_cast<float>(code[k]));
        }
        for (std::size_t k = 0; k < 3; ++k)
            p.planes[k] = image::make_plane(std::move(planes[k]));
        return p;
    }();
    return made;
}
inline const image::Picture& picture_of(char workload) {
    return workload == 'f' || workload == 'i' ? encoded_picture() : picture();
}

/// `text` with every whole word `from` (not a component, not a function) written as `to`.
inline std::string renamed(const std::string& text, const std::string& from, const std::string& to) {
    const auto part_of_word = [](char c) { return std::isalnum(static_cast<unsigned char>(c)) || c == '_'; };
    std::string result;
    for (std::size_t k = 0; k < text.size(); ++k) {
        const std::size_t after = k + from.size();
        const bool before_ok = k == 0 || !(part_of_word(text[k - 1]) || text[k - 1] == '.');
        const bool after_ok = after >= text.size() || !(part_of_word(text[after]) || text[after] == '(');
        if (before_ok && after_ok && text.compare(k, from.size(), from) == 0) {
            result += to;
            k = after - 1;
        } else {
            result += text[k];
        }
    }
    return result;
}

/// (e): b, c and d one after the other, each reading what the one before it wrote.
inline std::string all_in_one() {
    std::string text;
    for (std::size_t i = 1; i < 4; ++i) {
        std::string part = workloads[i].rule;
        for (const char* name : {"d", "m", "c", "x", "f", "l", "a1", "b1", "fy", "k", "q", "back"})
            part = renamed(part, name, std::string(name) + "_" + std::to_string(i));
        if (i > 1)
            for (const char* input : {"rgb", "r", "g", "b"})
                part = renamed(part, input, std::string("out.") + input);
        text += part;
    }
    return text;
}

/// The rule of a workload; (f) is a conversion alone, from ACEScct to the display's sRGB.
inline std::string workload(char which) {
    for (const auto& second : second_workloads)
        if (second.letter == which)
            return second.rule;
    return which == 'f' ? "working acescct\nout.rgb = to_srgb(rgb)\n"
        : which == 'e'  ? all_in_one()
                        : std::string(workloads[which - 'a'].rule);
}

} // namespace kasuri::bench
