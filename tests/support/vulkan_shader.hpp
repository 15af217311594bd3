#pragma once
// Runs compute shaders on whatever Vulkan there is without a window: on a build machine Mesa's software driver.
#include <array>
#include <cstdint>
#include <memory>
#include <string>
#include <vector>

namespace kasuri::test {

class VulkanRunner {
public:
    /// Nothing where there is no driver; `why` says it.
    static std::unique_ptr<VulkanRunner> open(std::string& why);
    ~VulkanRunner();

    /// SPIR-V whose `main` reads colours from set 1, binding 0 and writes as many into set 1, binding 1 (std430, vec4),
    /// one an invocation, 64 in a group; set 0, binding 0 is a uniform block of these bytes. Empty if it is refused.
    std::vector<std::array<float, 4>> run(const std::vector<std::uint32_t>& program,
                                          const std::vector<std::array<float, 4>>& colours,
                                          const std::vector<std::uint8_t>& block, std::string& why);
    std::string renderer() const;

private:
    struct Device;
    explicit VulkanRunner(std::unique_ptr<Device> device);
    std::unique_ptr<Device> device_;
};

} // namespace kasuri::test
