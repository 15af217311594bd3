// kasuri._kasuri: the C header of libkasuri for Python. What is said to users is said in kasuri/__init__.py.
#include "kasuri.h"

#include <pybind11/numpy.h>
#include <pybind11/pybind11.h>
#include <pybind11/stl.h>

#include <chrono>
#include <condition_variable>
#include <memory>
#include <mutex>
#include <optional>
#include <string>
#include <thread>
#include <utility>
#include <vector>

namespace py = pybind11;

namespace {

template <auto End>
struct Ended {
    template <class Thing>
    void operator()(Thing* it) const {
        End(it);
    }
};
using Said = std::unique_ptr<kasuri_said, Ended<kasuri_said_free>>;
using Measured = std::unique_ptr<kasuri_measured, Ended<kasuri_measured_free>>;
using Proofs = std::unique_ptr<kasuri_proofs, Ended<kasuri_proofs_free>>;
using Call = std::unique_ptr<kasuri_call, Ended<kasuri_call_free>>;

/// Faults as dictionaries.
py::list faults_of(const kasuri_said* said) {
    py::list all;
    for (size_t i = 0; i < kasuri_fault_count(said); ++i) {
        kasuri_fault fault;
        kasuri_fault_at(said, i, &fault);
        py::list fixes;
        for (size_t k = 0; k < fault.fixes; ++k) {
            kasuri_fix fix;
            kasuri_fix_at(said, i, k, &fix);
            fixes.append(py::dict(py::arg("label") = fix.label, py::arg("text") = fix.text,
                                  py::arg("begin") = fix.begin, py::arg("end") = fix.end));
        }
        all.append(py::dict(py::arg("code") = fault.code, py::arg("severity") = fault.severity,
                            py::arg("message") = fault.message, py::arg("help") = fault.help,
                            py::arg("begin") = fault.begin, py::arg("end") = fault.end, py::arg("line") = fault.line,
                            py::arg("column") = fault.column, py::arg("fixes") = fixes));
    }
    return all;
}

/// Raises kasuri.Error (or RuleError, CalledOff) unless all is well.
void raise_unless_good(kasuri_status status, const kasuri_said* said) {
    if (status == KASURI_OK)
        return;
    if (status == KASURI_NO_MEMORY)
        throw std::bad_alloc();
    std::string words = kasuri_said_text(said);
    while (!words.empty() && words.back() == '\n')
        words.pop_back();
    const py::object raise = py::module_::import("kasuri._errors").attr("raised");
    raise(static_cast<int>(status), words.empty() ? kasuri_status_text(status) : words, faults_of(said));
}

const char* text_or_null(const std::optional<std::string>& text) { return text ? text->c_str() : nullptr; }

/// The address, shape and strides of an array as a picture. `channels`: of the last axis; 0: there is no such axis, it
/// is one channel. What cannot be said by strides has been copied before.
kasuri_picture picture_of(const py::array& array, bool has_channels, const std::optional<std::string>& space) {
    kasuri_picture picture{};
    const char kind = array.dtype().kind();
    const auto bytes = array.dtype().itemsize();
    picture.numbers = kind == 'f' ? (bytes == 4 ? KASURI_FLOAT32 : KASURI_FLOAT16)
        : bytes == 1              ? KASURI_UINT8
                                  : KASURI_UINT16;
    const py::ssize_t axes = array.ndim() - (has_channels ? 1 : 0);
    picture.width = axes > 0 ? static_cast<size_t>(array.shape(axes - 1)) : 1;
    picture.height = axes > 1 ? static_cast<size_t>(array.shape(axes - 2)) : 1;
    picture.pixel_stride = axes > 0 ? array.strides(axes - 1) : bytes;
    picture.row_stride =
        axes > 1 ? array.strides(axes - 2) : picture.pixel_stride * static_cast<ptrdiff_t>(picture.width);
    auto* data =
        static_cast<char*>(const_cast<void*>(array.data())); // only written where it is `out`, which is writable
    const py::ssize_t channels = has_channels ? array.shape(axes) : 1;
    for (py::ssize_t c = 0; c < channels && c < 4; ++c)
        picture.planes[c] = data + (has_channels ? c * array.strides(axes) : 0);
    picture.space = text_or_null(space);
    return picture;
}

class Filter {
public:
    static std::pair<std::unique_ptr<Filter>, py::list> compiled(const std::string& text,
                                                                 const std::optional<std::string>& folder) {
        return made([&](kasuri_filter** filter, kasuri_said** said) {
            return kasuri_compile(text.c_str(), text_or_null(folder), filter, said);
        });
    }
    static std::pair<std::unique_ptr<Filter>, py::list> opened(const std::string& path,
                                                               const std::optional<std::string>& space) {
        return made([&](kasuri_filter** filter, kasuri_said** said) {
            return kasuri_open(path.c_str(), text_or_null(space), filter, said);
        });
    }
    explicit Filter(kasuri_filter* filter) : it(filter) {}

