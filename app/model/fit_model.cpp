#include "model/fit_model.hpp"

#include "base/memory.hpp"
#include "base/text.hpp"
#include "model/background.hpp"

#include <QCoreApplication>
#include <QPointer>

#include <algorithm>
#include <numeric>

namespace kasuri::app {
namespace {

QString capital(QString text) {
    if (!text.isEmpty())
        text[0] = text[0].toUpper();
    return text;
}

QString figure(double x) { return QString::fromStdString(x < 0.0005 ? std::string("0") : number_text(x, 3)); }

} // namespace

FitModel::FitModel(QObject* parent) : QAbstractTableModel(parent) {}

FitModel::~FitModel() {
    for (CancelToken* token : {&cancel_, &residual_cancel_, &rest_cancel_})
        token->cancel();
}

void FitModel::find(std::vector<std::string> files, pairing::PairingOptions options) {
    start([files = std::move(files), options = std::move(options)](const CancelToken& cancel) {
        return pairing::pairs_from(files, options, cancel);
    });
}

void FitModel::find(pairing::ChartWish wish, pairing::PairingOptions options) {
    start([wish = std::move(wish), options = std::move(options)](const CancelToken&) -> Result<pairing::Paired> {
        auto made = pairing::pairs_of_chart(wish, options);
        if (!made)
            return made.error();
        return std::move(made.value().paired);
    });
}

void FitModel::find(document::LookStep step, const std::string& name) {
    start(
        [step = std::move(step), name](const CancelToken& cancel) { return pairing::pairs_from(step, name, cancel); });
}

void FitModel::cancel() {
    if (!running_)
        return;
    cancel_.cancel();
    ++ticket_;
    running_ = false;
    words_ = tr("Called off.");
    emit finished();
}

void FitModel::start(std::function<Result<pairing::Paired>(const CancelToken&)> pairs) {
    cancel_.cancel();
    cancel_ = CancelToken();
    const int ticket = ++ticket_;
    beginResetModel();
    found_ = {};
    shown_.clear();
    paired_.reset();
    residual_.reset();
    rest_.reset();
    endResetModel();
    running_ = true;
    failed_ = complete_ = false;
    words_ = tr("Reading\u2026");
    background().start(
        [self = QPointer<FitModel>(this), ticket, pairs = std::move(pairs), cancel = cancel_, options = options_] {
            const auto tell = [self](std::function<void(FitModel&)> what) {
                QMetaObject::invokeMethod(
                    QCoreApplication::instance(),
                    [self, what = std::move(what)] {
                        if (self)
                            what(*self);
                    },
                    Qt::QueuedConnection);
            };
            const auto paired =
                std::make_shared<const Result<pairing::Paired>>(within_memory("", [&] { return pairs(cancel); }));
            std::shared_ptr<const Result<fit::Found>> found;
            if (*paired) {
                const fit::Pairs& given = paired->value().pairs;
                const auto all = static_cast<int>(fit::tries(given, options));
                found = std::make_shared<const Result<fit::Found>>(within_memory("", [&] {
                    return fit::fit(given, options, cancel, [&](const fit::Candidate& candidate) {
                        tell([ticket, all, candidate](FitModel& model) { model.came(ticket, all, candidate); });
                    });
                }));
            }
            tell([ticket, paired, found](FitModel& model) { model.done(ticket, paired, found); });
        });
    emit progressed(0, 0);
}

void FitModel::came(int ticket, int all, const fit::Candidate& candidate) {
    if (ticket != ticket_)
        return;
    const auto place = std::upper_bound(
        found_.candidates.begin(), found_.candidates.end(), candidate,
        [](const fit::Candidate& a, const fit::Candidate& b) { return a.values.size() < b.values.size(); });
    const auto row = static_cast<int>(place - found_.candidates.begin());
    beginInsertRows({}, row, row);
    found_.candidates.insert(place, candidate);
    shown_.push_back(shown_.size());
    endInsertRows();
    words_ = tr("%1 of %2 families\u2026").arg(found_.candidates.size()).arg(all);
    emit progressed(static_cast<int>(found_.candidates.size()), all);
}

void FitModel::done(int ticket, const Paired& paired, std::shared_ptr<const Result<fit::Found>> found) {
    if (ticket != ticket_)
        return;
    running_ = false;
    const Error* wrong = !*paired ? &paired->error() : !*found ? &found->error() : nullptr;
    failed_ = wrong != nullptr;
    if (wrong) {
        words_ = capital(QString::fromStdString(wrong->text()));
    } else {
        paired_ = paired;
        found_ = found->value();
        complete_ = true;
        const pairing::Paired& from = paired->value();
        words_ = tr("%1 (%2), numbers of %3. Fitted on %4 colours, measured on %5.")
                     .arg(QString::fromStdString(from.pairs.title), QString::fromStdString(from.detail),
                          QString::fromStdString(from.pairs.space))
                     .arg(found_.fitted)
                     .arg(found_.candidates.front().errors.pairs);
        if (found_.unexplained > 0.02)
            words_ += " " +
                tr("%1 % of the colours came out differently in different places: no rule of a colour alone explains "
                   "them.")
                    .arg(std::lround(100 * found_.unexplained));
        for (const std::string& note : from.notes)
            words_ += " " + QString::fromStdString(note);
    }
    sort_out();
    emit finished();
}

void FitModel::sort_out() {
    beginResetModel();
    if (complete_ && !all_) {
        shown_ = fit::simple_to_exact(found_);
    } else {
        shown_.resize(found_.candidates.size());
        std::iota(shown_.begin(), shown_.end(), std::size_t{0});
    }
    endResetModel();
}

void FitModel::show_all(bool all) {
    all_ = all;
    sort_out();
}

const fit::Candidate* FitModel::candidate(int row) const {
    return row >= 0 && row < rowCount() ? &found_.candidates[shown_[static_cast<std::size_t>(row)]] : nullptr;
}

int FitModel::best_row() const {
    if (!complete_)
        return -1;
    const auto at = std::find(shown_.begin(), shown_.end(), found_.best);
    return at == shown_.end() ? -1 : static_cast<int>(at - shown_.begin());
}

std::string FitModel::text(int row) const {
    const fit::Candidate* chosen = candidate(row);
    return chosen && paired_ ? fit::rule_text(*chosen, paired_->value().pairs) : chosen ? chosen->body : std::string();
}

template <class Made>
void FitModel::work_out(int row, int& ticket, CancelToken& token,
                        std::function<Made(const fit::Candidate&, const fit::Pairs&, const CancelToken&)> work,
                        std::function<void(FitModel&, Made)> done) {
    token.cancel();
    token = CancelToken();
    const int mine = ++ticket;
    const fit::Candidate* chosen = candidate(row);
    if (!chosen || !complete_ || !paired_)
        return;
    background().start([self = QPointer<FitModel>(this), counter = &ticket, mine, found = ticket_, chosen = *chosen,
                        paired = paired_, work = std::move(work), done = std::move(done), cancel = token] {
        auto made = std::make_shared<Made>(work(chosen, paired->value().pairs, cancel));
        QMetaObject::invokeMethod(
            QCoreApplication::instance(),
            [self, counter, mine, found, made, done] {
                if (self && *counter == mine && self->ticket_ == found)
                    done(*self, std::move(*made));
            },
            Qt::QueuedConnection);
    });
}

void FitModel::ask_residual(int row) {
    using Made = Result<fit::Residual>;
    residual_.reset();
    work_out<Made>(
        row, residual_ticket_, residual_cancel_,
        [](const fit::Candidate& chosen, const fit::Pairs& pairs, const CancelToken& cancel) {
            constexpr std::size_t dots = 600;
            return within_memory("", [&] { return fit::residual_of(chosen, pairs, dots, cancel); });
        },
        [](FitModel& model, Made made) {
            if (made)
                model.residual_ = std::make_shared<const fit::Residual>(std::move(made.value()));
            emit model.residual_ready();
        });
}

void FitModel::ask_rest(int row, int points) {
    using Made = Result<pairing::RestLook>;
    rest_.reset();
    work_out<Made>(
        row, rest_ticket_, rest_cancel_,
        [points](const fit::Candidate& chosen, const fit::Pairs& pairs, const CancelToken& cancel) {
            return within_memory("", [&] { return pairing::with_rest(chosen, pairs, points, cancel); });
        },
        [](FitModel& model, Made made) {
            model.rest_ = std::make_shared<const Made>(std::move(made));
            emit model.rest_ready();
        });
}

QVariant FitModel::data(const QModelIndex& index, int role) const {
    const fit::Candidate* each = candidate(index.row());
    if (!each)
        return {};
    if (role == Qt::TextAlignmentRole)
        return int(index.column() == title || index.column() == space ? Qt::AlignLeft | Qt::AlignVCenter
                                                                      : Qt::AlignRight | Qt::AlignVCenter);
    if (role == Qt::ToolTipRole && index.column() == title)
        return QCoreApplication::translate("Tables", each->family->doc.c_str());
    if (role != Qt::DisplayRole)
        return {};
    switch (index.column()) {
    case marked: return index.row() == best_row() ? QString::fromUtf8("\u25cf") : QString();
    case numbers: return static_cast<int>(each->values.size());
    case title: return QCoreApplication::translate("Tables", each->family->title.c_str());
    case space: return QString::fromStdString(each->working);
    case mean: return figure(each->errors.delta_e_mean);
    case most: return figure(each->errors.delta_e_95);
    case largest: return figure(each->errors.delta_e_largest);
    case channel: return figure(each->errors.largest);
    default: return {};
    }
}

QVariant FitModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal)
        return {};
    const QString names[] = {
        "",         tr("numbers"), tr("rule"),     tr("working space"), QString::fromUtf8("\u0394E2000 ") + tr("mean"),
        tr("95 %"), tr("largest"), tr("a channel")};
    const QString tips[] = {tr("The one that says most with fewest numbers"),
                            tr("How many numbers the rule has"),
                            tr("What kind of rule it is"),
                            tr("The space in which it works"),
                            tr("CIEDE2000 on average, on colours that were not fitted"),
                            tr("CIEDE2000: 95 % of the colours are no further away"),
                            tr("CIEDE2000 of the colour that is met worst"),
                            tr("By how much a channel is off at most")};
    if (role == Qt::DisplayRole)
        return names[section];
    if (role == Qt::ToolTipRole)
        return tips[section];
    if (role == Qt::TextAlignmentRole)
        return int(section == title || section == space ? Qt::AlignLeft : Qt::AlignRight);
    return {};
}

} // namespace kasuri::app
