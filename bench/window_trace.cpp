#include "window_trace.hpp"

#include "base/timeline.hpp"

#include <QEvent>
#include <QMetaEnum>

#include <algorithm>
#include <cstdio>
#include <map>
#include <utility>

using kasuri::timeline::Record;

bool TracedApplication::notify(QObject* receiver, QEvent* event) {
    if (!kasuri::timeline::detail::on)
        return QApplication::notify(receiver, event);
    static const QMetaEnum kinds = QMetaEnum::fromType<QEvent::Type>();
    const char* const kind = kinds.valueToKey(event->type());
    const std::string name = std::string(kind ? kind : "event") + " " + receiver->metaObject()->className();
    const kasuri::timeline::Stretch stretch(*names_.insert(name).first);
    return QApplication::notify(receiver, event);
}

void print_shares(const std::string& action) {
    const std::vector<Record> all = kasuri::timeline::records();
    std::vector<Record> actions;
    std::copy_if(all.begin(), all.end(), std::back_inserter(actions),
                 [&](const Record& r) { return r.what == action; });
    if (actions.empty())
        return;
    // By thread: each stretch whole, and without what lies inside it.
    struct Sum {
        double whole = 0, own = 0;
        int times = 0;
    };
    std::map<std::pair<int, std::string>, Sum> sums;
    std::vector<const Record*> open;
    for (const Record& record : all) {
        const bool inside = std::any_of(actions.begin(), actions.end(), [&](const Record& a) {
            return record.from >= a.from && record.to <= a.to + 1;
        });
        if (!inside)
            continue;
        while (!open.empty() && (open.back()->thread != record.thread || open.back()->to < record.to))
            open.pop_back();
        const double length = record.to - record.from;
        if (!open.empty())
            sums[{open.back()->thread, open.back()->what}].own -= length;
        Sum& sum = sums[{record.thread, record.what}];
        sum.whole += length;
        sum.own += length;
        ++sum.times;
        open.push_back(&record);
    }
    const auto count = static_cast<double>(actions.size());
    std::vector<std::pair<std::pair<int, std::string>, Sum>> rows(sums.begin(), sums.end());
    std::sort(rows.begin(), rows.end(), [](const auto& a, const auto& b) {
        return std::pair(a.first.first, -a.second.own) < std::pair(b.first.first, -b.second.own);
    });
    std::printf("%s, %zu times: milliseconds an action\n", action.c_str(), actions.size());
    for (const auto& [of, sum] : rows)
        if (sum.whole / count / 1e3 >= 0.05)
            std::printf("  thread %-3d %6.2f   without what is inside %6.2f   %5.1f times   %s\n", of.first,
                        sum.whole / count / 1e3, sum.own / count / 1e3, sum.times / count, of.second.c_str());
}