    std::unique_ptr<Filter> copy() const {
        kasuri_filter* made = kasuri_copy(it.get());
        if (!made)
            throw std::bad_alloc();
        return std::make_unique<Filter>(made);
    }
    py::list parameters() const {
        py::list all;
        for (size_t i = 0; i < kasuri_parameter_count(it.get()); ++i) {
            kasuri_parameter p;
            kasuri_parameter_at(it.get(), i, &p);
            py::list choices;
            for (size_t k = 0; k < p.choices; ++k)
                choices.append(kasuri_choice_at(it.get(), i, k));
            all.append(py::dict(py::arg("name") = p.name, py::arg("title") = p.title,
                                py::arg("description") = p.description, py::arg("kind") = p.kind,
                                py::arg("value") = p.value, py::arg("usual") = p.usual, py::arg("low") = p.low,
                                py::arg("high") = p.high, py::arg("choices") = choices));
        }
        return all;
    }
    void set(const std::string& name, double value) {
        call([&](kasuri_said** s) { return kasuri_set(it.get(), name.c_str(), value, s); });
    }
    void set_text(const std::string& name, const std::string& value) {
        call([&](kasuri_said** s) { return kasuri_set_text(it.get(), name.c_str(), value.c_str(), s); });
    }
    void use_preset(const std::string& name) {
        call([&](kasuri_said** s) { return kasuri_use_preset(it.get(), name.c_str(), s); });
    }
    std::vector<std::string> presets() const {
        std::vector<std::string> all;
        for (size_t i = 0; i < kasuri_preset_count(it.get()); ++i)
            all.emplace_back(kasuri_preset_at(it.get(), i));
        return all;
    }
    py::list sources() const {
        py::list all;
        for (size_t i = 0; i < kasuri_source_count(it.get()); ++i) {
            kasuri_source s;
            kasuri_source_at(it.get(), i, &s);
            all.append(py::dict(py::arg("name") = s.name, py::arg("description") = s.description,
                                py::arg("channels") = s.channels, py::arg("given") = s.given != 0));
        }
        return all;
    }
    void give(const std::string& name, const std::optional<py::array>& array, bool has_channels,
              const std::optional<std::string>& space) {
        const kasuri_picture picture = array ? picture_of(*array, has_channels, space) : kasuri_picture{};
        call(
            [&](kasuri_said** s) { return kasuri_give_source(it.get(), name.c_str(), array ? &picture : nullptr, s); });
    }
    /// Others may run meanwhile, and set this one to other values: a copy does the work. What takes long is done on a
    /// thread of its own, so that Ctrl+C calls it off.
    void apply(const py::array& in, const py::array& out, bool has_channels, const std::optional<std::string>& in_space,
               const std::optional<std::string>& out_space, int threads) const {
        const kasuri_picture from = picture_of(in, has_channels, in_space),
                             to = picture_of(out, has_channels, out_space);
        const std::unique_ptr<Filter> mine = copy();
        kasuri_said* said = nullptr;
        kasuri_status status = KASURI_INTERNAL;
        constexpr size_t long_work = 4'000'000; // pixels
        if (from.width * from.height < long_work) {
            const py::gil_scoped_release others;
            status = kasuri_apply(mine->it.get(), &from, &to, threads, nullptr, &said);
        } else {
            status = mine->apply_interruptibly(from, to, threads, &said);
        }
        const Said words(said);
        raise_unless_good(status, words.get());
    }
    py::object matrix() const {
        py::array_t<double> m({3, 4});
        return kasuri_matrix(it.get(), m.mutable_data()) != 0 ? py::object(m) : py::none();
    }
    std::pair<bool, py::list> check() const {
        const std::unique_ptr<Filter> mine = copy();
        kasuri_proofs* found = nullptr;
        int holds = 0;
        call([&](kasuri_said** s) {
            const py::gil_scoped_release others;
            return kasuri_check(mine->it.get(), nullptr, &found, &holds, s);
        });
        const Proofs proofs(found);
        py::list all;
        for (size_t i = 0; i < kasuri_proof_count(found); ++i) {
            kasuri_proof p;
            kasuri_proof_at(found, i, &p);
            all.append(py::dict(
                py::arg("title") = p.title, py::arg("function") = p.function, py::arg("statement") = p.statement,
                py::arg("known") = p.known, py::arg("at") = p.at, py::arg("figure") = p.figure,
                py::arg("limit") = p.limit, py::arg("passed") = p.passed != 0, py::arg("proved") = p.proved != 0,
                py::arg("promised") = p.promised != 0, py::arg("before") = std::vector<float>(p.before, p.before + 4),
                py::arg("after") = std::vector<float>(p.after, p.after + 4), py::arg("samples") = p.samples,
                py::arg("bounded") = p.bounded != 0));
        }
        return {holds != 0, all};
    }
    std::pair<py::array_t<float>, py::dict> bake(size_t size, double low, double high,
                                                 const std::optional<std::string>& in_space,
                                                 const std::optional<std::string>& out_space) const {
        const std::unique_ptr<Filter> mine = copy();
        const auto n = static_cast<py::ssize_t>(size);
        py::array_t<float> table({n, n, n, py::ssize_t{3}});
        kasuri_lut_error error{};
        float* const colours = table.mutable_data();
        call([&](kasuri_said** s) {
            const py::gil_scoped_release others;
            return kasuri_bake(mine->it.get(), size, low, high, text_or_null(in_space), text_or_null(out_space),
                               colours, &error, s);
        });
        return {table, told(error)};
    }
    std::pair<py::bytes, py::dict> bake_file(const std::string& ending, size_t size, double low, double high,
                                             const std::optional<std::string>& in_space,
                                             const std::optional<std::string>& out_space) const {
        const std::unique_ptr<Filter> mine = copy();
        kasuri_lut_error error{};
        char* bytes = nullptr;
        size_t length = 0;
        call([&](kasuri_said** s) {
            const py::gil_scoped_release others;
            return kasuri_bake_file(mine->it.get(), ending.c_str(), size, low, high, text_or_null(in_space),
                                    text_or_null(out_space), &bytes, &length, &error, s);
        });
        const std::unique_ptr<char, Ended<kasuri_bytes_free>> owned(bytes);
        return {py::bytes(bytes, length), told(error)};
    }
    std::pair<py::list, py::list> measure(const std::string& reading, const std::optional<py::array>& array,
                                          bool has_channels, const std::optional<std::string>& space,
                                          const std::vector<std::string>& settings) const {
        const kasuri_picture picture = array ? picture_of(*array, has_channels, space) : kasuri_picture{};
        std::vector<const char*> texts;
        for (const std::string& text : settings)
            texts.push_back(text.c_str());
        const std::unique_ptr<Filter> mine = copy();
        kasuri_measured* found = nullptr;
        call([&](kasuri_said** s) {
            const py::gil_scoped_release others;
            return kasuri_measure(reading.c_str(), mine->it.get(), array ? &picture : nullptr, texts.data(),
                                  texts.size(), &found, s);
        });
        const Measured measured(found);
        py::list figures, layers;
        for (size_t i = 0; i < kasuri_figure_count(found); ++i) {
            kasuri_figure f;
            kasuri_figure_at(found, i, &f);
            figures.append(py::dict(py::arg("name") = f.name, py::arg("of") = f.of, py::arg("unit") = f.unit,
                                    py::arg("value") = f.value));
        }
        for (size_t i = 0; i < kasuri_layer_count(found); ++i) {
            kasuri_layer l;
            kasuri_layer_at(found, i, &l);
            py::list axes;
            for (int a = 0; a < 3; ++a)
                if (a < 2 || l.high[a] > l.low[a])
                    axes.append(py::make_tuple(l.axes[a], l.low[a], l.high[a]));
            layers.append(py::dict(
                py::arg("kind") = l.kind, py::arg("name") = l.name, py::arg("panel") = l.panel, py::arg("axes") = axes,
                py::arg("numbers") = py::array_t<double>(
                    {static_cast<py::ssize_t>(l.rows), static_cast<py::ssize_t>(l.columns)}, l.numbers)));
        }
        return {figures, layers};
    }

