#include "command.hpp"
#include "handover/batch.hpp"
#include "json.hpp"
#include "subject.hpp"

#include <csignal>
#include <fmt/format.h>
#include <memory>

namespace kasuri::cli {
namespace {

struct Options {
    RuleOptions rule;
    std::vector<std::string> files; ///< the last one is written
    std::string layer, in_space, out_space, frames, part, ending, depth;
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

int usage(const std::string& what) {
    fmt::print(stderr, "kasuri-cli render: {}\n", what);
    return Exit::usage;
}

void tell_json(const handover::BatchEvent& event) {
    using What = handover::BatchEvent::What;
    Json line = {{"in", event.item.in.string()},
                 {"out", event.item.out.string()},
                 {"what",
                  event.what == What::written    ? "written"
                      : event.what == What::left ? "left"
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
    print_json(line);
}

void tell_words(const handover::BatchEvent& event, bool many, bool quiet) {
    using What = handover::BatchEvent::What;
    for (const std::string& note : event.notes)
        fmt::print(stderr, "{}: note: {}\n", event.item.in.string(), note);
    if (event.clipped > 0 || event.not_finite > 0)
        fmt::print(stderr, "{}: note: {} channel values outside 0 .. 1 were clipped, {} were NaN or infinite\n",
                   event.item.out.string(), event.clipped, event.not_finite);
    if (event.error)
        fmt::print(stderr, "kasuri-cli: {}\n", event.error->text());
    if (many && !quiet && event.what != What::failed)
        fmt::print("{}/{}  {}{}  {:.0f} s left\n", event.done, event.all, event.item.out.string(),
                   event.what == What::left ? "  (there already)" : "", event.seconds_left);
    std::fflush(stdout);
}

int run(const Options& options) {
    const LoadedSubject what = load_subject(options.rule, "render");
    if (what.exit != Exit::good)
        return what.exit;
    if (!known_space(options.in_space) || !known_space(options.out_space))
        return Exit::usage;
    handover::BatchOrder order;
    order.inputs.assign(options.files.begin(), options.files.end() - 1);
    order.output = options.files.back();
    order.ending = options.ending.empty() || options.ending[0] == '.' ? options.ending : "." + options.ending;
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
    batch.job = {{}, {}, options.layer, options.in_space, {}, options.out_space};
    if (!options.depth.empty())
        batch.job.depth = image::find_depth(options.depth);
    const auto items = handover::batch_items(order);
    if (!items)
        return complain(items.error());
    batch.jobs = options.jobs;
    batch.resume = options.resume;
    const StopOnInterrupt stop;
    const bool many = items.value().size() > 1 || !options.part.empty();
    const handover::BatchReport report =
        handover::render_all(what.subject, items.value(), batch, stop.token, [&](const handover::BatchEvent& event) {
            if (options.json)
                tell_json(event);
            else
                tell_words(event, many, options.quiet);
        });
    if (options.json)
        print_json({{"written", report.written},
                    {"left", report.left},
                    {"failed", report.failed},
                    {"called-off", report.called_off},
                    {"seconds", report.seconds}});
    else if (many)
        fmt::print("{} written, {} there already, {} failed{} in {:.1f} s\n", report.written, report.left,
                   report.failed, report.called_off > 0 ? fmt::format(", {} called off", report.called_off) : "",
                   report.seconds);
    return report.failed > 0 || report.called_off > 0 ? Exit::input_output : Exit::good;
}

} // namespace

extern const Command render_command;
const Command render_command = {
    "render", "Apply a filter or a look to pictures (PNG, TIFF, EXR), folders or sequences, and write the results",
    [](Arguments& arguments) -> std::function<int()> {
        auto options = std::make_shared<Options>();
        options->rule.define(arguments, false);
        arguments
            .value("IN... OUT", options->files,
                   "What to read: pictures, folders, names with * ? or #### for frames in quotation marks; "
                   "last, what to write: a file, a folder, or a name with ####")
            .required()
            .expected(2, 1'000'000);
        arguments.value("--frames", options->frames, "Only these frames: 1-240, 1-240x2, 1,5,9-12");
        arguments.value("--part", options->part,
                        "Only this part of them, such as 3/8: every picture belongs to one part");
        arguments.value("--jobs", options->jobs, "Pictures at a time (default: one for each core)");
        arguments.flag("--resume", options->resume,
                       "Leave what is there, younger than its picture, and made by the same filter or look with the "
                       "same values, pictures and options");
        arguments.value("--ending", options->ending,
                        "Of what is written into a folder: png, tif, exr, dpx, jpg ... (default: as it came)");
        arguments
            .value("--depth", options->depth,
                   "Of the numbers that are written: 8 or 16 bits, half or float (default: as they came, as "
                   "far as the ending holds that)")
            .one_of({"8", "16", "half", "float"});
        define_json(arguments, options->json, "One JSON object a line for each picture, and one for all");
        arguments.flag("--quiet", options->quiet, "Only errors and notes");
        arguments.value("--layer", options->layer, "The layer to work on (default: the unnamed one, or the first)");
        arguments.value("--in-space", options->in_space,
                        "What the pictures' numbers mean (default: what the files say)");
        arguments.value("--out-space", options->out_space,
                        "The space to write (default: that of IN, or the usual one of OUT's kind)");
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
