#include "io/helper.hpp"

#include "base/said.hpp"

#include <algorithm>
#include <csignal>
#include <cstring>
#include <dlfcn.h>
#include <fcntl.h>
#include <iterator>
#include <mutex>
#include <spawn.h>
#include <sys/socket.h>
#include <sys/wait.h>
#include <thread>
#include <unistd.h>
#include <vector>

namespace kasuri::io {
namespace fs = std::filesystem;
using wire::Link;
using wire::Message;

namespace {

constexpr std::size_t tasks = 3;

const char* name_of(Task task) {
    switch (task) {
    case Task::pictures: return "kasuri-pictures";
    case Task::movies: return "kasuri-movies";
    case Task::tables: break;
    }
    return "kasuri-tables";
}
std::string library_of(Task task) {
    switch (task) {
    case Task::pictures: return said("the library for pictures");
    case Task::movies: return said("the library for movies");
    case Task::tables: break;
    }
    return said("the library for LUTs and colour configs");
}

/// Slots that have grown beyond this are given back to the system with their process.
constexpr std::size_t kept_memory = std::size_t{256} << 20;
/// Beyond this they are, until they are used again: a picture of 1920x1080 fits, and comes often.
constexpr std::size_t resting_memory = std::size_t{64} << 20;

struct Shop {
    std::mutex mutex;
    std::vector<std::unique_ptr<Helper>> waiting[tasks];
    fs::path program[tasks];
    std::chrono::milliseconds patience[tasks] = {std::chrono::seconds(60), std::chrono::seconds(60),
                                                 std::chrono::seconds(60)};
};
Shop& shop() {
    static Shop all;
    return all;
}

fs::path program_of(Task task) {
    {
        const std::lock_guard lock(shop().mutex);
        if (const fs::path& other = shop().program[static_cast<std::size_t>(task)]; !other.empty())
            return other;
    }
    // Beside this program, or beside the library that this is in; the folder of libraries may be one deeper.
    std::error_code none;
    std::vector<fs::path> folders = {fs::read_symlink("/proc/self/exe", none).parent_path()};
    if (Dl_info here; ::dladdr(reinterpret_cast<const void*>(&program_of), &here) != 0 && here.dli_fname)
        folders.push_back(fs::canonical(here.dli_fname, none).parent_path());
    for (const fs::path& folder : folders)
        for (const char* to : {"", "../libexec/kasuri", "../../libexec/kasuri"})
            if (const fs::path place = folder / to / name_of(task); fs::exists(place, none))
                return place;
    return {};
}

/// Closed when it goes out of scope.
struct Descriptor {
    int value;
    ~Descriptor() {
        if (value >= 0)
            ::close(value);
    }
};

} // namespace

Helper::Helper(int process, Link link, wire::Slots slots, Task task)
    : process_(process), link_(std::move(link)), slots_(std::move(slots)), task_(task) {}

Result<std::unique_ptr<Helper>> Helper::started(Task task) {
    const fs::path program = program_of(task);
    if (program.empty())
        return Error{said("the program {} is not there, which reads such files for this one", name_of(task)), "",
                     "Install Kasuri again."};
    int ends[2];
    if (::socketpair(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0, ends) != 0)
        return Error{said("{} cannot be started ({})", name_of(task), std::strerror(errno)), "",
                     "Close other programs and try again."};
    Link link(ends[0]);
    const Descriptor theirs{ends[1]};
    wire::Slots slots = wire::Slots::made();
    if (slots.descriptor() < 0)
        return Error{said("{} cannot be started ({})", name_of(task), std::strerror(errno)), "",
                     "Close other programs and try again."};
    // Duplicates above the places that they are put at, so that neither is overwritten by the other.
    const Descriptor socket{::fcntl(theirs.value, F_DUPFD_CLOEXEC, 10)};
    const Descriptor memory{::fcntl(slots.descriptor(), F_DUPFD_CLOEXEC, 10)};
    posix_spawn_file_actions_t actions;
    ::posix_spawn_file_actions_init(&actions);
    // What libraries say on their own is not for people.
    ::posix_spawn_file_actions_addopen(&actions, 0, "/dev/null", O_RDONLY, 0);
    ::posix_spawn_file_actions_addopen(&actions, 1, "/dev/null", O_WRONLY, 0);
    ::posix_spawn_file_actions_addopen(&actions, 2, "/dev/null", O_WRONLY, 0);
    ::posix_spawn_file_actions_adddup2(&actions, socket.value, wire::socket_place);
    ::posix_spawn_file_actions_adddup2(&actions, memory.value, wire::memory_place);
    ::posix_spawn_file_actions_addclosefrom_np(&actions, wire::memory_place + 1); // locks of ours are not held on by it
    std::string name = program.string(), word = "--serve";
    char* const arguments[] = {name.data(), word.data(), nullptr};
    pid_t process = 0;
    const int failed = ::posix_spawn(&process, name.c_str(), &actions, nullptr, arguments, environ);
    ::posix_spawn_file_actions_destroy(&actions);
    if (failed != 0)
        return Error{said("{} cannot be started ({})", name_of(task), std::strerror(failed)), "",
                     "Install Kasuri again."};
    return std::unique_ptr<Helper>(new Helper(process, std::move(link), std::move(slots), task));
}

Helper::~Helper() {
    if (!sound_)
        return;                // ended() saw to it
    ::kill(process_, SIGKILL); // it has nothing to finish
    while (::waitpid(process_, nullptr, 0) < 0 && errno == EINTR)
        ;
}

bool Helper::running() {
    if (sound_ && ::waitpid(process_, nullptr, WNOHANG) != 0)
        sound_ = false;
    return sound_;
}

Error Helper::ended(std::string_view why) {
    int state = 0;
    pid_t gone = 0;
    // One that has closed its end is about to be gone by itself; how it went is worth waiting a moment for.
    for (int i = 0; why.empty() && gone == 0 && i < 100; ++i) {
        gone = ::waitpid(process_, &state, WNOHANG);
        if (gone == 0)
            std::this_thread::sleep_for(std::chrono::milliseconds(5));
    }
    if (gone == 0) {
        ::kill(process_, SIGKILL);
        while (::waitpid(process_, nullptr, 0) < 0 && errno == EINTR)
            ;
    }
    sound_ = false;
    std::string how(why);
    if (how.empty())
        how = gone > 0 && WIFSIGNALED(state) ? said("signal {}", WTERMSIG(state)) : said("it ended");
    return Error{said("{} could not cope with it ({})", library_of(task_), how), where_,
                 "The file may be damaged or too large; nothing else was touched."};
}

Status Helper::tell(const Message& message) {
    if (sound_ && link_.send(message))
        return {};
    return ended("");
}

Result<Message> Helper::answer() {
    std::chrono::milliseconds patience;
    {
        const std::lock_guard lock(shop().mutex);
        patience = shop().patience[static_cast<std::size_t>(task_)];
    }
    for (;;) {
        Message message;
        switch (link_.receive(message, patience)) {
        case Link::Outcome::late: return ended(said("it said nothing for {} seconds", patience.count() / 1000));
        case Link::Outcome::broken: return ended(said("it said what nobody understands"));
        case Link::Outcome::closed: return ended("");
        case Link::Outcome::message: break;
        }
        if (message.kind != Message::Kind::alive)
            return message;
    }
}

Result<Message> Helper::ask(const Message& message) {
    if (const Status told = tell(message); !told)
        return told.error();
    return answer();
}

Result<HelperLease> HelperLease::of(Task task, const std::string& about) {
    const auto which = static_cast<std::size_t>(task);
    {
        const std::lock_guard lock(shop().mutex);
        for (auto& waiting = shop().waiting[which]; !waiting.empty();) {
            HelperLease lease(task, std::move(waiting.back()));
            waiting.pop_back();
            if (!lease->running())
                continue; // somebody ended it meanwhile
            lease->about(about);
            lease->wake();
            return lease;
        }
    }
    auto made = Helper::started(task);
    if (!made)
        return Error{made.error().what, about, made.error().remedy};
    made.value()->about(about);
    return HelperLease(task, std::move(made.value()));
}

// (A lease that goes within the lock above holds what is not sound, and does not come here for it.)
HelperLease::~HelperLease() {
    if (!helper_ || !helper_->sound() || !helper_->resting() || helper_->slots().mapped() > kept_memory)
        return;
    if (helper_->slots().mapped() > resting_memory)
        helper_->slots().rest();
    const std::lock_guard lock(shop().mutex);
    auto& waiting = shop().waiting[static_cast<std::size_t>(task_)];
    if (waiting.size() < std::max(2u, std::thread::hardware_concurrency()))
        waiting.push_back(std::move(helper_));
}

void use_helper(Task task, const fs::path& program, std::chrono::milliseconds patience) {
    const auto which = static_cast<std::size_t>(task);
    const std::lock_guard lock(shop().mutex);
    shop().waiting[which].clear();
    shop().program[which] = program;
    shop().patience[which] = patience;
}

void end_resting_helpers() {
    std::vector<std::unique_ptr<Helper>> ended; // outside of the lock
    const std::lock_guard lock(shop().mutex);
    for (auto& waiting : shop().waiting)
        std::move(waiting.begin(), waiting.end(), std::back_inserter(ended));
    for (auto& waiting : shop().waiting)
        waiting.clear();
}

void warm_up_helper(Task task) {
    const auto which = static_cast<std::size_t>(task);
    {
        const std::lock_guard lock(shop().mutex);
        if (!shop().waiting[which].empty())
            return;
    }
    if (auto made = Helper::started(task)) {
        made.value()->rest();
        const std::lock_guard lock(shop().mutex);
        shop().waiting[which].push_back(std::move(made.value()));
    }
}

} // namespace kasuri::io
