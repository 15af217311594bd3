// Two programs on one filter: what each has added, changed and taken away since both saw the same.
#include "document/bench_file.hpp"

#include <algorithm>
#include <set>

namespace kasuri::document {
namespace {

template <class Things, class Same>
auto find_in(Things& things, Same same) {
    const auto found = std::find_if(things.begin(), things.end(), same);
    return found == things.end() ? nullptr : &*found;
}

/// Lists of things that have a key. `renamed` gives one of theirs another key that is free in `made`, where both sides
/// have made different things of one key.
template <class Thing, class Key, class Rename>
std::vector<Thing> merged_list(const std::vector<Thing>& base, const std::vector<Thing>& mine,
                               const std::vector<Thing>& theirs, Key key, Rename renamed) {
    const auto of = [&](const std::vector<Thing>& all, const Thing& thing) {
        return find_in(all, [&](const Thing& each) { return key(each) == key(thing); });
    };
    std::vector<Thing> made, aside;
    for (const Thing& thing : theirs) {
        const Thing *was = of(base, thing), *is = of(mine, thing);
        const bool they_changed = !was || !(*was == thing);
        if (!is) {
            if (they_changed) // else I took it away
                made.push_back(thing);
        } else if (*is == thing || (was && *is == *was)) {
            made.push_back(thing);
        } else {
            made.push_back(*is);
            if (they_changed)
                aside.push_back(thing);
        }
    }
    for (const Thing& thing : mine)
        if (!of(theirs, thing)) {
            const Thing* was = of(base, thing);
            if (!was || !(*was == thing)) // else they took it away
                made.push_back(thing);
        }
    for (const Thing& thing : aside)
        made.push_back(renamed(thing, made));
    return made;
}

} // namespace

BenchFile merged(const BenchFile& base, const BenchFile& mine, const BenchFile& theirs) {
    BenchFile made;
    made.takes = merged_list(
        base.takes, mine.takes, theirs.takes,
        [](const KeptTake& take) { // without a name it is known by what it holds
            std::pair<std::string, KeptTake> key(take.name, {});
            if (take.name.empty())
                key.second = take;
            return key;
        },
        [](KeptTake take, const std::vector<KeptTake>& all) {
            const std::string name = take.name;
            for (int n = 2; find_in(all, [&](const KeptTake& each) { return each.name == take.name; }); ++n)
                take.name = name + " " + std::to_string(n);
            return take;
        });
    made.pins = merged_list(
        base.pins, mine.pins, theirs.pins, [](const KeptPin& pin) { return pin.number; },
        [](KeptPin pin, const std::vector<KeptPin>& all) {
            for (pin.number = 1; find_in(all, [&](const KeptPin& each) { return each.number == pin.number; });)
                ++pin.number;
            return pin;
        });
    // Of what has no key, whole groups come and go; a name is linked once.
    std::set<std::string> linked;
    const auto link = [&](const std::vector<std::string>& group) {
        if (std::none_of(group.begin(), group.end(), [&](const std::string& name) { return linked.contains(name); })) {
            linked.insert(group.begin(), group.end());
            made.tuning.links.push_back(group);
        }
    };
    const auto has = [](const KeptTuning& tuning, const std::vector<std::string>& group) {
        return std::find(tuning.links.begin(), tuning.links.end(), group) != tuning.links.end();
    };
    for (const auto& group : mine.tuning.links)
        if (!has(base.tuning, group) || has(theirs.tuning, group))
            link(group);
    for (const auto& group : theirs.tuning.links)
        if (!has(base.tuning, group))
            link(group);
    made.tuning.ranges = theirs.tuning.ranges;
    for (const auto& [name, range] : mine.tuning.ranges)
        if (const auto was = base.tuning.ranges.find(name); was == base.tuning.ranges.end() || was->second != range)
            made.tuning.ranges[name] = range;
    for (const auto& [name, range] : base.tuning.ranges)
        if (const auto is = theirs.tuning.ranges.find(name);
            !mine.tuning.ranges.contains(name) && is != theirs.tuning.ranges.end() && is->second == range)
            made.tuning.ranges.erase(name);
    made.context = mine.context == base.context ? theirs.context : mine.context;
    made.others = theirs.others;
    return made;
}

} // namespace kasuri::document
