#include "portable.hpp"

#include <algorithm>
#include <bit>
#include <cctype>
#include <cmath>
#include <cstdint>
#include <cstring>
#include <fstream>
#include <vector>

namespace kasuri::helpers {
namespace {

constexpr int most = 1 << 20; ///< of width or height

/// What stands before the numbers: a word, width, height, and the maximum or the scale; words are parted by white
/// space, and # begins a comment that ends with its line.
struct Head {
    std::string word;
    int width = 0, height = 0;
    double last = 0;
    std::streamoff end = 0;
    bool floats() const { return word == "PF" || word == "Pf"; }
    int channels() const { return word == "P6" || word == "PF" ? 3 : 1; }
    std::size_t bytes() const { return floats() ? 4 : last > 255 ? 2 : 1; }
};

bool read_head(std::istream& in, Head& head) {
    std::string words[4];
    for (std::string& word : words)
        for (int c = in.get();; c = in.get()) {
            if (c == std::istream::traits_type::eof() || word.size() > 20)
                return false;
            if (c == '#' && word.empty()) {
                while (c != '\n' && c != std::istream::traits_type::eof())
                    c = in.get();
            } else if (std::isspace(c) != 0) {
                if (!word.empty())
                    break; // one space follows the last word, and no more
            } else {
                word += static_cast<char>(c);
            }
        }
    head.word = words[0];
    head.end = in.tellg();
    const auto number = [](const std::string& text, double& value) {
        char* end = nullptr;
        value = std::strtod(text.c_str(), &end);
        return end != text.c_str() && *end == 0 && std::isfinite(value);
    };
    double width = 0, height = 0;
    if (!number(words[1], width) || !number(words[2], height) || !number(words[3], head.last) || width < 1 ||
        height < 1 || width > most || height > most || width != std::floor(width) || height != std::floor(height))
        return false;
    head.width = static_cast<int>(width);
    head.height = static_cast<int>(height);
    if (head.floats())
        return head.last != 0;
    return (head.word == "P5" || head.word == "P6") && head.last >= 1 && head.last <= 65535;
}

class Input final : public OIIO::ImageInput {
public:
    const char* format_name() const override { return "portable"; }

    bool open(const std::string& path, OIIO::ImageSpec& spec) override {
        file_.open(path, std::ios::binary);
        if (!file_ || !read_head(file_, head_) || (!head_.floats() && head_.last <= 255))
            return false;
        m_spec = OIIO::ImageSpec(head_.width, head_.height, head_.channels(),
                                 head_.floats() ? OIIO::TypeDesc::FLOAT : OIIO::TypeDesc::UINT16);
        if (head_.channels() == 1)
            m_spec.channelnames = {"Y"};
        spec = m_spec;
        return true;
    }

    bool close() override {
        file_.close();
        return true;
    }

    bool read_native_scanline(int, int, int y, int, void* data) override {
        const auto values = static_cast<std::size_t>(head_.width) * static_cast<std::size_t>(head_.channels());
        const std::size_t bytes = values * head_.bytes();
        const int row = head_.floats() ? head_.height - 1 - y : y; // floats stand from the bottom to the top
        file_.clear();
        file_.seekg(head_.end + static_cast<std::streamoff>(row) * static_cast<std::streamoff>(bytes));
        if (!file_.read(static_cast<char*>(data), static_cast<std::streamsize>(bytes))) {
            errorfmt("{}", "it ends too early");
            return false;
        }
        if (head_.floats())
            turn<std::uint32_t>(data, values, head_.last > 0); // above 0: the larger end first
        else
            turn<std::uint16_t>(data, values, true);
        auto* const numbers = static_cast<std::uint16_t*>(data);
        if (!head_.floats() && head_.last != 65535)
            for (std::size_t i = 0; i < values; ++i)
                numbers[i] = static_cast<std::uint16_t>(std::lround(std::min(1.0, numbers[i] / head_.last) * 65535));
        return true;
    }

private:
    template <class Word>
    static void turn(void* data, std::size_t count, bool big) {
        if (big == (std::endian::native == std::endian::big))
            return;
        auto* bytes = static_cast<unsigned char*>(data);
        for (std::size_t i = 0; i < count; ++i, bytes += sizeof(Word))
            std::reverse(bytes, bytes + sizeof(Word));
    }

    std::ifstream file_;
    Head head_;
};

class Output final : public OIIO::ImageOutput {
public:
    const char* format_name() const override { return "portable"; }

    bool open(const std::string& path, const OIIO::ImageSpec& spec, OpenMode) override {
        m_spec = spec;
        const bool floats = spec.format.basetype == OIIO::TypeDesc::FLOAT;
        if (spec.nchannels != 1 && spec.nchannels != 3) {
            errorfmt("{}", "it holds one channel or three");
            return false;
        }
        file_.open(path, std::ios::binary | std::ios::trunc);
        if (floats)
            file_ << (spec.nchannels == 3 ? "PF\n" : "Pf\n");
        else
            file_ << (spec.nchannels == 3 ? "P6\n" : "P5\n");
        file_ << spec.width << " " << spec.height << "\n"
              << (floats                                              ? "-1.0"
                      : spec.format.basetype == OIIO::TypeDesc::UINT8 ? "255"
                                                                      : "65535")
              << "\n";
        begin_ = file_.tellp();
        if (!file_)
            errorfmt("{}", "it cannot be opened");
        return static_cast<bool>(file_);
    }

    bool close() override {
        file_.close();
        const bool whole = !file_.fail();
        file_.clear();
        if (!whole)
            errorfmt("{}", "it was not written whole");
        return whole;
    }

    bool write_scanline(int y, int, OIIO::TypeDesc format, const void* data, OIIO::stride_t step) override {
        std::vector<unsigned char> scratch;
        const void* const native = to_native_scanline(format, data, step, scratch);
        const std::size_t bytes = m_spec.scanline_bytes(true);
        row_.assign(static_cast<const unsigned char*>(native), static_cast<const unsigned char*>(native) + bytes);
        const bool floats = m_spec.format.basetype == OIIO::TypeDesc::FLOAT;
        const std::size_t word = m_spec.format.size();
        // Whole numbers with the larger end first, floats with the smaller.
        if (floats ? std::endian::native == std::endian::big : std::endian::native != std::endian::big)
            for (std::size_t i = 0; i + word <= bytes; i += word)
                std::reverse(row_.begin() + static_cast<std::ptrdiff_t>(i),
                             row_.begin() + static_cast<std::ptrdiff_t>(i + word));
        const int row = floats ? m_spec.height - 1 - (y - m_spec.y) : y - m_spec.y;
        file_.seekp(begin_ + static_cast<std::streamoff>(row) * static_cast<std::streamoff>(bytes));
        file_.write(reinterpret_cast<const char*>(row_.data()), static_cast<std::streamsize>(bytes));
        if (!file_)
            errorfmt("{}", "there is no room for it");
        return static_cast<bool>(file_);
    }

private:
    std::ofstream file_;
    std::streamoff begin_ = 0;
    std::vector<unsigned char> row_;
};

} // namespace

std::unique_ptr<OIIO::ImageInput> open_portable(const std::string& path) {
    auto input = std::make_unique<Input>();
    OIIO::ImageSpec spec;
    return input->open(path, spec) ? std::unique_ptr<OIIO::ImageInput>(std::move(input)) : nullptr;
}

std::unique_ptr<OIIO::ImageOutput> make_portable() { return std::make_unique<Output>(); }

} // namespace kasuri::helpers