    std::unique_ptr<kasuri_filter, Ended<kasuri_filter_free>> it;

private:
    template <class Make>
    static std::pair<std::unique_ptr<Filter>, py::list> made(Make make) {
        kasuri_filter* filter = nullptr;
        kasuri_said* said = nullptr;
        const kasuri_status status = make(&filter, &said);
        const Said words(said);
        raise_unless_good(status, said);
        return {std::make_unique<Filter>(filter), faults_of(said)};
    }
    template <class Body>
    static void call(Body body) {
        kasuri_said* said = nullptr;
        const kasuri_status status = body(&said);
        const Said words(said);
        raise_unless_good(status, said);
    }
    static py::dict told(const kasuri_lut_error& error) {
        return py::dict(py::arg("mean") = error.mean, py::arg("most") = error.most, py::arg("largest") = error.largest,
                        py::arg("samples") = error.samples);
    }
    kasuri_status apply_interruptibly(const kasuri_picture& from, const kasuri_picture& to, int threads,
                                      kasuri_said** said) const {
        const Call call(kasuri_call_new());
        kasuri_status status = KASURI_INTERNAL;
        bool done = false;
        std::mutex mutex;
        std::condition_variable finished;
        std::thread work([&] {
            const kasuri_status made = kasuri_apply(it.get(), &from, &to, threads, call.get(), said);
            const std::lock_guard lock(mutex);
            status = made;
            done = true;
            finished.notify_all();
        });
        bool interrupted = false;
        {
            const py::gil_scoped_release others;
            std::unique_lock lock(mutex);
            while (!finished.wait_for(lock, std::chrono::milliseconds(50), [&] { return done; })) {
                lock.unlock();
                {
                    const py::gil_scoped_acquire ours;
                    interrupted = interrupted || PyErr_CheckSignals() != 0;
                }
                if (interrupted)
                    kasuri_call_off(call.get());
                lock.lock();
            }
            lock.unlock();
            work.join();
        }
        if (interrupted)
            throw py::error_already_set();
        return status;
    }
};

py::list models() {
    py::list all;
    for (size_t i = 0; i < kasuri_model_count(); ++i) {
        kasuri_model m;
        kasuri_model_at(i, &m);
        all.append(py::make_tuple(m.name, py::make_tuple(m.components[0], m.components[1], m.components[2]), m.doc));
    }
    return all;
}

py::list readings() {
    py::list all;
    for (size_t i = 0; i < kasuri_reading_count(); ++i) {
        kasuri_reading r;
        kasuri_reading_at(i, &r);
        py::list settings;
        for (size_t k = 0; k < r.settings; ++k) {
            kasuri_setting s;
            kasuri_setting_at(i, k, &s);
            std::vector<std::string> choices;
            for (size_t c = 0; c < s.choices; ++c)
                choices.emplace_back(kasuri_setting_choice(i, k, c));
            settings.append(py::make_tuple(s.name, s.doc, s.usual, s.low, s.high, choices));
        }
        all.append(py::make_tuple(r.name, r.title, r.doc, r.of_pictures != 0, settings));
    }
    return all;
}

} // namespace

