#include "io/print.hpp"

#include "base/file.hpp"
#include "base/said.hpp"
#include "colour/adaptation.hpp"
#include "colour/difference.hpp"
#include "colour/space.hpp"
#include "io/lcms.hpp"
#include "ir/external.hpp"

#include <array>
#include <cmath>
#include <fstream>
#include <functional>
#include <iterator>
#include <numeric>

namespace kasuri::io {
namespace {

using colour::Matrix3;
using colour::Triple;
using colour::operator*;
using colour::times;

constexpr std::size_t most_inks = 15; ///< cmsMAXCHANNELS is one more

using Profile = ProfileHandle;
struct FreedTransform {
    void operator()(void* it) const { cmsDeleteTransform(it); }
};
using Transform = std::unique_ptr<void, FreedTransform>;

std::string four_letters(std::uint32_t signature) {
    std::string text;
    for (int shift = 24; shift >= 0; shift -= 8)
        text += static_cast<char>(signature >> shift & 255);
    return text;
}

class ByLcms final : public Press {
public:
    static Result<std::shared_ptr<const Press>> open(const std::filesystem::path& path) {
        if (const Status readable = readable_file(path); !readable)
            return readable.error();
        be_silent();
        std::ifstream in(path, std::ios::binary);
        const std::string bytes{std::istreambuf_iterator<char>(in), {}};
        const Profile profile(cmsOpenProfileFromMem(bytes.data(), static_cast<cmsUInt32Number>(bytes.size())));
        if (!profile)
            return Error{"is no ICC profile", path.string(), "Name the profile of a press or a printer (.icc, .icm)."};
        const cmsUInt32Number channels = cmsChannelsOf(cmsGetColorSpace(profile.get()));
        if (cmsGetDeviceClass(profile.get()) == cmsSigLinkClass || channels > most_inks ||
            !cmsIsIntentSupported(profile.get(), INTENT_RELATIVE_COLORIMETRIC, LCMS_USED_AS_OUTPUT) ||
            !cmsIsIntentSupported(profile.get(), INTENT_RELATIVE_COLORIMETRIC, LCMS_USED_AS_INPUT))
            return Error{"is a profile that does not say both what is printed for a colour and what colour is printed",
                         path.string(), "Name the profile of a press or a printer."};
        auto press = std::make_shared<ByLcms>();
        press->name_ = description(profile.get());
        press->space_ = four_letters(cmsGetColorSpace(profile.get()));
        press->channels_ = channels;
        press->whole_ = press->space_ == "RGB " || press->space_ == "GRAY" ? 1 : 100; // the library counts inks in %
        const Profile xyz(cmsCreateXYZProfile());
        const cmsUInt32Number device = cmsFormatterForColorspaceOfProfile(profile.get(), 0, true); // 0: double
        constexpr cmsUInt32Number exact = cmsFLAGS_NOCACHE | cmsFLAGS_NOOPTIMIZE;
        const auto there = [&](cmsUInt32Number intent, cmsUInt32Number more) {
            return Transform(cmsCreateTransform(xyz.get(), TYPE_XYZ_DBL, profile.get(), device, intent, exact | more));
        };
        const auto back = [&](cmsUInt32Number intent, cmsUInt32Number more) {
            return Transform(cmsCreateTransform(profile.get(), device, xyz.get(), TYPE_XYZ_DBL, intent, exact | more));
        };
        // Black of the picture becomes black of the ink on the way there; back again for the eye that has got used to
        // it.
        press->plain_there_ = there(INTENT_RELATIVE_COLORIMETRIC, 0);
        press->plain_back_ = back(INTENT_RELATIVE_COLORIMETRIC, 0);
        press->there_ = there(INTENT_RELATIVE_COLORIMETRIC, cmsFLAGS_BLACKPOINTCOMPENSATION);
        press->back_ = back(INTENT_RELATIVE_COLORIMETRIC, cmsFLAGS_BLACKPOINTCOMPENSATION);
        press->perceptual_there_ = there(INTENT_PERCEPTUAL, 0);
        press->paper_back_ = back(INTENT_ABSOLUTE_COLORIMETRIC, 0);
        for (const Transform* each : {&press->plain_there_, &press->plain_back_, &press->there_, &press->back_,
                                      &press->perceptual_there_, &press->paper_back_})
            if (!*each)
                return Error{"is a profile whose tables cannot be used", path.string(), "Is the file whole?"};
        const colour::Chromaticity d50 = connection_white();
        const colour::Space& standard = *colour::find_space(colour::default_space);
        press->to_pcs_ = times(adaptation(colour::bradford, colour::d65, d50), to_xyz(standard));
        press->from_pcs_ = times(from_xyz(standard), adaptation(colour::bradford, d50, colour::d65));
        return std::shared_ptr<const Press>(std::move(press));
    }

    Triple printed(const Triple& light, Way way) const override {
        const Transform& there = way == Way::perceptual ? perceptual_there_ : there_;
        const Transform& back = way == Way::on_paper ? paper_back_ : way == Way::relative ? back_ : plain_back_;
        return from_pcs_ * through(back, laid(there, to_pcs_ * light));
    }

    double beyond(const Triple& light) const override {
        const Triple wanted = to_pcs_ * light, made = through(plain_back_, laid(plain_there_, wanted));
        return colour::ciede2000(lab_of(wanted), lab_of(made));
    }

    std::vector<double> inks(const Triple& light) const override {
        const Device device = laid(there_, to_pcs_ * light);
        std::vector<double> all;
        for (std::size_t i = 0; i < channels_; ++i)
            all.push_back(device[i] / whole_);
        return all;
    }

