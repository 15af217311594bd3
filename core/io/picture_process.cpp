#include "io/picture_process.hpp"

#include "base/memory.hpp"
#include "base/movie_name.hpp"

#include <algorithm>

namespace kasuri::io {
using wire::Message;
using Kind = Message::Kind;

namespace {

std::size_t band_bytes(const wire::Header& header) {
    return sizeof(float) * static_cast<std::size_t>(header.rows) * static_cast<std::size_t>(header.width) *
        header.channels.size();
}

/// Two, so that one is filled while the other is emptied; of very large ones a single one.
int slots_of(const wire::Header& header) {
    constexpr std::size_t large = std::size_t{256} << 20;
    return header.rows >= header.height || band_bytes(header) > large ? 1 : 2;
}

/// Small ones share what is there already, so that pages are touched once.
constexpr std::size_t usual_slot = std::size_t{16} << 20;

bool arrange(Helper& helper, std::size_t bytes, int count, Message& asked) {
    bytes = std::max(bytes, usual_slot);
    asked.n = {static_cast<std::int64_t>(bytes), count};
    return helper.slots().arrange(bytes, count, true);
}

/// What the library says, in which "it" stands for the file: its name is said once, by the error.
std::string about_it(std::string text, const std::string& file) {
    for (const std::string& name : {'"' + file + '"', '\'' + file + '\'', file})
        for (std::size_t at = 0; (at = text.find(name, at)) != std::string::npos; at += 2)
            text.replace(at, name.size(), "it");
    return text.substr(0, text.find_last_not_of(". ") + 1);
}

/// The helper forgets what is open, and may be asked by others.
void close(Helper& helper) {
    if (const Result<Message> answer = helper.ask({Kind::close}); answer && answer.value().kind == Kind::done)
        helper.rest();
}

} // namespace

Result<PictureSource> PictureSource::open(const std::filesystem::path& path) {
    const MovieFrame movie = movie_frame(path);
    const std::string where = movie.movie.empty() ? path.string() : movie.movie.string();
    Result<HelperLease> helper = HelperLease::of(movie.movie.empty() ? Task::pictures : Task::movies, where);
    if (!helper)
        return helper.error();
    Result<Message> answer = helper.value()->ask({Kind::open, where, movie.at});
    if (!answer)
        return answer.error();
    Message& said_by_it = answer.value();
    if (said_by_it.kind == Kind::header && said_by_it.head)
        return PictureSource(std::move(helper.value()), *std::move(said_by_it.head), where);
    if (said_by_it.n[0] == 1)
        return no_memory(where);
    if (!movie.movie.empty())
        return Error{said("cannot be read as a movie ({})", about_it(said_by_it.text, where)), where,
                     "Movies are read as far as FFmpeg's library reads them; is the file whole?"};
    return Error{said("cannot be read as a picture ({})", about_it(said_by_it.text, where)), where,
                 "PNG, TIFF and EXR can be read; is the file whole?"};
}

PictureSource::PictureSource(HelperLease helper, wire::Header header, std::string where)
    : helper_(std::move(helper)), header_(std::move(header)), where_(std::move(where)) {
    header_.rows = std::clamp(header_.rows, 1, std::max(header_.height, 1));
}

PictureSource::~PictureSource() {
    if (helper_ && !broken_)
        close(*helper_);
}

Result<bool> PictureSource::go_to(int part) {
    Message asked{Kind::part};
    asked.n[0] = part;
    Result<Message> answer = helper_->ask(asked);
    broken_ = !answer;
    if (!answer)
        return answer.error();
    if (answer.value().kind != Kind::header || !answer.value().head)
        return false;
    header_ = *std::move(answer.value().head);
    header_.rows = std::clamp(header_.rows, 1, std::max(header_.height, 1));
    return true;
}

double PictureSource::memory() const { return static_cast<double>(band_bytes(header_)) * slots_of(header_); }

Status PictureSource::read(const Take& take) {
    Helper& helper = *helper_;
    Message asked{Kind::pixels};
    if (!arrange(helper, band_bytes(header_), slots_of(header_), asked))
        return no_memory(where_);
    broken_ = true;
    Result<Message> answer = helper.ask(asked);
    for (int row = 0;; answer = helper.answer()) {
        if (!answer)
            return answer.error();
        const Message& got = answer.value();
        if (got.kind == Kind::failed)
            return got.n[0] == 1 ? no_memory(where_)
                                 : Error{said("cannot be read to its end ({})", about_it(got.text, where_)), where_,
                                         "The file may be cut short; copy it again."};
        if (got.kind == Kind::done && row == header_.height) {
            broken_ = false;
            return {};
        }
        // Whatever it says, only what is there is read.
        if (got.kind != Kind::filled || got.n[0] < 0 || got.n[0] >= helper.slots().count() || got.n[1] != row ||
            got.n[2] != std::min(row + header_.rows, header_.height))
            return Error{said("cannot be read to its end ({})", said("it said what nobody understands")), where_, ""};
        row = static_cast<int>(got.n[2]);
        take(static_cast<int>(got.n[1]), row, helper.slots().at(static_cast<int>(got.n[0])));
        if (const Status told = helper.tell({Kind::freed}); !told)
            return told.error();
    }
}

Status write_picture(const std::filesystem::path& path, std::vector<wire::Header> headers, const std::string& where,
                     bool exact, const std::function<void(std::size_t, int, int, float*)>& fill) {
    std::size_t bytes = 0;
    int slots = 2;
    for (wire::Header& header : headers) {
        const int block = header.tile_height > 0 ? header.tile_height : 64; // rows that compressors like together
        const auto row = sizeof(float) * static_cast<std::size_t>(std::max(header.width, 1)) * header.channels.size();
        const std::size_t blocks =
            std::max<std::size_t>(usual_slot / std::max<std::size_t>(row * static_cast<std::size_t>(block), 1), 1);
        header.rows = static_cast<int>(
            std::min<std::size_t>(blocks * static_cast<std::size_t>(block), static_cast<std::size_t>(header.height)));
        bytes = std::max(bytes, band_bytes(header));
        slots = std::min(slots, slots_of(header));
    }
    if (headers.size() > 1)
        slots = 2;
    const Result<HelperLease> lease = HelperLease::of(Task::pictures, where);
    if (!lease)
        return lease.error();
    Helper& helper = *lease.value();
    Message asked{Kind::create, path.string()};
    if (!arrange(helper, bytes, slots, asked))
        return no_memory(where);
    asked.head = headers.front();
    asked.more_parts.assign(headers.begin() + 1, headers.end());
    const auto answered = [&](const Result<Message>& answer, bool last) -> Status {
        if (!answer)
            return answer.error();
        const Message& got = answer.value();
        if (got.kind == Kind::done || got.kind == Kind::freed)
            return {};
        if (got.n[0] == 1)
            return no_memory(where);
        if (last && got.text.empty())
            return Error{"was not written whole", where, "Free some space and try again."};
        return Error{said("cannot be written ({})", about_it(got.text, path.string())), where,
                     "Is the folder writable, and is there space?"};
    };
    if (const Status made = answered(helper.ask(asked), false); !made)
        return made;
    int out = 0, slot = 0;
    for (std::size_t part = 0; part < headers.size(); ++part) {
        const int height = headers[part].height, rows = headers[part].rows;
        for (int y = 0; y < height; y += rows, slot = (slot + 1) % slots, ++out) {
            for (; out == slots; --out)
                if (const Status freed = answered(helper.answer(), false); !freed)
                    return freed;
            Message filled{Kind::filled};
            filled.n = {slot, y, std::min(y + rows, height), static_cast<std::int64_t>(part)};
            fill(part, y, static_cast<int>(filled.n[2]), helper.slots().at(slot));
            if (const Status told = helper.tell(filled); !told)
                return told;
        }
    }
    for (; out > 0; --out)
        if (const Status freed = answered(helper.answer(), false); !freed)
            return freed;
    Message last{Kind::finish};
    last.n[0] = exact ? 1 : 0;
    if (const Status closed = answered(helper.ask(last), true); !closed)
        return closed;
    close(helper);
    return {};
}

} // namespace kasuri::io
