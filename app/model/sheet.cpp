#include "model/sheet.hpp"

#include "base/memory.hpp"
#include "handover/render.hpp"
#include "model/background.hpp"
#include "model/file_names.hpp"
#include "model/words.hpp"

#include <QCoreApplication>
#include <QPointer>

#include <algorithm>
#include <new>

namespace kasuri::app {

SheetModel::SheetModel(QObject* parent) : QObject(parent) {
    for (const char* name : {"grey_ramp", "saturation_ramp", "hue_sweep"})
        arrangement_.strips.push_back({next_id_++, targets::find(name)});
}

const Cell* SheetModel::find(int id) const {
    const auto found =
        std::find_if(arrangement_.cells.begin(), arrangement_.cells.end(), [id](const Cell& c) { return c.id == id; });
    return found == arrangement_.cells.end() ? nullptr : &*found;
}

Cell& SheetModel::at(int id) {
    return *std::find_if(arrangement_.cells.begin(), arrangement_.cells.end(),
                         [id](const Cell& c) { return c.id == id; });
}

QString SheetModel::title(const Cell& cell) const {
    QString name = cell.target ? words(cell.target->title) : text_of(std::filesystem::path(cell.picture).stem());
    if (!cell.target && !cell.layer.empty())
        name += ", " + QString::fromStdString(cell.layer);
    if (const auto& take = take_of(cell))
        name += QString::fromUtf8(" \u00b7 ") + tr("take %1").arg(QString::fromStdString(take->name));
    return name;
}

QStringList SheetModel::layers_of(const Cell& cell) const {
    QStringList names;
    if (const auto found = images_.find(cell.picture); found != images_.end() && found->second)
        for (const std::string& layer : image::layers(*found->second))
            names << QString::fromStdString(layer);
    return names;
}

PicturePtr SheetModel::picture_of(const Cell& cell) const {
    return cell.target ? nullptr : picture_in(cell.picture, cell.layer);
}

PicturePtr SheetModel::picture_in(const std::string& path, const std::string& layer) const {
    const auto found = images_.find(path);
    if (found == images_.end() || !found->second)
        return nullptr;
    PicturePtr& entry = pictures_[path + "#" + layer];
    if (!entry)
        if (auto picture = image::picture_of(*found->second, layer))
            entry = std::make_shared<const image::Picture>(std::move(*picture));
    return entry;
}

bool SheetModel::uses(const std::string& path) const {
    return std::any_of(arrangement_.cells.begin(), arrangement_.cells.end(),
                       [&](const Cell& cell) { return !cell.target && cell.picture == path; }) ||
        std::any_of(arrangement_.given.begin(), arrangement_.given.end(),
                    [&](const auto& entry) { return entry.second.picture == path; });
}

std::shared_ptr<const image::Image> SheetModel::file_of(const Cell& cell) const {
    const auto found = images_.find(cell.picture);
    return cell.target || found == images_.end() ? nullptr : found->second;
}

int SheetModel::add_target(const targets::Target& target, const std::string& lens, std::vector<double> settings) {
    const Step step(*this, tr("a target added"));
    arrangement_.cells.push_back({next_id_++, &target, {}, {}, lens, std::move(settings)});
    emit changed();
    return arrangement_.cells.back().id;
}

int SheetModel::add_picture(const std::filesystem::path& path, const std::string& lens, const std::string& layer) {
    const Step step(*this, tr("a picture added"));
    arrangement_.cells.push_back({next_id_++, nullptr, path.string(), layer, lens});
    const int id = arrangement_.cells.back().id;
    read(path.string());
    emit changed();
    return id;
}

void SheetModel::set_picture(int id, const std::filesystem::path& path) {
    const Step step(*this, tr("another picture"));
    if (!find(id))
        return;
    Cell& cell = at(id);
    cell.target = nullptr;
    cell.settings.clear();
    cell.picture = path.string();
    cell.layer.clear();
    read(cell.picture);
    emit changed();
}

void SheetModel::remove(int id) {
    const Step step(*this, tr("a cell removed"));
    std::erase_if(arrangement_.cells, [id](const Cell& c) { return c.id == id; });
    std::erase_if(arrangement_.strips, [id](const Strip& s) { return s.is_cut() && s.cell == id; });
    forget_unused_images();
    emit changed();
}

void SheetModel::set_lens(int id, const std::string& lens) {
    const Step step(*this, tr("another lens"), QString("lens %1").arg(id));
    if (!find(id))
        return;
    at(id).lens = lens;
    emit changed();
}

void SheetModel::set_layer(int id, const std::string& layer) {
    const Step step(*this, tr("another layer"));
    if (!find(id))
        return;
    at(id).layer = layer;
    emit changed();
}

void SheetModel::set_target(int id, const targets::Target& target) {
    const Step step(*this, tr("another target"));
    if (!find(id))
        return;
    Cell& cell = at(id);
    cell.target = &target;
    cell.picture.clear();
    cell.layer.clear();
    cell.settings.clear();
    emit changed();
}

std::string SheetModel::said_space(const Cell& cell) const {
    const auto found = said_spaces_.find(cell.picture);
    return found == said_spaces_.end() ? std::string() : found->second;
}

void SheetModel::set_space(int id, const std::string& space) {
    const Cell* cell = find(id);
    if (!cell || cell->target || said_space(*cell) == space)
        return;
    const std::string path = cell->picture;
    if (space.empty())
        said_spaces_.erase(path);
    else
        said_spaces_[path] = space;
    images_.erase(path);
    std::erase_if(pictures_, [&](const auto& entry) { return entry.first.starts_with(path + "#"); });
    read(path);
    emit spaces_said();
    emit changed();
}

void SheetModel::set_screen(const Screen& screen) {
    if (screen == screen_)
        return;
    screen_ = screen;
    emit changed();
}

void SheetModel::read(const std::string& path) {
    if (images_.contains(path))
        return;
    images_[path] = nullptr;
    ++pending_;
    const auto said = said_spaces_.find(path);
    background().start([self = QPointer<SheetModel>(this), path,
                        space = said == said_spaces_.end() ? std::string() : said->second] {
        auto loaded = std::make_shared<Result<image::Image>>(
            within_memory(path, [&] { return handover::source_image(path, space); }));
        // Back on the interface thread; a model that is gone by then is not touched.
        QMetaObject::invokeMethod(
            qApp,
            [self, path, space, loaded] {
                if (!self)
                    return;
                --self->pending_;
                if (const auto now = self->said_spaces_.find(path);
                    (now == self->said_spaces_.end() ? std::string() : now->second) != space)
                    return; // said otherwise meanwhile: another reading is under way
                if (loaded->ok() && !self->uses(path)) {
                    self->images_.erase(path); // another frame is wanted by now
                } else if (loaded->ok()) {
                    self->images_[path] = std::make_shared<const image::Image>(std::move(loaded->value()));
                    const std::vector<std::string> layers = image::layers(*self->images_[path]);
                    const std::string usual = image::usual_layer(*self->images_[path]);
                    const auto unknown = [&](const std::string& layer) {
                        return layer.empty() || std::find(layers.begin(), layers.end(), layer) == layers.end();
                    };
                    for (Cell& cell : self->arrangement_.cells)
                        if (cell.picture == path && unknown(cell.layer))
                            cell.layer = usual;
                    for (auto& [source, given] : self->arrangement_.given)
                        if (given.picture == path && unknown(given.layer))
                            given.layer = usual;
                    const bool known = self->images_[path]->movie && self->sequences_.contains(path);
                    for (const std::string& note : self->images_[path]->notes)
                        if (!known) // said of the first frame that was shown
                            emit self->noted(
                                QString::fromStdString(std::filesystem::path(path).filename().string() + ": " + note));
                } else {
                    self->images_.erase(path);
                    std::erase_if(self->arrangement_.cells, [&](const Cell& c) { return c.picture == path; });
                    std::erase_if(self->arrangement_.given,
                                  [&](const auto& entry) { return entry.second.picture == path; });
                    emit self->failed(loaded->error());
                }
                emit self->changed();
            },
            Qt::QueuedConnection);
    });
}

} // namespace kasuri::app
