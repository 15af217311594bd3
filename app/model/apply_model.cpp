#include "model/apply_model.hpp"

#include "base/memory.hpp"
#include "base/movie_name.hpp"
#include "handover/render.hpp"
#include "io/picture_file.hpp"
#include "io/sequence.hpp"
#include "model/file_names.hpp"
#include "model/library_model.hpp"

#include <algorithm>
#include <set>

namespace kasuri::app {
namespace {

constexpr int width = 120, height = 68;

/// A picture file made small and put through the subject.
QImage contact(const std::filesystem::path& path, const std::string& space, const Screen& screen,
               const subject::Subject& subject, const CancelToken& cancel, QString& fault) {
    const Result<image::Image> loaded = io::load(path, space);
    if (!loaded) {
        fault = QString::fromStdString(loaded.error().text());
        return {};
    }
    const std::optional<image::Picture> picture = image::picture_of(loaded.value(), image::usual_layer(loaded.value()));
    if (!picture) {
        fault = ApplyModel::tr("has no channel to work on");
        return {};
    }
    if (const auto missing = subject::without_picture(subject, &loaded.value()); !missing.empty()) {
        fault = ApplyModel::tr("there is no picture for %1").arg(QString::fromStdString(missing.front()));
        return {};
    }
    const QSize fits = QSize(picture->width, picture->height).scaled(width, height, Qt::KeepAspectRatio);
    image::Picture small = downscaled(*picture, std::max(1, fits.width()), std::max(1, fits.height()));
    small.space = picture->space;
    const std::optional<image::Picture> made = handover::applied(subject, small, &loaded.value(), cancel);
    return made ? shown(*made, lens("colour"), screen) : QImage();
}

/// The whole path, without asking the disk: there may be thousands.
std::string place_of(const std::filesystem::path& path) {
    std::error_code error;
    const std::filesystem::path whole = std::filesystem::absolute(path, error);
    return (error ? path : whole).lexically_normal().string();
}

/// What frames of one sequence have in common: # for the number.
std::string sequence_name(const std::string& place) {
    const std::filesystem::path path(place);
    if (const std::filesystem::path movie = movie_frame(path).movie; !movie.empty())
        return movie.string();
    const std::optional<io::FrameName> name = io::frame_name(path);
    return name ? (path.parent_path() / (name->before + "#" + name->after)).string() : place;
}

} // namespace

ApplyModel::ApplyModel(QObject* parent) : QAbstractListModel(parent) {
    pool_.setMaxThreadCount(1); // each picture uses all cores
    pool_.setThreadPriority(QThread::LowPriority);
}

ApplyModel::~ApplyModel() {
    drawing_cancel_.cancel();
    rendering_cancel_.cancel();
    pool_.clear();
    pool_.waitForDone();
    if (thread_.joinable())
        thread_.join();
}

void ApplyModel::set_subject(std::shared_ptr<const subject::Subject> subject) {
    const bool same = subject && subject_ && subject->identity() == subject_->identity();
    subject_ = std::move(subject);
    if (!same) // what comes out is what is there
        draw();
}

void ApplyModel::set_screen(const Screen& screen) {
    if (screen == screen_)
        return;
    screen_ = screen;
    draw();
}

Status ApplyModel::set_inputs(const std::vector<std::string>& inputs) {
    const auto found = handover::batch_items({inputs, "contact-sheet/"});
    if (!found)
        return found.error();
    beginResetModel();
    inputs_ = inputs;
    items_.clear();
    for (const handover::BatchItem& item : found.value())
        items_.push_back({item.in, {}, {}, false});
    endResetModel();
    set_said_spaces(said_spaces_);
    return {};
}

void ApplyModel::set_said_spaces(std::map<std::string, std::string> spaces) {
    said_spaces_ = std::move(spaces);
    std::vector<handover::BatchItem> all;
    for (const Item& item : items_)
        all.push_back({item.path, {}});
    const auto said = spaces_of(all);
    for (Item& item : items_) {
        const auto found = said.find(item.path);
        item.space = found == said.end() ? std::string() : found->second;
    }
    draw();
}

std::map<std::filesystem::path, std::string>
ApplyModel::spaces_of(const std::vector<handover::BatchItem>& items) const {
    std::map<std::string, std::string> pictures, sequences;
    for (const auto& [path, space] : said_spaces_) {
        pictures[place_of(path)] = space;
        sequences[sequence_name(place_of(path))] = space;
    }
    std::map<std::filesystem::path, std::string> found;
    for (const handover::BatchItem& item : items) {
        const std::string place = place_of(item.in);
        if (const auto picture = pictures.find(place); picture != pictures.end())
            found[item.in] = picture->second;
        else if (const auto sequence = sequences.find(sequence_name(place)); sequence != sequences.end())
            found[item.in] = sequence->second;
    }
    return found;
}

void ApplyModel::draw() {
    drawing_cancel_.cancel();
    drawing_cancel_ = CancelToken();
    pool_.clear();
    waiting_ = 0;
    const std::uint64_t number = ++drawing_;
    if (!subject_)
        return;
    for (std::size_t i = 0; i < items_.size(); ++i) {
        ++waiting_;
        pool_.start([this, number, i, path = items_[i].path, space = items_[i].space, screen = screen_,
                     subject = subject_, cancel = drawing_cancel_] {
            QString fault;
            const Result<QImage> made = within_memory(path.string(), [&]() -> Result<QImage> {
                return cancel.cancelled() ? QImage() : contact(path, space, screen, *subject, cancel, fault);
            });
            if (!made)
                fault = QString::fromStdString(made.error().text());
            const QImage picture = made ? made.value() : QImage();
            QMetaObject::invokeMethod(
                this,
                [this, number, i, picture, fault] {
                    if (number != drawing_)
                        return;
                    items_[i].picture = picture;
                    items_[i].fault = fault;
                    emit dataChanged(index(static_cast<int>(i)), index(static_cast<int>(i)));
                    if (--waiting_ == 0)
                        emit drawn();
                },
                Qt::QueuedConnection);
        });
    }
}

QVariant ApplyModel::data(const QModelIndex& index, int role) const {
    if (!index.isValid() || static_cast<std::size_t>(index.row()) >= items_.size())
        return {};
    const Item& item = items_[static_cast<std::size_t>(index.row())];
    switch (role) {
    case Qt::DisplayRole: return text_of(item.path.filename()) + (item.written ? tr(" \u2013 written") : QString());
    case Qt::DecorationRole: return item.picture;
    case Qt::ToolTipRole: return text_of(item.path) + (item.fault.isEmpty() ? QString() : "\n" + item.fault);
    case path_role: return text_of(item.path);
    case written_role: return item.written;
    case LibraryModel::fault_role: return item.fault; // the tile shows it
    default: return {};
    }
}

void ApplyModel::mark(const std::vector<std::filesystem::path>& paths, bool written, const QString& fault) {
    const std::set<std::filesystem::path> those(paths.begin(), paths.end());
    for (std::size_t i = 0; i < items_.size(); ++i)
        if (those.contains(items_[i].path)) {
            items_[i].written = written;
            items_[i].fault = fault;
            emit dataChanged(index(static_cast<int>(i)), index(static_cast<int>(i)));
        }
}

Status ApplyModel::render(const handover::BatchOrder& order, handover::BatchOptions options) {
    if (rendering_)
        return Error{"is being rendered already", order.output, "Wait, or call it off."};
    if (!subject_)
        return Error{"there is no rule that compiles yet", "", ""};
    auto items = handover::batch_items(order);
    if (!items)
        return items.error();
    options.in_spaces = spaces_of(items.value());
    if (thread_.joinable())
        thread_.join();
    rendering_ = true;
    rendering_cancel_ = CancelToken();
    for (Item& item : items_)
        item.written = false;
    thread_ = std::thread([this, subject = *subject_, items = std::move(items.value()), options = std::move(options),
                           cancel = rendering_cancel_] {
        const handover::BatchReport report =
            handover::render_all(subject, items, options, cancel, [this](const handover::BatchEvent& event) {
                std::vector<std::filesystem::path> paths{event.item.in};
                if (event.what != handover::BatchEvent::What::frame)
                    for (const handover::BatchFrame& each : event.item.frames)
                        paths.push_back(each.path);
                QMetaObject::invokeMethod(
                    this,
                    [this, paths = std::move(paths), frame = event.what == handover::BatchEvent::What::frame,
                     written = event.what != handover::BatchEvent::What::failed,
                     fault = event.error ? QString::fromStdString(event.error->text()) : QString(), done = event.done,
                     all = event.all, left = event.seconds_left] {
                        if (!frame)
                            mark(paths, written, fault);
                        emit progressed(done, all, left);
                    },
                    Qt::QueuedConnection);
            });
        QMetaObject::invokeMethod(
            this,
            [this, report] {
                report_ = report;
                rendering_ = false;
                emit finished();
            },
            Qt::QueuedConnection);
    });
    return {};
}

} // namespace kasuri::app
