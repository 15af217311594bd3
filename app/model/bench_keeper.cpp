#include "model/bench_keeper.hpp"

#include <utility>

namespace kasuri::app {
namespace {

constexpr int soon_ms = 300;

/// A pin's source with its picture's path as it is kept, and back.
std::string kept_source(const std::string& source, const std::filesystem::path& filter) {
    const std::size_t mark = source.rfind('#');
    if (source.starts_with("target:") || mark == std::string::npos)
        return source;
    std::error_code error;
    const std::filesystem::path folder = std::filesystem::absolute(filter, error).parent_path();
    return std::filesystem::absolute(source.substr(0, mark), error).lexically_proximate(folder).string() +
        source.substr(mark);
}

std::string shown_source(const std::string& source, const std::filesystem::path& filter) {
    const std::size_t mark = source.rfind('#');
    const std::filesystem::path path = source.substr(0, mark);
    if (source.starts_with("target:") || mark == std::string::npos || path.is_absolute())
        return source;
    std::error_code error;
    return (std::filesystem::absolute(filter, error).parent_path() / path).lexically_normal().string() +
        source.substr(mark);
}

} // namespace

BenchKeeper::BenchKeeper(Session& session, LookModel& look, SheetModel& sheet, TakesModel& takes, Tuning& tuning,
                         ConfigUse& config, QObject* parent)
    : QObject(parent), session_(session), look_(look), sheet_(sheet), takes_(takes), tuning_(tuning), config_(config) {
    soon_.setSingleShot(true);
    soon_.setInterval(soon_ms);
    connect(&soon_, &QTimer::timeout, this, &BenchKeeper::write_now);
    connect(&session_, &Session::text_replaced, this, &BenchKeeper::another_document);
    connect(&session_, &Session::file_changed, this, &BenchKeeper::perhaps_renamed);
    connect(&takes_, &TakesModel::changed, this, &BenchKeeper::changed);
    connect(&tuning_, &Tuning::changed, this, &BenchKeeper::changed);
    connect(&config_, &ConfigUse::changed, this, &BenchKeeper::changed);
    connect(&sheet_, &SheetModel::pins_changed, this, &BenchKeeper::changed);
}

BenchKeeper::~BenchKeeper() { write_now(); }

document::BenchFile BenchKeeper::bench(const std::filesystem::path& filter) const {
    document::BenchFile bench;
    bench.takes = takes_.takes();
    for (const Pin& pin : sheet_.pins())
        bench.pins.push_back({pin.number, kept_source(pin.source, filter), pin.pixel.x(), pin.pixel.y()});
    bench.tuning = tuning_.arrangement();
    bench.context = config_.arrangement();
    bench.others = written_.others;
    return bench;
}

void BenchKeeper::take(const document::BenchFile& bench, const std::filesystem::path& filter) {
    taking_ = true;
    takes_.arrange(bench.takes);
    tuning_.arrange(bench.tuning);
    // The steps of one look share what one of them has.
    const std::filesystem::path look = look_.keeps_bench() ? look_.path() : std::filesystem::path();
    if (const bool same_look = !look.empty() && look == look_path_; !same_look || !bench.context.empty())
        config_.arrange(bench.context);
    look_path_ = look;
    if (!bench.pins.empty()) { // else those on the sheet go on measuring
        std::vector<Pin> pins;
        for (const document::KeptPin& pin : bench.pins)
            pins.push_back({pin.number, shown_source(pin.source, filter), QPoint(pin.x, pin.y)});
        sheet_.set_pins(std::move(pins));
    }
    taking_ = false;
}

void BenchKeeper::another_document() {
    write_now(); // of the one before
    path_ = session_.path();
    written_ = {};
    foreign_ = false;
    document::BenchFile found;
    if (look_.keeps_bench() && (!look_.step().bench.empty() || path_.empty())) {
        if (Result<document::BenchFile> kept = document::bench_of(look_.step().bench, look_.path().string()))
            found = std::move(kept.value());
    } else if (!path_.empty()) {
        Result<document::BenchFile> loaded = document::load_bench(path_);
        foreign_ = !loaded.ok();
        if (loaded)
            written_ = found = std::move(loaded.value());
        else
            emit failed(loaded.error());
    }
    take(found, path_);
}

void BenchKeeper::perhaps_renamed() {
    if (session_.path() == path_ || session_.path().empty() || look_.keeps_bench())
        return;
    path_ = session_.path(); // saved by another name: takes and pins go along
    written_ = {};
    foreign_ = false;
    due_ = true;
    write_now();
}

void BenchKeeper::changed() {
    if (taking_)
        return;
    if (look_.keeps_bench()) {
        document::BenchFile now = bench(path_);
        now.pins.clear(); // they are on the sheet, whatever step is active
        if (!now.empty() || !look_.step().bench.empty())
            look_.keep_bench(document::bench_text(now));
        return;
    }
    if (path_.empty())
        return;
    due_ = true;
    soon_.start();
}

void BenchKeeper::write_now() {
    soon_.stop();
    if (!std::exchange(due_, false) || path_.empty() || foreign_)
        return;
    const document::BenchFile now = bench(path_);
    if (document::bench_text(now) == document::bench_text(written_)) // as text: a value that is no number is itself
        return;
    // Another window may have written since this one read: what either did stays.
    const Result<document::BenchFile> there = document::load_bench(path_);
    if (!there) {
        foreign_ = true;
        emit failed(there.error());
        return;
    }
    document::BenchFile both = document::merged(written_, now, there.value());
    if (const Status saved = document::save_bench(path_, both); !saved) {
        emit failed(saved.error());
        return;
    }
    const bool more = !(both == now);
    written_ = std::move(both);
    if (more)
        take(written_, path_);
}

} // namespace kasuri::app