PYBIND11_MODULE(_kasuri, module) {
    module.def("version", &kasuri_version);
    module.def("rest", [] { return kasuri_rest() != 0; });
    module.def("spaces", [] {
        std::vector<std::string> all;
        for (size_t i = 0; i < kasuri_space_count(); ++i)
            all.emplace_back(kasuri_space_at(i));
        return all;
    });
    module.def("models", &models);
    module.def("readings", &readings);
    module.def("compiled", &Filter::compiled);
    module.def("opened", &Filter::opened);
    py::class_<Filter>(module, "Filter")
        .def("copy", &Filter::copy)
        .def("title", [](const Filter& f) { return std::string(kasuri_title(f.it.get())); })
        .def("note", [](const Filter& f) { return std::string(kasuri_note(f.it.get())); })
        .def("space", [](const Filter& f) { return std::string(kasuri_space(f.it.get())); })
        .def("identity", [](Filter& f) { return std::string(kasuri_identity(f.it.get())); })
        .def("looks_at_places", [](const Filter& f) { return kasuri_looks_at_places(f.it.get()) != 0; })
        .def("parameters", &Filter::parameters)
        .def("presets", &Filter::presets)
        .def("sources", &Filter::sources)
        .def("set", &Filter::set)
        .def("set_text", &Filter::set_text)
        .def("use_preset", &Filter::use_preset)
        .def("reset", [](Filter& f) { kasuri_reset(f.it.get()); })
        .def("give", &Filter::give)
        .def("apply", &Filter::apply)
        .def("matrix", &Filter::matrix)
        .def("check", &Filter::check)
        .def("bake", &Filter::bake)
        .def("bake_file", &Filter::bake_file)
        .def("measure", &Filter::measure);
}
