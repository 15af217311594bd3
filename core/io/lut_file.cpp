#include "io/lut_file.hpp"

#include "base/digest.hpp"
#include "base/file.hpp"
#include "base/file_kind.hpp"
#include "io/lut_check.hpp"
#include "io/ocio_shader.hpp"
#include "io/trial.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdlib>
#include <fmt/format.h>
#include <mutex>
#include <new>
#include <set>
#include <sstream>

namespace kasuri::io {
namespace {

constexpr std::size_t longest_lut = std::size_t{512} << 20;
constexpr std::uintmax_t longest_cdl = 16u << 20;

/// The library talks on standard error; what is wrong with a file is told by our errors.
void be_quiet() {
    static const bool done = [] {
        OCIO::SetLoggingLevel(OCIO::LOGGING_LEVEL_NONE);
        return true;
    }();
    (void)done;
}

/// What the library says, in a line: its first sentence, without what it knows a temporary file by.
std::string reason(const std::exception& e, const std::filesystem::path& file = {}) {
    constexpr std::size_t longest = 160;
    std::string text = e.what();
    for (std::size_t at = 0; !file.empty() && (at = text.find(file.string())) != std::string::npos;)
        text.replace(at, file.string().size(), "it");
    std::replace_if(
        text.begin(), text.end(), [](unsigned char c) { return c < ' ' || c == 127; }, ' ');
    if (text.find("could not be loaded") != std::string::npos)
        return said("no reader knows what is in it");
    if (const std::size_t end = text.find(". "); end != std::string::npos)
        text.resize(end);
    if (text.size() > longest)
        text = text.substr(0, longest) + "...";
    return text;
}

/// A folder that nobody else can look into, for as long as it lives.
struct OwnFolder {
    std::filesystem::path path;
    OwnFolder() {
        std::error_code none;
        std::string name = (std::filesystem::temp_directory_path(none) / "kasuri-XXXXXX").string();
        if (::mkdtemp(name.data()))
            path = name;
    }
    ~OwnFolder() {
        std::error_code none;
        if (!path.empty())
            std::filesystem::remove_all(path, none);
    }
    OwnFolder(const OwnFolder&) = delete;
    OwnFolder& operator=(const OwnFolder&) = delete;
};

class Processor final : public ir::External, public ShaderSource {
public:
    explicit Processor(OCIO::ConstProcessorRcPtr whole)
        : whole_(std::move(whole)), processor_(whole_->getOptimizedCPUProcessor(OCIO::OPTIMIZATION_LOSSLESS)) {}
    void apply(float* const planes[3], std::size_t count) const override {
        try {
            OCIO::PlanarImageDesc image(planes[0], planes[1], planes[2], nullptr, static_cast<long>(count), 1);
            processor_->apply(image);
        } catch (const std::exception&) { // it was tried before; numbers that are not converted must not pass for it
            fill_with_nan(planes, count);
        }
    }
    std::string identity() const override { return processor_->getCacheID(); }
    std::optional<ShaderCode> shader_code(const std::string& name) const override {
        return shader_code_of(whole_, name);
    }

private:
    OCIO::ConstProcessorRcPtr whole_;
    OCIO::ConstCPUProcessorRcPtr processor_;
};

OCIO::GroupTransformRcPtr group_of(const LutSteps& steps) {
    auto group = OCIO::GroupTransform::Create();
    if (steps.matrix) {
        auto matrix = OCIO::MatrixTransform::Create();
        double m44[16] = {}, offset[4] = {};
        for (std::size_t row = 0; row < 3; ++row) {
            for (std::size_t i = 0; i < 3; ++i)
                m44[4 * row + i] = (*steps.matrix)[row][i];
            offset[row] = (*steps.matrix)[row][3];
        }
        m44[15] = 1;
        matrix->setMatrix(m44);
        matrix->setOffset(offset);
        matrix->setFileInputBitDepth(OCIO::BIT_DEPTH_F32);
        matrix->setFileOutputBitDepth(OCIO::BIT_DEPTH_F32);
        group->appendTransform(matrix);
    }
    if (steps.log) {
        auto log = OCIO::LogAffineTransform::Create();
        const double a[3] = {steps.log->a, steps.log->a, steps.log->a},
                     b[3] = {steps.log->b, steps.log->b, steps.log->b};
        const double c[3] = {steps.log->c, steps.log->c, steps.log->c},
                     d[3] = {steps.log->d, steps.log->d, steps.log->d};
        log->setBase(2);
        log->setLogSideSlopeValue(a);
        log->setLinSideSlopeValue(b);
        log->setLinSideOffsetValue(c);
        log->setLogSideOffsetValue(d);
        group->appendTransform(log);
    }
    if (!steps.curves.empty()) {
        auto curves = OCIO::Lut1DTransform::Create(static_cast<unsigned long>(steps.curves.size()), false);
        for (std::size_t i = 0; i < steps.curves.size(); ++i)
            curves->setValue(static_cast<unsigned long>(i), steps.curves[i][0], steps.curves[i][1], steps.curves[i][2]);
        curves->setFileOutputBitDepth(OCIO::BIT_DEPTH_F32);
        group->appendTransform(curves);
    }
    if (steps.size > 0) {
        auto table = OCIO::Lut3DTransform::Create(static_cast<unsigned long>(steps.size));
        const auto n = static_cast<std::size_t>(steps.size);
        for (std::size_t b = 0; b < n; ++b)
            for (std::size_t g = 0; g < n; ++g)
                for (std::size_t r = 0; r < n; ++r) {
                    const auto& colour = steps.table[(b * n + g) * n + r];
                    table->setValue(static_cast<unsigned long>(r), static_cast<unsigned long>(g),
                                    static_cast<unsigned long>(b), colour[0], colour[1], colour[2]);
                }
        table->setInterpolation(OCIO::INTERP_TETRAHEDRAL);
        table->setFileOutputBitDepth(OCIO::BIT_DEPTH_F32);
        group->appendTransform(table);
    }
    return group;
}

void replace_first(std::string& text, std::string_view what, const std::string& by) {
    if (const std::size_t at = text.find(what); at != std::string::npos)
        text.replace(at, what.size(), by);
}

/// A name of its own for what was hashed: the same content has the same one. RFC 9562, 5.8: version 8, of own making.
std::string uuid_of(const Digest& digest) {
    auto [high, low] = digest.value();
    high = (high & ~std::uint64_t{0xF000}) | 0x8000;
    low = (low & ~(std::uint64_t{3} << 62)) | (std::uint64_t{2} << 62);
    return fmt::format("urn:uuid:{:08x}-{:04x}-{:04x}-{:04x}-{:012x}", high >> 32, high >> 16 & 0xFFFF, high & 0xFFFF,
                       low >> 48, low & 0xFFFFFFFFFFFFU);
}

void describe(OCIO::GroupTransform& group, const LutText& text) {
    OCIO::FormatMetadata& about = group.getFormatMetadata();
    about.setName(text.title.c_str());
    about.setID("kasuri");
    about.addChildElement("Description", text.title.c_str());
    for (const std::string& line : text.lines)
        about.addChildElement("Description", line.c_str());
    about.addChildElement("InputDescriptor", text.input.c_str());
    about.addChildElement("OutputDescriptor", text.output.c_str());
}

const char* name_of_baked(const std::string& ending) {
    for (int i = 0; i < OCIO::Baker::getNumFormats(); ++i)
        if ("." + std::string(OCIO::Baker::getFormatExtensionByIndex(i)) == ending)
            return OCIO::Baker::getFormatNameByIndex(i);
    return nullptr;
}

Result<std::uintmax_t> size_of(const std::filesystem::path& path, std::uintmax_t most) {
    std::error_code error;
    if (const Status readable = readable_file(path); !readable)
        return readable.error();
    const std::uintmax_t size = std::filesystem::file_size(path, error);
    if (error)
        return Error{said("cannot be read: {}", error.message()), path.string(), ""};
    if (size > most)
        return Error{said("is {} bytes long, more than any file of its kind", size), path.string(), ""};
    return size;
}

/// The library keeps what it has read, and a file of the same name may be another one now.
std::mutex one_at_a_time;

/// What `use` makes of the code of a LUT file.
template <class T, class Use>
Result<T> with_processor(std::string_view text, const std::string& ending, const std::string& where, const Use& use,
                         Interpolation interpolation = Interpolation::tetrahedral) {
    const std::lock_guard lock(one_at_a_time);
    be_quiet();
    const OwnFolder folder; // the library reads files only
    if (folder.path.empty())
        return Error{"cannot be read: there is no folder for temporary files", where, "Is its disk full?"};
    const std::filesystem::path file = folder.path / ("lut" + ending);
    if (const Status written = write_file(file, text); !written)
        return Error{written.error().what, where, written.error().remedy};
    try {
        OCIO::ClearAllCaches();
        auto transform = OCIO::FileTransform::Create();
        transform->setSrc(file.string().c_str());
        transform->setInterpolation(interpolation == Interpolation::trilinear ? OCIO::INTERP_LINEAR
                                                                              : OCIO::INTERP_BEST);
        return use(OCIO::Config::CreateRaw()->getProcessor(transform));
    } catch (const std::bad_alloc&) {
        return Error{"does not fit into memory", where, "Is the file whole?"};
    } catch (const std::exception& e) {
        return Error{said("cannot be understood: {}", reason(e, file)), where,
                     "It may be damaged, or of another kind than its ending says."};
    }
}

/// The steps before the first table, backwards: from its own 0 .. 1 to what comes in.
LutAxis axis_of(const OCIO::ConstProcessorRcPtr& processor) {
    const OCIO::GroupTransformRcPtr steps = processor->createGroupTransform();
    auto before = OCIO::GroupTransform::Create();
    LutAxis axis;
    bool found = false;
    for (int i = 0; i < steps->getNumTransforms() && !found; ++i) {
        const OCIO::TransformRcPtr step = steps->getTransform(i);
        const auto table = OCIO_DYNAMIC_POINTER_CAST<OCIO::Lut3DTransform>(step);
        if (table)
            axis.points = static_cast<int>(table->getGridSize());
        found = table || OCIO_DYNAMIC_POINTER_CAST<OCIO::Lut1DTransform>(step);
        if (!found)
            before->appendTransform(step->createEditableCopy());
    }
    if (!found || before->getNumTransforms() == 0)
        return axis;
    const auto back = OCIO::Config::CreateRaw()
                          ->getProcessor(before, OCIO::TRANSFORM_DIR_INVERSE)
                          ->getOptimizedCPUProcessor(OCIO::OPTIMIZATION_LOSSLESS);
    std::array<float, 3> ends{}; // of the axis, and its middle
    for (std::size_t i = 0; i < 3; ++i) {
        const float place = 0.5F * static_cast<float>(i);
        float pixel[3] = {place, place, place};
        back->applyRGB(pixel);
        if (pixel[0] != pixel[1] || pixel[0] != pixel[2] || !std::isfinite(pixel[0]))
            return {}; // each channel its own: there is no axis to speak of
        ends[i] = pixel[0];
    }
    axis.low = static_cast<double>(ends[0]);
    axis.high = static_cast<double>(ends[2]);
    if (std::fabs(ends[1] - 0.5F * (ends[0] + ends[2])) > 1e-5F * std::fabs(ends[2] - ends[0]))
        axis.points = 0; // not evenly apart
    return axis;
}

} // namespace

Result<std::string> clf_text(const std::string& ending, const LutSteps& steps, const LutText& text) {
    const char* const format = ending == ".ctf" ? "Color Transform Format" : "Academy/ASC Common LUT Format";
    std::ostringstream content;
    try {
        OCIO::GroupTransformRcPtr group = group_of(steps);
        if (group->getNumTransforms() == 0) { // a file needs a step: the matrix that changes nothing
            LutSteps nothing;
            nothing.matrix = {{{1, 0, 0, 0}, {0, 1, 0, 0}, {0, 0, 1, 0}}};
            group = group_of(nothing);
        }
        describe(*group, text);
        group->write(OCIO::Config::CreateRaw(), format, content);
    } catch (const std::exception& e) {
        return Error{said("cannot be written: {}", reason(e)), "", ""};
    }
    std::string made = content.str();
    Digest digest;
    digest.add(made);
    replace_first(made, "id=\"kasuri\"", "id=\"" + uuid_of(digest) + "\"");
    if (ending == ".clf") // SMPTE ST 2136-1:2024, 7.1 (the name of the namespace from memory)
        replace_first(made, "<ProcessList ", "<ProcessList xmlns=\"http://www.smpte-ra.org/ns/2136-1/2024\" ");
    return made;
}

std::vector<std::string> baked_endings() {
    std::set<std::string> endings;
    for (int i = 0; i < OCIO::Baker::getNumFormats(); ++i)
        endings.insert("." + std::string(OCIO::Baker::getFormatExtensionByIndex(i)));
    return {endings.begin(), endings.end()};
}

Result<std::string> baked_text(const std::string& ending, const LutSteps& steps, double low, double high) {
    const char* format = name_of_baked(ending);
    if (!format)
        return Error{"is not a kind of LUT that can be written", "",
                     said("Endings: {}.", fmt::join(baked_endings(), " "))};
    const bool unit = low == 0 && high == 1;
    // Of the formats that are baked these have a place for a domain; the others would leave it out without a word.
    if (!unit && ending != ".csp" && ending != ".lut")
        return Error{"files of this kind hold tables from 0 to 1 only", "",
                     "Choose .cube, .clf, .ctf, .csp or .lut, or the domain 0 to 1."};
    std::ostringstream content;
    try {
        OCIO::ConfigRcPtr config = OCIO::Config::CreateRaw()->createEditableCopy();
        auto in = OCIO::ColorSpace::Create(), out = OCIO::ColorSpace::Create(), even = OCIO::ColorSpace::Create();
        in->setName("in");
        out->setName("out");
        even->setName("even"); // the domain as 0 .. 1, over which the table's points are evenly apart
        out->setTransform(group_of(steps), OCIO::COLORSPACE_DIR_FROM_REFERENCE);
        if (!unit) {
            LutSteps domain;
            const double by = 1 / (high - low), offset = -low / (high - low);
            domain.matrix = {{{by, 0, 0, offset}, {0, by, 0, offset}, {0, 0, by, offset}}};
            even->setTransform(group_of(domain), OCIO::COLORSPACE_DIR_FROM_REFERENCE);
        }
        config->addColorSpace(in);
        config->addColorSpace(out);
        config->addColorSpace(even);
        auto baker = OCIO::Baker::Create();
        baker->setConfig(config);
        baker->setFormat(format);
        baker->setInputSpace("in");
        if (!unit)
            baker->setShaperSpace("even");
        baker->setTargetSpace("out");
        if (steps.size > 0)
            baker->setCubeSize(steps.size);
        baker->bake(content);
    } catch (const std::exception& e) {
        return Error{said("cannot be written: {}", reason(e)), "", "Choose .cube or .clf, which hold any table."};
    }
    return content.str();
}

Result<std::shared_ptr<const ir::External>> read_lut(const std::filesystem::path& path) {
    const Result<std::string> text = read_file(path, longest_lut);
    return text ? read_lut(text.value(), lower_ending(path), path.string()) : text.error();
}

Result<std::shared_ptr<const ir::External>> read_lut(std::string_view text, const std::string& ending,
                                                     const std::string& where, Interpolation interpolation) {
    if (const Status may = may_be_read_as_lut(text, ending, where); !may)
        return may.error();
    if (const Status tried = try_lut(text, ending, where); !tried)
        return tried.error();
    return read_lut_here(text, ending, where, interpolation);
}

Result<std::shared_ptr<const ir::External>> read_lut_here(std::string_view text, const std::string& ending,
                                                          const std::string& where, Interpolation interpolation) {
    return with_processor<std::shared_ptr<const ir::External>>(
        text, ending, where,
        [](const OCIO::ConstProcessorRcPtr& processor) {
            auto made = std::make_shared<Processor>(processor);
            float r = 0.25f, g = 0.5f, b = 0.75f;
            float* const planes[3] = {&r, &g, &b};
            made->apply(planes, 1);
            return std::shared_ptr<const ir::External>(std::move(made));
        },
        interpolation);
}

Result<LutAxis> lut_axis(const std::filesystem::path& path) {
    const Result<std::string> text = read_file(path, longest_lut);
    return text ? lut_axis(text.value(), lower_ending(path), path.string()) : text.error();
}

Result<LutAxis> lut_axis(std::string_view text, const std::string& ending, const std::string& where) {
    if (const Status may = may_be_read_as_lut(text, ending, where); !may)
        return may.error();
    if (const Status tried = try_lut(text, ending, where); !tried)
        return tried.error();
    return with_processor<LutAxis>(text, ending, where, axis_of);
}

Result<std::vector<Cdl>> read_cdl(const std::filesystem::path& path) {
    if (const auto size = size_of(path, longest_cdl); !size)
        return size.error();
    if (const Status tried = try_file(wire::Message::Kind::list, path); !tried)
        return tried.error();
    return read_cdl_here(path);
}

Result<std::vector<Cdl>> read_cdl_here(const std::filesystem::path& path) {
    be_quiet();
    try {
        OCIO::ClearAllCaches();
        const OCIO::ConstGroupTransformRcPtr group = OCIO::CDLTransform::CreateGroupFromFile(path.string().c_str());
        std::vector<Cdl> all;
        for (int i = 0; i < group->getNumTransforms(); ++i) {
            const OCIO::ConstTransformRcPtr transform = group->getTransform(i);
            const auto each = OCIO_DYNAMIC_POINTER_CAST<const OCIO::CDLTransform>(transform);
            if (!each)
                continue;
            Cdl cdl;
            each->getSlope(cdl.slope.data());
            each->getOffset(cdl.offset.data());
            each->getPower(cdl.power.data());
            cdl.saturation = each->getSat();
            cdl.id = each->getFormatMetadata().getID();
            cdl.description = each->getFirstSOPDescription();
            all.push_back(std::move(cdl));
        }
        if (all.empty())
            return Error{"has no colour correction in it", path.string(), ""};
        return all;
    } catch (const std::exception& e) {
        return Error{said("cannot be understood: {}", reason(e)), path.string(), ""};
    }
}

Status write_cdl(const std::filesystem::path& path, const Cdl& cdl) {
    std::ostringstream content;
    try {
        auto transform = OCIO::CDLTransform::Create();
        transform->setSlope(cdl.slope.data());
        transform->setOffset(cdl.offset.data());
        transform->setPower(cdl.power.data());
        transform->setSat(cdl.saturation);
        transform->getFormatMetadata().setID(cdl.id.empty() ? "kasuri" : cdl.id.c_str());
        if (!cdl.description.empty())
            transform->setFirstSOPDescription(cdl.description.c_str());
        auto group = OCIO::GroupTransform::Create();
        group->appendTransform(transform);
        const std::string ending = lower_ending(path);
        group->write(OCIO::Config::CreateRaw(),
                     ending == ".ccc"       ? "ColorCorrectionCollection"
                         : ending == ".cdl" ? "ColorDecisionList"
                                            : "ColorCorrection",
                     content);
    } catch (const std::exception& e) {
        return Error{said("cannot be written: {}", reason(e)), path.string(), ""};
    }
    return write_file(path, content.str());
}

} // namespace kasuri::io
