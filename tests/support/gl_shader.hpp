#pragma once
// Runs fragment shaders on whatever OpenGL there is without a window: on a build machine Mesa's software renderer.
#include <array>
#include <memory>
#include <string>
#include <vector>

namespace kasuri::test {

/// A texture of a program: `size` is width, height and depth (0: none of that), `values` red first, as many channels as
/// fit.
struct Texture {
    std::string name;
    std::array<int, 3> size{};
    int channels = 4;
    bool linear = false; ///< between its points
    std::vector<float> values;
};

struct Uniform {
    std::string name;
    std::vector<float> values; ///< one or three
};

/// A context of one kind: OpenGL 3.3 core or OpenGL ES 3.0. Use on the thread that made it.
class GlRunner {
public:
    /// Nothing where there is no such context; `why` says it.
    static std::unique_ptr<GlRunner> open(bool es, std::string& why);
    ~GlRunner();

    /// What a fragment shader writes into its one vec4 at each of width x height pixels, row by row. Empty if it is
    /// refused; `why` says it.
    std::vector<std::array<float, 4>> run(const std::string& text, int width, int height,
                                          const std::vector<Texture>& textures, const std::vector<Uniform>& uniforms,
                                          std::string& why);
    /// Whose renderer it is.
    std::string renderer() const;

private:
    struct Context;
    explicit GlRunner(std::unique_ptr<Context> context);
    std::unique_ptr<Context> context_;
};

} // namespace kasuri::test
