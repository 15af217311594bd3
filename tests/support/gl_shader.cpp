#include "support/gl_shader.hpp"

#define EGL_NO_X11
#include <EGL/egl.h>
#include <EGL/eglext.h>
#include <GLES3/gl3.h>

#include <algorithm>

namespace kasuri::test {

// The functions that both kinds of context have, by their names.
#define KASURI_GL_FUNCTIONS(each)                                                                                      \
    each(GETSTRING, GetString) each(CREATESHADER, CreateShader) each(SHADERSOURCE, ShaderSource)                       \
        each(COMPILESHADER, CompileShader) each(GETSHADERIV, GetShaderiv) each(GETSHADERINFOLOG, GetShaderInfoLog)     \
            each(CREATEPROGRAM, CreateProgram) each(ATTACHSHADER, AttachShader) each(LINKPROGRAM, LinkProgram)         \
                each(GETPROGRAMIV, GetProgramiv) each(USEPROGRAM, UseProgram) each(DELETESHADER, DeleteShader)         \
                    each(DELETEPROGRAM, DeleteProgram) each(GENTEXTURES, GenTextures) each(BINDTEXTURE, BindTexture)   \
                        each(TEXIMAGE2D, TexImage2D) each(TEXIMAGE3D, TexImage3D) each(TEXPARAMETERI, TexParameteri)   \
                            each(ACTIVETEXTURE, ActiveTexture) each(DELETETEXTURES, DeleteTextures)                    \
                                each(GENFRAMEBUFFERS, GenFramebuffers) each(BINDFRAMEBUFFER, BindFramebuffer)          \
                                    each(FRAMEBUFFERTEXTURE2D, FramebufferTexture2D) each(VIEWPORT, Viewport)          \
                                        each(CHECKFRAMEBUFFERSTATUS, CheckFramebufferStatus)                           \
                                            each(DELETEFRAMEBUFFERS, DeleteFramebuffers)                               \
                                                each(GETUNIFORMLOCATION, GetUniformLocation)                           \
                                                    each(UNIFORM1I, Uniform1i) each(UNIFORM1F, Uniform1f)              \
                                                        each(UNIFORM3F, Uniform3f) each(DRAWARRAYS, DrawArrays)        \
                                                            each(READPIXELS, ReadPixels) each(GETERROR, GetError)      \
                                                                each(GENVERTEXARRAYS, GenVertexArrays)                 \
                                                                    each(BINDVERTEXARRAY, BindVertexArray)             \
                                                                        each(PIXELSTOREI, PixelStorei)

struct GlRunner::Context {
    EGLDisplay display = EGL_NO_DISPLAY;
    EGLContext context = EGL_NO_CONTEXT;
    bool es = false;
#define KASURI_MEMBER(type, name) PFNGL##type##PROC name = nullptr;
    KASURI_GL_FUNCTIONS(KASURI_MEMBER)

    ~Context() {
        if (display == EGL_NO_DISPLAY)
            return;
        eglMakeCurrent(display, EGL_NO_SURFACE, EGL_NO_SURFACE, EGL_NO_CONTEXT);
        if (context != EGL_NO_CONTEXT)
            eglDestroyContext(display, context);
    }

    GLuint shader(GLenum kind, const std::string& text, std::string& why) const {
        const GLuint made = CreateShader(kind);
        const char* const source = text.c_str();
        ShaderSource(made, 1, &source, nullptr);
        CompileShader(made);
        GLint good = 0;
        GetShaderiv(made, GL_COMPILE_STATUS, &good);
        if (good)
            return made;
        char words[2000] = {};
        GetShaderInfoLog(made, sizeof words - 1, nullptr, words);
        why = words;
        DeleteShader(made);
        return 0;
    }

