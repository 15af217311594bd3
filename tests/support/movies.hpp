#pragma once
// Movies for tests, made and looked at by FFmpeg's own program.
#include "support/support.hpp"

#include <cstdio>
#include <fmt/format.h>
#include <sys/wait.h>

namespace kasuri::test {

/// Runs ffmpeg, or another program; the test fails if that does.
inline void do_run(const std::string& command) {
    INFO(command);
    REQUIRE(std::system((command + " </dev/null >/dev/null 2>&1").c_str()) == 0);
}
inline void ffmpeg(const std::string& arguments) { do_run("ffmpeg -v error -y -nostdin " + arguments); }

/// What a program says.
inline std::string words_of(const std::string& command) {
    std::string all;
    FILE* const pipe = ::popen((command + " 2>/dev/null </dev/null").c_str(), "r");
    REQUIRE(pipe);
    char part[4096];
    for (std::size_t got = 0; (got = std::fread(part, 1, sizeof part, pipe)) > 0;)
        all.append(part, got);
    ::pclose(pipe);
    return all;
}

/// What ffprobe says of the first video stream: "color_space", "pix_fmt" ...
inline std::string probed(const std::filesystem::path& movie, const std::string& what,
                          const std::string& stream = "v:0") {
    std::string text = words_of(
        fmt::format("ffprobe -v error -select_streams {} -show_entries {} -of default=noprint_wrappers=1:nokey=1 '{}'",
                    stream, what, movie.string()));
    return text.substr(0, text.find('\n'));
}

/// An H.264 movie of so many frames, with pictures that depend on others before and after them; each is of one luma:
/// 16 + 3 * number, from 1. Sound of a sine, a timecode.
inline void counting_movie(const std::filesystem::path& path, int frames, const std::string& rate = "25",
                           const std::string& more = "") {
    ffmpeg(
        fmt::format("-f lavfi -i \"color=black:s=64x48:r={0}:d=100,format=yuv420p,geq=lum='16+3*(N+1)':cb=128:cr=128\" "
                    "-f lavfi -i sine=f=440:d={1} -frames:v {2} -c:v libx264 -qp 0 -g 12 -bf 3 -pix_fmt yuv420p "
                    "-colorspace bt709 -color_primaries bt709 -color_trc bt709 -color_range tv -c:a pcm_s16le "
                    "-timecode 01:00:00:00 {3} '{4}'",
                    rate, frames / std::atof(rate.c_str()), frames, more, path.string()));
}

} // namespace kasuri::test
