// Colour models, readings, and what they measure, as rows of numbers.
#include "objects.hpp"

#include "base/text.hpp"
#include "builtins/model_types.hpp"
#include "handover/render.hpp"
#include "readings/reading.hpp"
#include "readings/rows.hpp"

#include <algorithm>
#include <memory>

using namespace kasuri;
using library::failed;
using library::guarded;

struct kasuri_measured {
    std::vector<readings::Panel> panels;
    std::vector<readings::Figure> figures;
    std::vector<readings::Rows> layers;
};

namespace {

const readings::Reading* reading_at(size_t index) {
    return index < readings::all().size() ? readings::all()[index] : nullptr;
}

/// The settings of texts "name=value"; nothing, and it says why, if one makes no sense.
std::optional<std::vector<double>> set_by(const readings::Reading& reading, const char* const* texts, size_t count,
                                          kasuri_said& said) {
    std::vector<double> set(reading.settings.size(), std::numeric_limits<double>::quiet_NaN()); // the usual ones
    for (size_t i = 0; i < count; ++i) {
        const std::string text = texts[i] ? texts[i] : "";
        const std::string name = text.substr(0, text.find('=')),
                          value = text.substr(std::min(text.size(), name.size() + 1));
        const auto found = std::find_if(reading.settings.begin(), reading.settings.end(),
                                        [&](const Setting& s) { return s.name == name; });
        if (found == reading.settings.end()) {
            said.line(text + ": there is no setting of that name");
            return std::nullopt;
        }
        const auto choice = std::find(found->choices.begin(), found->choices.end(), value);
        const std::optional<double> number =
            choice != found->choices.end() ? static_cast<double>(choice - found->choices.begin()) : parse_number(value);
        if (!number || !(*number >= found->low && *number <= found->high)) {
            said.line(text + (number ? ": outside of its range" : ": neither a number nor one of its choices"));
            return std::nullopt;
        }
        set[static_cast<std::size_t>(found - reading.settings.begin())] = *number;
    }
    return completed(reading.settings, set);
}

} // namespace

size_t kasuri_model_count(void) { return builtins::model_shapes().size(); }

kasuri_status kasuri_model_at(size_t index, kasuri_model* model) {
    if (!model || index >= kasuri_model_count())
        return KASURI_BAD_ARGUMENT;
    const lang::ModelShape& it = builtins::model_shapes()[index];
    *model = {
        it.name.data(), {it.components[0].data(), it.components[1].data(), it.components[2].data()}, it.doc.data()};
    return KASURI_OK;
}

size_t kasuri_reading_count(void) { return readings::all().size(); }

kasuri_status kasuri_reading_at(size_t index, kasuri_reading* reading) {
    const readings::Reading* it = reading_at(index);
    if (!it || !reading)
        return KASURI_BAD_ARGUMENT;
    *reading = {it->name.data(), it->title.data(), it->doc.data(), it->about == readings::About::pictures ? 1 : 0,
                it->settings.size()};
    return KASURI_OK;
}

kasuri_status kasuri_setting_at(size_t reading, size_t index, kasuri_setting* setting) {
    const readings::Reading* it = reading_at(reading);
    if (!it || !setting || index >= it->settings.size())
        return KASURI_BAD_ARGUMENT;
    const Setting& s = it->settings[index];
    *setting = {s.name.data(), s.doc.data(), s.value, s.low, s.high, s.choices.size()};
    return KASURI_OK;
}

const char* kasuri_setting_choice(size_t reading, size_t setting, size_t index) {
    const readings::Reading* it = reading_at(reading);
    if (!it || setting >= it->settings.size() || index >= it->settings[setting].choices.size())
        return nullptr;
    return it->settings[setting].choices[index].data();
}

