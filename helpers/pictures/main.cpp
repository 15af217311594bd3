// Reads, writes and resizes pictures for Kasuri. What is asked and answered: core/wire/message.hpp.
#include "headers.hpp"
#include "io/profile.hpp"
#include "portable.hpp"
#include "serve.hpp"
#include "stored.hpp"

#include <algorithm>
#include <memory>
#include <vector>

using namespace kasuri;
using helpers::Caller;
using wire::Message;
using Kind = Message::Kind;

namespace {

/// The file that is read or written, until it is closed.
struct Desk {
    std::unique_ptr<OIIO::ImageInput> input;
    std::unique_ptr<OIIO::ImageOutput> output;
    std::string path;
    OIIO::ImageSpec spec;
    wire::Header header;
    int part = 0;
    std::vector<OIIO::ImageSpec> parts; ///< of a file that is written
    std::vector<int> rows;              ///< of each part, at a time
    std::vector<unsigned char> whole_numbers;
    helpers::Stored stored;
    helpers::BytesSum written; ///< what the file should hold so far
    bool names = false;        ///< its whole numbers of 32 bits name something
    bool failed = false;       ///< what was still under way when it did is passed over
};

void send_header(Desk& desk, Caller& caller) {
    desk.spec = desk.input->spec();
    desk.header = helpers::header_of(*desk.input, desk.spec);
    desk.names = desk.header.format == "openexr";
    if (desk.spec.tile_width > 0 && desk.input->seek_subimage(desk.part, 1)) {
        desk.header.set("oiio:levels", 1);
        desk.input->seek_subimage(desk.part, 0);
    }
    // The one who asks reads the profile, too: here first.
    if (const image::Attribute* profile = desk.header.find("ICCProfile")) {
        std::string reason;
        if (const auto made = io::read_profile(profile->data, reason); made && made->to_light)
            (void)made->to_light({0.25, 0.5, 0.75});
    }
    Message answer{Kind::header};
    answer.head = desk.header;
    (void)caller.link.send(answer);
}

std::unique_ptr<OIIO::ImageInput> opened(const std::string& path, const OIIO::ImageSpec& config) {
    if (auto own = helpers::open_portable(path))
        return own;
    return OIIO::ImageInput::open(path, &config);
}

void open(const Message& asked, Desk& desk, Caller& caller) {
    OIIO::ImageSpec config;
    config.attribute("oiio:UnassociatedAlpha", 1); // numbers as they are stored
    desk.path = asked.text;
    desk.input = opened(asked.text, config);
    if (!desk.input)
        return caller.failed(OIIO::geterror());
    desk.part = 0;
    send_header(desk, caller);
}

bool read_rows(const Desk& desk, int begin, int end, const OIIO::TypeDesc& type, void* to, int first, int last) {
    const OIIO::ImageSpec& s = desk.spec;
    return s.tile_width > 0
        ? desk.input->read_tiles(desk.part, 0, s.x, s.x + s.width, s.y + begin, s.y + end, s.z, s.z + 1, first, last,
                                 type, to)
        : desk.input->read_scanlines(desk.part, 0, s.y + begin, s.y + end, s.z, first, last, type, to);
}

/// Rows in one type; an EXR's whole numbers that name something as their bits, in floats.
bool read_rows(Desk& desk, int begin, int end, const OIIO::TypeDesc& type, void* to) {
    const OIIO::ImageSpec& s = desk.spec;
    if (!read_rows(desk, begin, end, type, to, 0, s.nchannels))
        return false;
    if (type.basetype != OIIO::TypeDesc::FLOAT || !desk.names || !helpers::Stored::names(s))
        return true;
    const auto pixels = static_cast<std::size_t>(end - begin) * static_cast<std::size_t>(s.width);
    desk.whole_numbers.resize(pixels * sizeof(float));
    for (int c = 0; c < s.nchannels; ++c) {
        const OIIO::TypeDesc own = s.channelformats.empty() ? s.format : s.channelformats[static_cast<std::size_t>(c)];
        if (own.basetype != OIIO::TypeDesc::UINT32)
            continue;
        if (!read_rows(desk, begin, end, own, desk.whole_numbers.data(), c, c + 1))
            return false;
        for (std::size_t p = 0; p < pixels; ++p)
            std::memcpy(static_cast<float*>(to) + p * static_cast<std::size_t>(s.nchannels) +
                            static_cast<std::size_t>(c),
                        desk.whole_numbers.data() + p * sizeof(float), sizeof(float));
    }
    return true;
}

/// Fills one slot after the other while the other side empties those before.
void pixels(const Message& asked, Desk& desk, Caller& caller) {
    if (!caller.slots.arrange(static_cast<std::size_t>(asked.n[0]), static_cast<int>(asked.n[1]), false))
        return caller.failed("", true);
    int out = 0, slot = 0;
    for (int y = 0; y < desk.spec.height; y += desk.header.rows) {
        const int end = std::min(y + desk.header.rows, desk.spec.height);
        for (Message freed; out == caller.slots.count(); --out)
            if (caller.link.receive(freed, std::chrono::milliseconds(-1)) != wire::Link::Outcome::message)
                return;
        if (!read_rows(desk, y, end, OIIO::TypeDesc::FLOAT, caller.slots.at(slot)))
            return caller.failed(desk.input->geterror());
        Message filled{Kind::filled};
        filled.n = {slot, y, end};
        (void)caller.link.send(filled);
        ++out;
        slot = (slot + 1) % caller.slots.count();
    }
    caller.say(Kind::done);
}

void create(const Message& asked, Desk& desk, Caller& caller) {
    if (!asked.head || !caller.slots.arrange(static_cast<std::size_t>(asked.n[0]), static_cast<int>(asked.n[1]), false))
        return caller.failed("", true);
    desk.path = asked.text;
    desk.header = *asked.head;
    desk.names = desk.header.format == "openexr";
    desk.spec = helpers::spec_of(desk.header);
    desk.parts = {desk.spec};
    desk.rows = {desk.header.rows};
    for (const wire::Header& part : asked.more_parts) {
        desk.parts.push_back(helpers::spec_of(part));
        desk.rows.push_back(part.rows);
    }
    desk.part = 0;
    desk.output =
        desk.header.format == "portable" ? helpers::make_portable() : OIIO::ImageOutput::create(desk.header.format);
    if (!desk.output)
        return caller.failed(OIIO::geterror());
    if (desk.parts.size() == 1 ? !desk.output->open(desk.path, desk.spec)
                               : !desk.output->open(desk.path, static_cast<int>(desk.parts.size()), desk.parts.data()))
        return caller.failed(desk.output->geterror());
    caller.say(Kind::done);
}

void write_rows(const Message& filled, Desk& desk, Caller& caller) {
    if (desk.failed || !desk.output)
        return;
    const auto begin = static_cast<int>(filled.n[1]), end = static_cast<int>(filled.n[2]),
               part = static_cast<int>(filled.n[3]);
    if (part != desk.part) {
        if (part != desk.part + 1 || part >= static_cast<int>(desk.parts.size()) ||
            !desk.output->open(desk.path, desk.parts[static_cast<std::size_t>(part)],
                               OIIO::ImageOutput::AppendSubimage)) {
            desk.failed = true;
            return caller.failed(desk.output->geterror());
        }
        desk.part = part;
        desk.spec = desk.parts[static_cast<std::size_t>(part)];
    }
    const auto pixels = static_cast<std::size_t>(end - begin) * static_cast<std::size_t>(desk.spec.width);
    const float* const values = caller.slots.at(static_cast<int>(filled.n[0]));
    const void* rows = desk.stored.of(desk.spec, values, pixels);
    desk.written.add(rows, helpers::Stored::bytes(desk.spec, pixels));
    OIIO::TypeDesc type = helpers::Stored::type(desk.spec);
    if (desk.names && helpers::Stored::names(desk.spec)) {
        rows = desk.stored.packed(desk.spec, values, pixels);
        type = OIIO::TypeDesc(); // each channel in its own
    }
    const OIIO::ImageSpec& s = desk.spec;
    if (s.tile_width > 0
            ? !desk.output->write_tiles(s.x, s.x + s.width, s.y + begin, s.y + end, s.z, s.z + 1, type, rows)
            : !desk.output->write_scanlines(s.y + begin, s.y + end, 0, type, rows)) {
        desk.failed = true;
        return caller.failed(desk.output->geterror());
    }
    caller.say(Kind::freed);
}

/// Where each channel that was written stands among those that are read: some formats keep an order of their own.
/// Empty: in the same order.
std::vector<std::size_t> places(const std::vector<std::string>& written, const std::vector<std::string>& read) {
    std::vector<std::size_t> all;
    for (const std::string& name : written) {
        const auto found = std::find(read.begin(), read.end(), name);
        if (found == read.end())
            return {}; // names of the format's own
        all.push_back(static_cast<std::size_t>(found - read.begin()));
    }
    return std::is_sorted(all.begin(), all.end()) ? std::vector<std::size_t>() : all;
}

void put_in_order(unsigned char* values, std::size_t size, std::size_t pixels, const std::vector<std::size_t>& from) {
    std::vector<unsigned char> pixel(from.size() * size);
    for (std::size_t p = 0; p < pixels && !from.empty(); ++p, values += pixel.size()) {
        for (std::size_t c = 0; c < from.size(); ++c)
            std::copy_n(values + from[c] * size, size, pixel.data() + c * size);
        std::copy(pixel.begin(), pixel.end(), values);
    }
}

/// Adds what a part of the file that was written holds to a sum. False: it is not as it was to be.
bool read_part(const OIIO::ImageSpec& asked, int at_a_time, Desk& desk, Caller& caller, helpers::BytesSum& read) {
    desk.spec = desk.input->spec();
    if (desk.spec.nchannels != asked.nchannels || desk.spec.width != asked.width || desk.spec.height != asked.height)
        return false;
    const std::vector<std::size_t> order = places(asked.channelnames, desk.spec.channelnames);
    const OIIO::TypeDesc type = helpers::Stored::type(asked);
    auto* const rows = reinterpret_cast<unsigned char*>(caller.slots.at(0));
    for (int y = 0; y < asked.height; y += at_a_time) {
        const int end = std::min(y + at_a_time, asked.height);
        const auto pixels = static_cast<std::size_t>(end - y) * static_cast<std::size_t>(asked.width);
        if (!read_rows(desk, y, end, type, rows))
            return false;
        put_in_order(rows, type.size(), pixels, order);
        const bool mixed =
            !asked.channelformats.empty(); // then once more the same way, so that NaN is NaN on both sides
        read.add(mixed ? desk.stored.of(asked, caller.slots.at(0), pixels) : rows,
                 helpers::Stored::bytes(asked, pixels));
        caller.say(Kind::alive);
    }
    return true;
}

void finish(const Message& asked_for, Desk& desk, Caller& caller) {
    if (desk.failed || !desk.output)
        return;
    if (!desk.output->close())
        return caller.failed(desk.output->geterror());
    desk.output.reset();
    // Some writers do not notice a disk that fails, and some readers take what is missing for black: what does not come
    // back as it was given was not written.
    OIIO::ImageSpec config;
    config.attribute("oiio:UnassociatedAlpha", 1);
    desk.input = opened(desk.path, config);
    if (!desk.input)
        return caller.failed("");
    helpers::BytesSum read;
    for (std::size_t part = 0; part < desk.parts.size(); ++part) {
        desk.part = static_cast<int>(part);
        if (!desk.input->seek_subimage(desk.part, 0) ||
            !read_part(desk.parts[part], desk.rows[part], desk, caller, read))
            return caller.failed("");
    }
    if (asked_for.n[0] != 0 && !(read == desk.written))
        return caller.failed("");
    caller.say(Kind::done);
}
void stretch(const Message& asked, Caller& caller) {
    if (!caller.slots.arrange(static_cast<std::size_t>(asked.n[0]), 2, false))
        return caller.failed("", true);
    const auto spec = [&](std::size_t at) {
        return OIIO::ImageSpec(static_cast<int>(asked.n[at]), static_cast<int>(asked.n[at + 1]), 1,
                               OIIO::TypeDesc::FLOAT);
    };
    const OIIO::ImageBuf from(spec(1), caller.slots.at(0));
    OIIO::ImageBuf to(spec(3), caller.slots.at(1));
    if (!OIIO::ImageBufAlgo::resize(to, from, "triangle"))
        return caller.failed(to.geterror());
    caller.say(Kind::done);
}

} // namespace

int main(int argc, char** argv) {
    Desk desk;
    return helpers::serve(argc, argv, [&desk](const Message& asked, Caller& caller) {
        switch (asked.kind) {
        case Kind::open: return open(asked, desk, caller);
        case Kind::part:
            if (!desk.input || !desk.input->seek_subimage(static_cast<int>(asked.n[0]), 0))
                return caller.say(Kind::none);
            desk.part = static_cast<int>(asked.n[0]);
            return send_header(desk, caller);
        case Kind::pixels:
            if (desk.input)
                return pixels(asked, desk, caller);
            return caller.failed("");
        case Kind::create: return create(asked, desk, caller);
        case Kind::filled: return write_rows(asked, desk, caller);
        case Kind::finish: return finish(asked, desk, caller);
        case Kind::stretch: return stretch(asked, caller);
        case Kind::close:
            desk = {};
            (void)OIIO::geterror();
            return caller.say(Kind::done);
        default: return; // a slot that was given back after the last row
        }
    });
}