    std::vector<std::vector<Triple>> edges(std::size_t steps) const override {
        std::vector<std::vector<Triple>> all;
        const auto add = [&](const Device& from, std::size_t along) {
            std::vector<Triple> line;
            for (std::size_t i = 0; i <= steps; ++i) {
                Device at = from;
                at[along] = whole_ * static_cast<double>(i) / static_cast<double>(steps);
                line.push_back(from_pcs_ * through(plain_back_, at));
            }
            all.push_back(std::move(line));
        };
        const std::size_t cube = std::min<std::size_t>(channels_, 3);
        for (std::size_t corner = 0; corner < std::size_t{1} << cube; ++corner) {
            Device at{};
            for (std::size_t c = 0; c < cube; ++c)
                at[c] = (corner >> c & 1) != 0 ? whole_ : 0;
            for (std::size_t c = 0; c < cube; ++c)
                if (at[c] == 0)
                    add(at, c);
            if (space_ == "CMYK")
                add(at, 3);
        }
        return all;
    }

    const std::string& name() const override { return name_; }
    const std::string& space() const override { return space_; }

private:
    using Device = std::array<double, most_inks + 1>;

    static Device laid(const Transform& there, const Triple& xyz) {
        const cmsCIEXYZ from{xyz[0], xyz[1], xyz[2]};
        Device device{};
        if (std::isfinite(xyz[0] + xyz[1] + xyz[2]))
            cmsDoTransform(there.get(), &from, device.data(), 1);
        else
            device.fill(std::nan(""));
        return device;
    }
    static Triple through(const Transform& back, const Device& device) {
        if (std::isnan(device[0]))
            return {std::nan(""), std::nan(""), std::nan("")};
        cmsCIEXYZ to{};
        cmsDoTransform(back.get(), device.data(), &to, 1);
        return {to.X, to.Y, to.Z};
    }
    static Triple lab_of(const Triple& xyz) {
        const cmsCIEXYZ from{xyz[0], xyz[1], xyz[2]};
        cmsCIELab to{};
        cmsXYZ2Lab(nullptr, &to, &from);
        return {to.L, to.a, to.b};
    }

    std::string name_, space_;
    std::size_t channels_ = 0;
    double whole_ = 1;
    Matrix3 to_pcs_{}, from_pcs_{};
    Transform plain_there_, plain_back_, there_, back_, perceptual_there_, paper_back_;
};

/// Light to the numbers of an sRGB display, as printed.
class Seen final : public ir::External {
public:
    Seen(std::shared_ptr<const Press> press, Press::Way way, std::string identity)
        : press_(std::move(press)), way_(way), identity_(std::move(identity)) {}
    void apply(float* const planes[3], std::size_t count) const override {
        const colour::Transfer& curve = *colour::find_transfer("srgb");
        for (std::size_t i = 0; i < count; ++i) {
            const Triple made = press_->printed({planes[0][i], planes[1][i], planes[2][i]}, way_);
            for (std::size_t c = 0; c < 3; ++c)
                planes[c][i] = static_cast<float>(curve.encode(made[c]));
        }
    }
    std::string identity() const override { return identity_; }

private:
    std::shared_ptr<const Press> press_;
    Press::Way way_;
    std::string identity_;
};

/// Light to how far it is outside, in the first plane.
class Beyond final : public ir::External {
public:
    Beyond(std::shared_ptr<const Press> press, std::string identity)
        : press_(std::move(press)), identity_(std::move(identity)) {}
    void apply(float* const planes[3], std::size_t count) const override {
        for (std::size_t i = 0; i < count; ++i)
            planes[0][i] = static_cast<float>(press_->beyond({planes[0][i], planes[1][i], planes[2][i]}));
    }
    std::string identity() const override { return identity_; }

private:
    std::shared_ptr<const Press> press_;
    std::string identity_;
};

/// A print is seen; what was printed is not known from it.
class NoWay final : public ir::External {
public:
    void apply(float* const planes[3], std::size_t count) const override {
        for (int c = 0; c < 3; ++c)
            std::fill_n(planes[c], count, std::nanf(""));
    }
    std::string identity() const override { return "no-way-back-from-a-print"; }
};

} // namespace

Result<std::shared_ptr<const Press>> Press::open(const std::filesystem::path& profile) { return ByLcms::open(profile); }

Result<std::vector<std::string>> add_prints(const std::filesystem::path& profile) {
    const auto press = Press::open(profile);
    if (!press)
        return press.error();
    std::ifstream in(profile, std::ios::binary);
    const std::string bytes{std::istreambuf_iterator<char>(in), {}};
    const std::string identity = std::to_string(std::hash<std::string>()(bytes)), stem = profile.stem().string();
    struct Row {
        const char* how;
        Press::Way way;
    };
    std::vector<std::string> names;
    for (const Row& row : {Row{"printed", Press::Way::relative}, Row{"printed, perceptual", Press::Way::perceptual},
                           Row{"on its paper", Press::Way::on_paper}}) {
        colour::AddedSpace view{stem + " " + row.how,
                                press.value()->name(),
                                said("ICC profile {}", profile.filename().string()),
                                colour::rec709_primaries,
                                colour::d65,
                                std::make_unique<NoWay>(),
                                std::make_unique<Seen>(press.value(), row.way, identity + row.how)};
        view.is_view = true;
        view.beyond = std::make_unique<Beyond>(press.value(), identity + "beyond");
        if (row.way == Press::Way::relative) {
            constexpr std::size_t steps = 12;
            view.edges = press.value()->edges(steps);
        }
        names.push_back(view.name);
        colour::add_space(std::move(view));
    }
    return names;
}

} // namespace kasuri::io
