#include "base/memory.hpp"
#include "base/movie_name.hpp"
#include "command.hpp"
#include "handover/movie.hpp"
#include "json.hpp"
#include "streams.hpp"
#include "subject.hpp"

#include <csignal>
#include <fmt/format.h>
#include <memory>
#include <set>

namespace kasuri::cli {
namespace {

struct Options {
    RuleOptions rule;
    std::vector<std::string> files; ///< the last one is written
    std::string layer, in_space, out_space, frames, part, ending, depth, size, codec, rate;
    std::size_t jobs = 0;
    bool resume = false, json = false, quiet = false;
};

CancelToken* stopping = nullptr;

/// Ctrl+C, and what schedulers and closed terminals send, call the work off: what is being written never shows under
/// its name.
struct StopOnInterrupt {
    static constexpr int signals[] = {SIGINT, SIGTERM, SIGHUP};
    CancelToken token;
    StopOnInterrupt() {
        stopping = &token;
        for (const int each : signals)
            std::signal(each, [](int which) {
                if (stopping)
                    stopping->cancel();
                std::signal(which, SIG_DFL); // a second time at once
            });
    }
    ~StopOnInterrupt() {
        for (const int each : signals)
            std::signal(each, SIG_DFL);
        stopping = nullptr;
    }
};

using T = JsonType;
constexpr JsonField picture_line[] = {
    {"in", T::text, "what was read; empty: nothing, with --size"},
    {"out", T::text, "what was written"},
    {"what", T::text, "written, frame (of a movie that is being written), left (it was there) or failed"},
    {"done", T::whole, "pictures that are over"},
    {"all", T::whole, "of so many"},
    {"seconds", T::number, "since the beginning"},
    {"frame", T::whole, "its number", "of a sequence or a movie"},
    {"error", T::text, "why it failed", "where it failed"},
    {"notes", T::texts, "what was not as it should be", "where there is something"},
    {"clipped", T::whole, "channel values outside 0 .. 1 that were cut off", "where some were"},
    {"not-finite", T::whole, "channel values that were NaN or infinite", "where some were"},
};
constexpr JsonField answer[] = {
    {"written", T::whole, "pictures, or frames of a movie"},
    {"left", T::whole, "were there already (--resume)"},
    {"failed", T::whole, "could not be read or written"},
    {"called-off", T::whole, "not begun, for it was called off"},
    {"seconds", T::number, "it took"},
};

int usage(const std::string& what) { return refuse(Exit::usage, what); }

void tell_json(const handover::BatchEvent& event) {
    using What = handover::BatchEvent::What;
    Json line = {{"in", event.item.in.string()},
                 {"out", event.item.out.string()},
                 {"what",
                  event.what == What::written     ? "written"
                      : event.what == What::left  ? "left"
                      : event.what == What::frame ? "frame"
                                                  : "failed"},
                 {"done", event.done},
                 {"all", event.all},
                 {"seconds", event.seconds}};
    if (event.item.frame)
        line["frame"] = *event.item.frame;
    if (event.error)
        line["error"] = event.error->text();
    if (!event.notes.empty())
        line["notes"] = event.notes;
    if (event.clipped > 0)
        line["clipped"] = event.clipped;
    if (event.not_finite > 0)
        line["not-finite"] = event.not_finite;
    print_json_line(line);
    std::fflush(stdout); // a scheduler reads along
}

void tell_words(const handover::BatchEvent& event, bool many, bool quiet) {
    using What = handover::BatchEvent::What;
    static std::set<std::string> said_of_movies; // of each frame the same
    const std::filesystem::path movie = movie_frame(event.item.in).movie;
    for (const std::string& note : event.notes)
        if (movie.empty() || said_of_movies.insert(movie.string() + "\n" + note).second)
            say_note(event.item.in.string(), note);
    if (event.clipped > 0 || event.not_finite > 0)
        say_note(event.item.out.string(),
                 fmt::format("{} channel values outside 0 .. 1 were clipped, {} were NaN or infinite", event.clipped,
                             event.not_finite));
    if (event.error)
        complain(*event.error);
    if (many && !quiet && event.what != What::failed)
        fmt::print("{}/{}  {}{}  {:.0f} s left\n", event.done, event.all, event.item.out.string(),
                   event.what == What::left ? "  (there already)" : "", event.seconds_left);
    std::fflush(stdout);
}

bool piped(const Options& options) { return options.files.back() == standard_stream; }

/// What is written, or a file for what goes to standard output.
Result<std::string> output_of(const Options& options) {
    return piped(options) ? for_standard_output(dotted(options.ending)) : options.files.back();
}

/// A picture from nothing: of where a pixel is, and of further pictures.
int run_blank(const Options& options, const subject::Subject& subject) {
    constexpr std::int64_t most = std::int64_t{1} << 28;
    int width = 0, height = 0;
    char rest = 0;
    if (std::sscanf(options.size.c_str(), "%dx%d%c", &width, &height, &rest) != 2 || width < 1 || height < 1)
        return usage(fmt::format("--size {}: write 1920x1080", options.size));
    if (std::int64_t{width} * height > most)
        return usage(fmt::format("--size {}: more than {} pixels", options.size, most));
    if (options.files.size() != 1 || !options.frames.empty() || !options.part.empty() || options.resume)
        return usage("with --size there is one file, which is written, and no frames");
    if (piped(options) && options.ending.empty())
        return usage("--ending says what goes to standard output");
    const auto out = output_of(options);
    if (!out)
        return complain(out.error());
    if (piped(options) && options.json)
        return usage("standard output holds the picture or the JSON, not both");
    const auto began = std::chrono::steady_clock::now();
    handover::RenderJob job{{}, out.value(), {}, options.in_space, {}, options.out_space, width, height};
    if (!options.depth.empty())
        job.depth = image::find_depth(options.depth);
    const auto report = within_memory(out.value(), [&] { return handover::render(subject, job); });
    if (!report)
        return complain(report.error());
    for (const std::string& note : report.value().notes)
        say_note(out.value(), note);
    if (piped(options))
        if (const Status written = to_standard_output(out.value()); !written)
            return complain(written.error());
    if (options.json)
        return print_json(
            {{"written", 1},
             {"left", 0},
             {"failed", 0},
             {"called-off", 0},
             {"seconds", std::chrono::duration<double>(std::chrono::steady_clock::now() - began).count()}});
    return Exit::good;
}

int run(const Options& options) {
    const LoadedSubject what = load_subject(options.rule);
    if (what.exit != Exit::good)
        return what.exit;
    if (!known_space(options.in_space) || !known_space(options.out_space))
        return Exit::usage;
    if (!options.size.empty())
        return run_blank(options, what.subject);
    if (options.files.size() < 2)
        return usage(
            "render FILTER IN OUT: what is to be written? Without a picture that comes in, --size says how large");
    handover::BatchOrder order;
    std::vector<std::string> inputs(options.files.begin(), options.files.end() - 1);
    if (const Status there = take_standard_input(inputs); !there)
        return complain(there.error());
    order.inputs.assign(inputs.begin(), inputs.end());
    order.ending = dotted(options.ending);
    if (piped(options) && (order.ending.empty() || inputs.size() != 1 || options.json))
        return usage("to standard output goes one picture, of a kind that --ending says, and no --json");
    const auto out = output_of(options);
    if (!out)
        return complain(out.error());
    order.output = out.value();
    if (!options.frames.empty()) {
        const auto frames = handover::read_frames(options.frames);
        if (!frames)
            return usage(fmt::format("--frames {}: write 1-240, 1-240x2 or 1,5,9-12", options.frames));
        order.frames = *frames;
    }
    if (!options.part.empty()) {
        const auto part = handover::read_part(options.part);
        if (!part)
            return usage(fmt::format("--part {}: write 3/8 for the third of eight parts", options.part));
        order.part = *part;
    }
    handover::BatchOptions batch;
    batch.codec = options.codec;
    if (!options.rate.empty()) {
        batch.rate = handover::read_rate(options.rate);
        if (!batch.rate)
            return usage(fmt::format("--rate {}: write 24, 23.976 or 24000/1001", options.rate));
    }
    batch.job = {{}, {}, options.layer, options.in_space, {}, options.out_space};
    if (!options.depth.empty())
        batch.job.depth = image::find_depth(options.depth);
    const auto items = handover::batch_items(order);
    if (!items)
        return complain(items.error());
    batch.jobs = options.jobs;
    batch.resume = options.resume;
    const StopOnInterrupt stop;
    // Nothing but what is written goes to standard output.
    const bool many = !piped(options) &&
        (items.value().size() > 1 || !options.part.empty() ||
         (!items.value().empty() && !items.value().front().frames.empty()));
    const handover::BatchReport report =
        handover::render_all(what.subject, items.value(), batch, stop.token, [&](const handover::BatchEvent& event) {
            tell_words(event, many && !options.json, options.quiet);
            if (options.json)
                tell_json(event);
        });
    const bool whole = report.failed == 0 && report.called_off == 0;
    if (options.json)
        return print_json({{"written", report.written},
                           {"left", report.left},
                           {"failed", report.failed},
                           {"called-off", report.called_off},
                           {"seconds", report.seconds}},
                          whole ? Exit::good : Exit::input_output);
    if (many)
        fmt::print("{} written, {} there already, {} failed{} in {:.1f} s\n", report.written, report.left,
                   report.failed, report.called_off > 0 ? fmt::format(", {} called off", report.called_off) : "",
                   report.seconds);
    if (!whole)
        return Exit::input_output;
    if (piped(options))
        if (const Status written = to_standard_output(order.output); !written)
            return complain(written.error());
    return Exit::good;
}

} // namespace

extern const Command render_command;
const Command render_command = {
    "render", "Apply a filter or a look to pictures, movies, folders or sequences, and write the results",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(arguments, false);
        arguments
            .value(
                "IN... OUT", options->files,
                "What to read: pictures, movies (all their frames, or film.mov@120, film.mov@4.5s, "
                "film.mov@01:00:04:12), folders, names with * ? or #### for frames in quotation marks; "
                "last, what to write: a file, a movie, a folder, or a name with ####; - is standard input, or output")
            .required()
            .expected(1, 1'000'000);
        arguments.value(
            "--size", options->size,
            "WIDTHxHEIGHT: no picture comes in but black of so many pixels; for rules that make one of pos");
        arguments.value("--frames", options->frames, "Only these frames: 1-240, 1-240x2, 1,5,9-12");
        arguments.value("--part", options->part,
                        "Only this part of them, such as 3/8: every picture belongs to one part");
        arguments.value("--jobs", options->jobs, "Pictures at a time (default: one for each core)");
        arguments.flag("--resume", options->resume,
                       "Leave what is there, younger than its picture, and made by the same filter or look with the "
                       "same values, pictures and options");
        arguments.value("--ending", options->ending,
                        "Of what is written into a folder or to standard output: png, tif, exr, dpx, jpg ... (default: "
                        "as it came)");
        arguments
            .value("--depth", options->depth,
                   "Of the numbers that are written: 8 or 16 bits, half or float (default: as they came, as "
                   "far as the ending holds that)")
            .one_of({"8", "16", "half", "float"});
        arguments.value("--codec", options->codec,
                        "Of a movie that is written: prores422, prores4444 (.mov), ffv1 (.mkv)");
        arguments.value("--rate", options->rate,
                        "Frames in a second of a movie that is written: 24, 23.976, 24000/1001 (default: as it came, "
                        "or 24)");
        define_json(arguments, options->json, {answer, picture_line},
                    "One JSON object a line for each picture, then the answer: docs/json.md");
        arguments.flag("--quiet", options->quiet, "Only errors and notes");
        arguments.value("--layer", options->layer, "The layer to work on (default: the unnamed one, or the first)");
        arguments
            .value("--in-space", options->in_space, "What the pictures' numbers mean (default: what the files say)")
            .completes(Completes::space);
        arguments
            .value("--out-space", options->out_space,
                   "The space to write (default: that of IN, or the usual one of OUT's kind)")
            .completes(Completes::space);
        options->rule.define_sources(arguments);
        arguments.footer("A picture's space is what its file says, else sRGB for whole numbers and linear "
                         "BT.709 for floats\n"
                         "(kasuri-cli picture FILE tells). It is converted to the rule's working space and "
                         "back. A premultiplied picture is divided by its alpha first.\n"
                         "Every file appears whole or not at all; Ctrl+C leaves no half file. On a farm "
                         "every machine renders its own part, without any coordination:\n"
                         "#SBATCH --array=1-8\nkasuri-cli render river.kasurilook 'in/river.####.exr' out/ "
                         "--resume --part $SLURM_ARRAY_TASK_ID/8");
        return [options] { return run(*options); };
    }};

} // namespace kasuri::cli
