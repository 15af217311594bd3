#include "model/takes.hpp"

#include <algorithm>

namespace kasuri::app {

TakesModel::TakesModel(Session& session, QObject* parent) : QObject(parent), session_(session) {
    // Which of them is current may be another one now.
    connect(&session_, &Session::text_changed, this, &TakesModel::changed);
    connect(&session_, &Session::values_changed, this, &TakesModel::changed);
    connect(&session_, &Session::rule_changed, this, &TakesModel::changed);
}

int TakesModel::current() const {
    for (std::size_t i = 0; i < takes_.size(); ++i) {
        const Take& take = takes_[i];
        if (take.text != session_.text())
            continue;
        const bool same = session_.rule() && session_.compiles()
            ? values_for(*session_.rule(), take.values) == session_.values()
            : take.values == session_.chosen_values();
        if (same)
            return static_cast<int>(i);
    }
    return -1;
}

QString TakesModel::name(int index) const {
    const Take& take = takes_[static_cast<std::size_t>(index)];
    return take.name.empty() ? QString::number(index + 1) : QString::fromStdString(take.name);
}

int TakesModel::remember() {
    if (const int there = current(); there >= 0)
        return there;
    const std::vector<Take> before = takes_;
    takes_.push_back({"", session_.text(), session_.chosen_values()});
    emit rearranged(tr("a take"), {}, before);
    emit changed();
    return static_cast<int>(takes_.size()) - 1;
}

void TakesModel::flip_to(int index) {
    if (index < 0 || index >= static_cast<int>(takes_.size()))
        return;
    const Take take = takes_[static_cast<std::size_t>(index)];
    session_.recall(take.text, take.values, tr("take %1").arg(name(index)));
}

void TakesModel::flip(int by) {
    const int count = static_cast<int>(takes_.size());
    if (count == 0)
        return;
    const int now = current();
    flip_to(now < 0 ? count - 1 : (now + by + count) % count);
}

void TakesModel::rename(int index, const QString& name) {
    if (index < 0 || index >= static_cast<int>(takes_.size()))
        return;
    const std::vector<Take> before = takes_;
    takes_[static_cast<std::size_t>(index)].name = name.trimmed().toStdString();
    emit rearranged(tr("a take named"), {}, before);
    emit changed();
}

void TakesModel::remove(int index) {
    if (index < 0 || index >= static_cast<int>(takes_.size()))
        return;
    const std::vector<Take> before = takes_;
    takes_.erase(takes_.begin() + index);
    emit rearranged(tr("a take removed"), {}, before);
    emit changed();
}

void TakesModel::arrange(std::vector<Take> takes) {
    takes_ = std::move(takes);
    emit changed();
}

} // namespace kasuri::app