    GLuint upload(const Texture& texture) const {
        GLuint made = 0;
        const GLenum kind = texture.size[2] > 0 ? GL_TEXTURE_3D : GL_TEXTURE_2D;
        GenTextures(1, &made);
        BindTexture(kind, made);
        PixelStorei(GL_UNPACK_ALIGNMENT, 1);
        constexpr GLint inner[] = {GL_R32F, GL_RG32F, GL_RGB32F, GL_RGBA32F};
        constexpr GLenum outer[] = {GL_RED, GL_RG, GL_RGB, GL_RGBA};
        const auto c = static_cast<std::size_t>(texture.channels - 1);
        if (kind == GL_TEXTURE_3D)
            TexImage3D(kind, 0, inner[c], texture.size[0], texture.size[1], texture.size[2], 0, outer[c], GL_FLOAT,
                       texture.values.data());
        else
            TexImage2D(kind, 0, inner[c], texture.size[0], std::max(texture.size[1], 1), 0, outer[c], GL_FLOAT,
                       texture.values.data());
        for (const GLenum which : {GL_TEXTURE_MIN_FILTER, GL_TEXTURE_MAG_FILTER})
            TexParameteri(kind, which, texture.linear ? GL_LINEAR : GL_NEAREST);
        for (const GLenum which : {GL_TEXTURE_WRAP_S, GL_TEXTURE_WRAP_T, GL_TEXTURE_WRAP_R})
            TexParameteri(kind, which, GL_CLAMP_TO_EDGE);
        return made;
    }
};

GlRunner::GlRunner(std::unique_ptr<Context> context) : context_(std::move(context)) {}
GlRunner::~GlRunner() = default;

std::string GlRunner::renderer() const { return reinterpret_cast<const char*>(context_->GetString(GL_RENDERER)); }

std::unique_ptr<GlRunner> GlRunner::open(bool es, std::string& why) {
    auto made = std::make_unique<Context>();
    made->es = es;
    const auto display_of =
        reinterpret_cast<PFNEGLGETPLATFORMDISPLAYEXTPROC>(eglGetProcAddress("eglGetPlatformDisplayEXT"));
    made->display = display_of ? display_of(EGL_PLATFORM_SURFACELESS_MESA, nullptr, nullptr) : EGL_NO_DISPLAY;
    if (made->display == EGL_NO_DISPLAY || !eglInitialize(made->display, nullptr, nullptr)) {
        why = "there is no EGL without a surface";
        made->display = EGL_NO_DISPLAY;
        return nullptr;
    }
    eglBindAPI(es ? EGL_OPENGL_ES_API : EGL_OPENGL_API);
    const EGLint wanted[] = {EGL_SURFACE_TYPE, EGL_PBUFFER_BIT, EGL_RENDERABLE_TYPE,
                             es ? EGL_OPENGL_ES3_BIT : EGL_OPENGL_BIT, EGL_NONE};
    EGLConfig config{};
    EGLint count = 0;
    eglChooseConfig(made->display, wanted, &config, 1, &count);
    const EGLint core[] = {EGL_CONTEXT_MAJOR_VERSION,
                           3,
                           EGL_CONTEXT_MINOR_VERSION,
                           es ? 0 : 3,
                           es ? EGL_NONE : EGL_CONTEXT_OPENGL_PROFILE_MASK,
                           EGL_CONTEXT_OPENGL_CORE_PROFILE_BIT,
                           EGL_NONE};
    made->context = count > 0 ? eglCreateContext(made->display, config, EGL_NO_CONTEXT, core) : EGL_NO_CONTEXT;
    if (made->context == EGL_NO_CONTEXT ||
        !eglMakeCurrent(made->display, EGL_NO_SURFACE, EGL_NO_SURFACE, made->context)) {
        why = "there is no such context";
        return nullptr;
    }
#define KASURI_LOAD(type, name)                                                                                        \
    made->name = reinterpret_cast<PFNGL##type##PROC>(eglGetProcAddress("gl" #name));                                   \
    if (!made->name) {                                                                                                 \
        why = "there is no gl" #name;                                                                                  \
        return nullptr;                                                                                                \
    }
    KASURI_GL_FUNCTIONS(KASURI_LOAD)
    GLuint array = 0;
    made->GenVertexArrays(1, &array);
    made->BindVertexArray(array);
    return std::unique_ptr<GlRunner>(new GlRunner(std::move(made)));
}

std::vector<std::array<float, 4>> GlRunner::run(const std::string& text, int width, int height,
                                                const std::vector<Texture>& textures,
                                                const std::vector<Uniform>& uniforms, std::string& why) {
    const Context& gl = *context_;
    if (!eglMakeCurrent(gl.display, EGL_NO_SURFACE, EGL_NO_SURFACE, gl.context)) {
        why = "the context cannot be taken";
        return {};
    }
    // One triangle over all of it.
    const std::string vertex = (gl.es ? "#version 300 es\n" : "#version 330 core\n") +
        std::string("void main() { gl_Position = vec4(gl_VertexID == 1 ? 3.0 : -1.0, gl_VertexID == 2 ? 3.0 : -1.0, "
                    "0.0, 1.0); }\n");
    const GLuint a = gl.shader(GL_VERTEX_SHADER, vertex, why), b = gl.shader(GL_FRAGMENT_SHADER, text, why);
    if (!a || !b)
        return {};
    const GLuint program = gl.CreateProgram();
    gl.AttachShader(program, a);
    gl.AttachShader(program, b);
    gl.LinkProgram(program);
    gl.DeleteShader(a);
    gl.DeleteShader(b);
    GLint good = 0;
    gl.GetProgramiv(program, GL_LINK_STATUS, &good);
    if (!good) {
        why = "it cannot be linked";
        return {};
    }
    gl.UseProgram(program);
    std::vector<GLuint> bound;
    GLuint target = 0, frame = 0;
    gl.GenTextures(1, &target);
    gl.ActiveTexture(GL_TEXTURE0);
    gl.BindTexture(GL_TEXTURE_2D, target);
    gl.TexImage2D(GL_TEXTURE_2D, 0, GL_RGBA32F, width, height, 0, GL_RGBA, GL_FLOAT, nullptr);
    gl.GenFramebuffers(1, &frame);
    gl.BindFramebuffer(GL_FRAMEBUFFER, frame);
    gl.FramebufferTexture2D(GL_FRAMEBUFFER, GL_COLOR_ATTACHMENT0, GL_TEXTURE_2D, target, 0);
    if (gl.CheckFramebufferStatus(GL_FRAMEBUFFER) != GL_FRAMEBUFFER_COMPLETE)
        why = "floats cannot be drawn";
    for (std::size_t i = 0; i < textures.size(); ++i) {
        gl.ActiveTexture(static_cast<GLenum>(GL_TEXTURE0 + i));
        bound.push_back(gl.upload(textures[i]));
        gl.Uniform1i(gl.GetUniformLocation(program, textures[i].name.c_str()), static_cast<GLint>(i));
    }
    for (const Uniform& uniform : uniforms) {
        const GLint at = gl.GetUniformLocation(program, uniform.name.c_str());
        if (uniform.values.size() == 3)
            gl.Uniform3f(at, uniform.values[0], uniform.values[1], uniform.values[2]);
        else
            gl.Uniform1f(at, uniform.values[0]);
    }
    gl.Viewport(0, 0, width, height);
    gl.DrawArrays(GL_TRIANGLES, 0, 3);
    std::vector<std::array<float, 4>> made(static_cast<std::size_t>(width) * static_cast<std::size_t>(height));
    gl.ReadPixels(0, 0, width, height, GL_RGBA, GL_FLOAT, made.data());
    if (const GLenum fault = gl.GetError(); fault != GL_NO_ERROR && why.empty())
        why = "error " + std::to_string(fault);
    gl.DeleteFramebuffers(1, &frame);
    gl.DeleteTextures(1, &target);
    gl.DeleteTextures(static_cast<GLsizei>(bound.size()), bound.data());
    gl.DeleteProgram(program);
    return why.empty() ? made : std::vector<std::array<float, 4>>{};
}

} // namespace kasuri::test
