#pragma once
#include "base/cancel.hpp"
#include "fit/residual.hpp"
#include "pairing/chart.hpp"
#include "pairing/rest_look.hpp"

#include <QAbstractTableModel>
#include <QString>

#include <functional>
#include <memory>
#include <string>
#include <vector>

namespace kasuri::app {

/// Rules that explain something (fit/fit), found in the background: a row for each, as they come; when all have come,
/// those from simple to exact, or all of them.
class FitModel : public QAbstractTableModel {
    Q_OBJECT
public:
    enum Column { marked, numbers, title, space, mean, most, largest, channel, columns };
    explicit FitModel(QObject* parent = nullptr);
    ~FitModel() override;

    /// Of files, as pairing::pairs_from. The latest request counts.
    void find(std::vector<std::string> files, pairing::PairingOptions options);
    /// Of a chart in a picture.
    void find(pairing::ChartWish wish, pairing::PairingOptions options);
    /// Of one step by itself.
    void find(document::LookStep step, const std::string& name);
    /// What the next search holds and how it counts.
    void set_options(fit::Options options) { options_ = std::move(options); }
    const fit::Options& options() const { return options_; }
    void cancel();
    bool running() const { return running_; }
    void show_all(bool all);

    /// Nothing while it is empty.
    const fit::Candidate* candidate(int row) const;
    /// The row of the marked one; -1 before it is known.
    int best_row() const;
    /// The whole text of a row's rule.
    std::string text(int row) const;
    /// Where a row's rule is off; worked out in the background, then `residual_ready`.
    void ask_residual(int row);
    const fit::Residual* residual() const { return residual_.get(); }
    /// A row's rule and a table of `points` an axis for what it leaves; in the background, then `rest_ready`.
    void ask_rest(int row, int points);
    const Result<pairing::RestLook>* rest() const { return rest_.get(); }
    /// What was fitted, and what no rule explains; or why nothing was, or how far it is.
    QString words() const { return words_; }
    bool failed() const { return failed_; }
    /// Of pictures: the second was brought over the first, so that they do not lie on each other as they came.
    bool moved() const { return paired_ && *paired_ && paired_->value().moved; }

    int rowCount(const QModelIndex& parent = {}) const override {
        return parent.isValid() ? 0 : static_cast<int>(shown_.size());
    }
    int columnCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : columns; }
    QVariant data(const QModelIndex& index, int role = Qt::DisplayRole) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

signals:
    void progressed(int done, int all);
    void finished();
    void residual_ready();
    void rest_ready();

private:
    /// Works something out of a row's rule, off this thread, unless another request of its kind comes first.
    template <class Made>
    void work_out(int row, int& ticket, CancelToken& token,
                  std::function<Made(const fit::Candidate&, const fit::Pairs&, const CancelToken&)> work,
                  std::function<void(FitModel&, Made)> done);
    using Paired = std::shared_ptr<const Result<pairing::Paired>>;
    void start(std::function<Result<pairing::Paired>(const CancelToken&)> pairs);
    void came(int ticket, int all, const fit::Candidate& candidate);
    void done(int ticket, const Paired& paired, std::shared_ptr<const Result<fit::Found>> found);
    void sort_out();

    fit::Found found_;
    std::vector<std::size_t> shown_; ///< into the candidates
    Paired paired_;
    fit::Options options_;
    std::shared_ptr<const fit::Residual> residual_;
    std::shared_ptr<const Result<pairing::RestLook>> rest_;
    QString words_;
    CancelToken cancel_, residual_cancel_, rest_cancel_;
    int ticket_ = 0, residual_ticket_ = 0, rest_ticket_ = 0;
    bool running_ = false, all_ = false, failed_ = false, complete_ = false;
};

} // namespace kasuri::app
