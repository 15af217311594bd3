#include "support/vulkan_shader.hpp"

#include <algorithm>
#include <cstring>
#include <vulkan/vulkan.h>

namespace kasuri::test {

namespace {

template <class Info>
Info begun(VkStructureType type) {
    Info made{};
    made.sType = type;
    return made;
}

} // namespace

struct VulkanRunner::Device {
    VkInstance instance = VK_NULL_HANDLE;
    VkPhysicalDevice physical = VK_NULL_HANDLE;
    VkDevice device = VK_NULL_HANDLE;
    VkQueue queue = VK_NULL_HANDLE;
    VkCommandPool pool = VK_NULL_HANDLE;
    std::uint32_t family = 0;

    ~Device() {
        if (pool)
            vkDestroyCommandPool(device, pool, nullptr);
        if (device)
            vkDestroyDevice(device, nullptr);
        if (instance)
            vkDestroyInstance(instance, nullptr);
    }
};

namespace {

/// Memory that both sides see.
struct Buffer {
    VkDevice device;
    VkBuffer buffer = VK_NULL_HANDLE;
    VkDeviceMemory memory = VK_NULL_HANDLE;
    void* seen = nullptr;

    Buffer(VkDevice of, VkPhysicalDevice physical, std::size_t bytes, VkBufferUsageFlags usage) : device(of) {
        auto wanted = begun<VkBufferCreateInfo>(VK_STRUCTURE_TYPE_BUFFER_CREATE_INFO);
        wanted.size = bytes;
        wanted.usage = usage;
        vkCreateBuffer(device, &wanted, nullptr, &buffer);
        VkMemoryRequirements needs;
        vkGetBufferMemoryRequirements(device, buffer, &needs);
        VkPhysicalDeviceMemoryProperties kinds;
        vkGetPhysicalDeviceMemoryProperties(physical, &kinds);
        constexpr VkMemoryPropertyFlags both =
            VK_MEMORY_PROPERTY_HOST_VISIBLE_BIT | VK_MEMORY_PROPERTY_HOST_COHERENT_BIT;
        auto order = begun<VkMemoryAllocateInfo>(VK_STRUCTURE_TYPE_MEMORY_ALLOCATE_INFO);
        order.allocationSize = needs.size;
        for (std::uint32_t i = 0; i < kinds.memoryTypeCount; ++i)
            if ((needs.memoryTypeBits >> i & 1) != 0 && (kinds.memoryTypes[i].propertyFlags & both) == both)
                order.memoryTypeIndex = i;
        vkAllocateMemory(device, &order, nullptr, &memory);
        vkBindBufferMemory(device, buffer, memory, 0);
        vkMapMemory(device, memory, 0, VK_WHOLE_SIZE, 0, &seen);
    }
    Buffer(const Buffer&) = delete;
    Buffer& operator=(const Buffer&) = delete;
    ~Buffer() {
        vkDestroyBuffer(device, buffer, nullptr);
        vkFreeMemory(device, memory, nullptr);
    }
};

} // namespace

VulkanRunner::VulkanRunner(std::unique_ptr<Device> device) : device_(std::move(device)) {}
VulkanRunner::~VulkanRunner() = default;

std::string VulkanRunner::renderer() const {
    VkPhysicalDeviceProperties properties;
    vkGetPhysicalDeviceProperties(device_->physical, &properties);
    return properties.deviceName;
}

std::unique_ptr<VulkanRunner> VulkanRunner::open(std::string& why) {
    auto made = std::make_unique<Device>();
    const VkApplicationInfo application{
        VK_STRUCTURE_TYPE_APPLICATION_INFO, nullptr, "tests", 1, "tests", 1, VK_API_VERSION_1_0};
    auto wanted = begun<VkInstanceCreateInfo>(VK_STRUCTURE_TYPE_INSTANCE_CREATE_INFO);
    wanted.pApplicationInfo = &application;
    std::uint32_t one = 1;
    if (vkCreateInstance(&wanted, nullptr, &made->instance) != VK_SUCCESS ||
        vkEnumeratePhysicalDevices(made->instance, &one, &made->physical) < VK_SUCCESS || !made->physical) {
        why = "there is no Vulkan driver";
        return nullptr;
    }
    std::uint32_t count = 0;
    vkGetPhysicalDeviceQueueFamilyProperties(made->physical, &count, nullptr);
    std::vector<VkQueueFamilyProperties> families(count);
    vkGetPhysicalDeviceQueueFamilyProperties(made->physical, &count, families.data());
    const auto computes = std::find_if(families.begin(), families.end(),
                                       [](const auto& each) { return (each.queueFlags & VK_QUEUE_COMPUTE_BIT) != 0; });
    if (computes == families.end()) {
        why = "it does not compute";
        return nullptr;
    }
    made->family = static_cast<std::uint32_t>(computes - families.begin());
    const float priority = 1;
    auto queue = begun<VkDeviceQueueCreateInfo>(VK_STRUCTURE_TYPE_DEVICE_QUEUE_CREATE_INFO);
    queue.queueFamilyIndex = made->family;
    queue.queueCount = 1;
    queue.pQueuePriorities = &priority;
    auto device = begun<VkDeviceCreateInfo>(VK_STRUCTURE_TYPE_DEVICE_CREATE_INFO);
    device.queueCreateInfoCount = 1;
    device.pQueueCreateInfos = &queue;
    if (vkCreateDevice(made->physical, &device, nullptr, &made->device) != VK_SUCCESS) {
        why = "the device cannot be taken";
        return nullptr;
    }
    vkGetDeviceQueue(made->device, made->family, 0, &made->queue);
    auto pool = begun<VkCommandPoolCreateInfo>(VK_STRUCTURE_TYPE_COMMAND_POOL_CREATE_INFO);
    pool.queueFamilyIndex = made->family;
    vkCreateCommandPool(made->device, &pool, nullptr, &made->pool);
    return std::unique_ptr<VulkanRunner>(new VulkanRunner(std::move(made)));
}

std::vector<std::array<float, 4>> VulkanRunner::run(const std::vector<std::uint32_t>& program,
                                                    const std::vector<std::array<float, 4>>& colours,
                                                    const std::vector<std::uint8_t>& block, std::string& why) {
    VkDevice device = device_->device;
    auto code = begun<VkShaderModuleCreateInfo>(VK_STRUCTURE_TYPE_SHADER_MODULE_CREATE_INFO);
    code.codeSize = program.size() * 4;
    code.pCode = program.data();
    VkShaderModule module = VK_NULL_HANDLE;
    if (vkCreateShaderModule(device, &code, nullptr, &module) != VK_SUCCESS) {
        why = "the program is refused";
        return {};
    }
    const std::size_t bytes = colours.size() * sizeof colours[0];
    const Buffer in(device, device_->physical, bytes, VK_BUFFER_USAGE_STORAGE_BUFFER_BIT),
        out(device, device_->physical, bytes, VK_BUFFER_USAGE_STORAGE_BUFFER_BIT),
        values(device, device_->physical, std::max<std::size_t>(block.size(), 16), VK_BUFFER_USAGE_UNIFORM_BUFFER_BIT);
    std::memcpy(in.seen, colours.data(), bytes);
    if (!block.empty())
        std::memcpy(values.seen, block.data(), block.size());

    const VkDescriptorSetLayoutBinding first[] = {
        {0, VK_DESCRIPTOR_TYPE_UNIFORM_BUFFER, 1, VK_SHADER_STAGE_COMPUTE_BIT, nullptr}};
    const VkDescriptorSetLayoutBinding second[] = {
        {0, VK_DESCRIPTOR_TYPE_STORAGE_BUFFER, 1, VK_SHADER_STAGE_COMPUTE_BIT, nullptr},
        {1, VK_DESCRIPTOR_TYPE_STORAGE_BUFFER, 1, VK_SHADER_STAGE_COMPUTE_BIT, nullptr}};
    VkDescriptorSetLayout layouts[2] = {};
    for (int i = 0; i < 2; ++i) {
        auto layout = begun<VkDescriptorSetLayoutCreateInfo>(VK_STRUCTURE_TYPE_DESCRIPTOR_SET_LAYOUT_CREATE_INFO);
        layout.bindingCount = i == 0 ? 1 : 2;
        layout.pBindings = i == 0 ? first : second;
        vkCreateDescriptorSetLayout(device, &layout, nullptr, &layouts[i]);
    }
    auto shape = begun<VkPipelineLayoutCreateInfo>(VK_STRUCTURE_TYPE_PIPELINE_LAYOUT_CREATE_INFO);
    shape.setLayoutCount = 2;
    shape.pSetLayouts = layouts;
    VkPipelineLayout layout = VK_NULL_HANDLE;
    vkCreatePipelineLayout(device, &shape, nullptr, &layout);
    auto wanted = begun<VkComputePipelineCreateInfo>(VK_STRUCTURE_TYPE_COMPUTE_PIPELINE_CREATE_INFO);
    wanted.stage = begun<VkPipelineShaderStageCreateInfo>(VK_STRUCTURE_TYPE_PIPELINE_SHADER_STAGE_CREATE_INFO);
    wanted.stage.stage = VK_SHADER_STAGE_COMPUTE_BIT;
    wanted.stage.module = module;
    wanted.stage.pName = "main";
    wanted.layout = layout;
    VkPipeline pipeline = VK_NULL_HANDLE;
    if (vkCreateComputePipelines(device, VK_NULL_HANDLE, 1, &wanted, nullptr, &pipeline) != VK_SUCCESS)
        why = "no pipeline comes of it";

    const VkDescriptorPoolSize sizes[] = {{VK_DESCRIPTOR_TYPE_UNIFORM_BUFFER, 1},
                                          {VK_DESCRIPTOR_TYPE_STORAGE_BUFFER, 2}};
    auto room = begun<VkDescriptorPoolCreateInfo>(VK_STRUCTURE_TYPE_DESCRIPTOR_POOL_CREATE_INFO);
    room.maxSets = 2;
    room.poolSizeCount = 2;
    room.pPoolSizes = sizes;
    VkDescriptorPool pool = VK_NULL_HANDLE;
    vkCreateDescriptorPool(device, &room, nullptr, &pool);
    VkDescriptorSet sets[2] = {};
    auto order = begun<VkDescriptorSetAllocateInfo>(VK_STRUCTURE_TYPE_DESCRIPTOR_SET_ALLOCATE_INFO);
    order.descriptorPool = pool;
    order.descriptorSetCount = 2;
    order.pSetLayouts = layouts;
    vkAllocateDescriptorSets(device, &order, sets);
    const VkDescriptorBufferInfo infos[] = {
        {values.buffer, 0, VK_WHOLE_SIZE}, {in.buffer, 0, VK_WHOLE_SIZE}, {out.buffer, 0, VK_WHOLE_SIZE}};
    VkWriteDescriptorSet writes[3] = {};
    for (std::uint32_t i = 0; i < 3; ++i) {
        writes[i].sType = VK_STRUCTURE_TYPE_WRITE_DESCRIPTOR_SET;
        writes[i].dstSet = sets[i == 0 ? 0 : 1];
        writes[i].dstBinding = i == 2 ? 1 : 0;
        writes[i].descriptorCount = 1;
        writes[i].descriptorType = i == 0 ? VK_DESCRIPTOR_TYPE_UNIFORM_BUFFER : VK_DESCRIPTOR_TYPE_STORAGE_BUFFER;
        writes[i].pBufferInfo = &infos[i];
    }
    vkUpdateDescriptorSets(device, 3, writes, 0, nullptr);

    if (why.empty()) {
        VkCommandBuffer commands = VK_NULL_HANDLE;
        auto one = begun<VkCommandBufferAllocateInfo>(VK_STRUCTURE_TYPE_COMMAND_BUFFER_ALLOCATE_INFO);
        one.commandPool = device_->pool;
        one.level = VK_COMMAND_BUFFER_LEVEL_PRIMARY;
        one.commandBufferCount = 1;
        vkAllocateCommandBuffers(device, &one, &commands);
        auto begin = begun<VkCommandBufferBeginInfo>(VK_STRUCTURE_TYPE_COMMAND_BUFFER_BEGIN_INFO);
        vkBeginCommandBuffer(commands, &begin);
        vkCmdBindPipeline(commands, VK_PIPELINE_BIND_POINT_COMPUTE, pipeline);
        vkCmdBindDescriptorSets(commands, VK_PIPELINE_BIND_POINT_COMPUTE, layout, 0, 2, sets, 0, nullptr);
        vkCmdDispatch(commands, static_cast<std::uint32_t>((colours.size() + 63) / 64), 1, 1);
        vkEndCommandBuffer(commands);
        auto submit = begun<VkSubmitInfo>(VK_STRUCTURE_TYPE_SUBMIT_INFO);
        submit.commandBufferCount = 1;
        submit.pCommandBuffers = &commands;
        if (vkQueueSubmit(device_->queue, 1, &submit, VK_NULL_HANDLE) != VK_SUCCESS ||
            vkQueueWaitIdle(device_->queue) != VK_SUCCESS)
            why = "it was not run";
        vkFreeCommandBuffers(device, device_->pool, 1, &commands);
    }
    std::vector<std::array<float, 4>> made(colours.size());
    std::memcpy(made.data(), out.seen, bytes);
    vkDestroyDescriptorPool(device, pool, nullptr);
    vkDestroyPipeline(device, pipeline, nullptr);
    vkDestroyPipelineLayout(device, layout, nullptr);
    for (VkDescriptorSetLayout each : layouts)
        vkDestroyDescriptorSetLayout(device, each, nullptr);
    vkDestroyShaderModule(device, module, nullptr);
    return why.empty() ? made : std::vector<std::array<float, 4>>{};
}

} // namespace kasuri::test