kasuri_status kasuri_measure(const char* reading, const kasuri_filter* filter, const kasuri_picture* picture,
                             const char* const* settings, size_t count, kasuri_measured** measured,
                             kasuri_said** said) {
    return guarded(said, [&](kasuri_said& say) {
        if (!reading || !filter || !measured || (count > 0 && !settings))
            return failed(say, KASURI_BAD_ARGUMENT,
                          "there is no reading, no filter, or nowhere to put what is measured");
        *measured = nullptr;
        const readings::Reading* it = readings::find(reading);
        if (!it)
            return failed(say, KASURI_BAD_ARGUMENT, std::string("there is no reading ") + reading);
        const auto set = set_by(*it, settings, count, say);
        if (!set)
            return KASURI_BAD_ARGUMENT;
        const subject::Subject& subject = filter->subject;
        readings::Views views;
        readings::Order order;
        std::optional<image::Picture> made;
        if (it->about == readings::About::pictures) {
            auto copy = library::copied(picture, "the picture", say);
            if (!copy)
                return KASURI_BAD_ARGUMENT;
            if (copy->space.empty())
                copy->space = subject.space();
            for (const auto& [name, bound] : subject.bindings()) // one of another size would have to be stretched
                if (bound.picture && (bound.picture->width != copy->width || bound.picture->height != copy->height))
                    return failed(say, KASURI_BAD_ARGUMENT,
                                  "the picture of the source " + name + " is of another size");
            if (const auto missing = subject::without_picture(subject, nullptr); !missing.empty())
                return failed(say, KASURI_BAD_ARGUMENT, "no picture was given for the source " + missing.front());
            made = handover::applied(subject, *copy);
            order.pictures.push_back(&*made);
        } else if (!subject::without_picture(subject, nullptr).empty() || !subject.bindings().empty()) {
            return failed(say, KASURI_NOT_POSSIBLE,
                          "the filter reads further pictures: it has no one outcome for a colour");
        }
        order.rule = [&](image::Picture it_is) {
            it_is.space = subject.space();
            return handover::applied(subject, it_is);
        };
        order.working = subject.space();
        order.settings = *set;
        order.views = &views;
        const auto found = it->measure(order);
        if (!found)
            return KASURI_CALLED_OFF;
        auto all = std::make_unique<kasuri_measured>();
        all->panels = it->panels(*set);
        all->figures = found->figures;
        for (const readings::Layer& layer : found->layers)
            all->layers.push_back(readings::rows_of(layer));
        *measured = all.release();
        return KASURI_OK;
    });
}

void kasuri_measured_free(kasuri_measured* measured) { delete measured; }

size_t kasuri_figure_count(const kasuri_measured* measured) { return measured ? measured->figures.size() : 0; }

kasuri_status kasuri_figure_at(const kasuri_measured* measured, size_t index, kasuri_figure* figure) {
    if (!figure || index >= kasuri_figure_count(measured))
        return KASURI_BAD_ARGUMENT;
    const readings::Figure& it = measured->figures[index];
    *figure = {it.name.c_str(), it.of.c_str(), it.unit.c_str(), it.value};
    return KASURI_OK;
}

size_t kasuri_layer_count(const kasuri_measured* measured) { return measured ? measured->layers.size() : 0; }

kasuri_status kasuri_layer_at(const kasuri_measured* measured, size_t index, kasuri_layer* layer) {
    if (!layer || index >= kasuri_layer_count(measured))
        return KASURI_BAD_ARGUMENT;
    const readings::Rows& it = measured->layers[index];
    *layer = {it.kind.data(),
              it.name.c_str(),
              it.panel,
              it.numbers.size() / it.columns,
              it.columns,
              it.numbers.data(),
              {"", "", ""},
              {},
              {}};
    const readings::Panel& panel = measured->panels[it.panel];
    const readings::Axis* const axes[3] = {&panel.x, &panel.y, panel.z ? &*panel.z : nullptr};
    for (std::size_t i = 0; i < 3; ++i)
        if (axes[i]) {
            layer->axes[i] = axes[i]->title.c_str();
            layer->low[i] = axes[i]->low;
            layer->high[i] = axes[i]->high;
        }
    return KASURI_OK;
}
