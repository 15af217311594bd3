#include "serve.hpp"

#include <algorithm>
#include <csignal>
#include <cstdio>
#include <cstring>
#include <exception>
#include <fcntl.h>
#include <new>
#include <poll.h>
#include <sys/prctl.h>
#include <sys/resource.h>
#include <thread>
#include <unistd.h>

namespace kasuri::helpers {
namespace {

void limit(int what, rlim_t most) {
    rlimit now{};
    if (::getrlimit(static_cast<__rlimit_resource>(what), &now) != 0)
        return;
    now.rlim_cur = std::min(now.rlim_max, most);
    ::setrlimit(static_cast<__rlimit_resource>(what), &now);
}

void set_limits() {
    limit(RLIMIT_CORE, 0);
#if defined(__has_feature)
#if __has_feature(address_sanitizer) || __has_feature(thread_sanitizer)
#define KASURI_WANTS_ROOM
#endif
#endif
#if !defined(__SANITIZE_ADDRESS__) && !defined(__SANITIZE_THREAD__) && !defined(KASURI_WANTS_ROOM)
    limit(RLIMIT_DATA,
          static_cast<rlim_t>(::sysconf(_SC_PHYS_PAGES)) * static_cast<rlim_t>(::sysconf(_SC_PAGESIZE)) / 2);
#endif
    ::prctl(PR_SET_NO_NEW_PRIVS, 1, 0, 0, 0);
    for (const int signal : {SIGINT, SIGTERM, SIGHUP, SIGPIPE, SIGXFSZ})
        std::signal(signal, SIG_IGN);
}

/// Ends the program when nobody is at the other end any more.
void watch(int descriptor) {
    pollfd gone{descriptor, 0, 0};
    while ((gone.revents & (POLLHUP | POLLERR | POLLNVAL)) == 0)
        ::poll(&gone, 1, -1);
    ::_exit(0);
}

} // namespace

void Caller::failed(const std::string& reason, bool memory) {
    wire::Message message{wire::Message::Kind::failed, reason.substr(0, reason.find('\n'))};
    message.n[0] = memory ? 1 : 0;
    (void)link.send(message);
}

int serve(int argc, char** argv, const std::function<void(const wire::Message&, Caller&)>& answer) {
    if (argc != 2 || std::strcmp(argv[1], "--serve") != 0 || ::fcntl(wire::socket_place, F_GETFD) < 0) {
        std::fputs("Kasuri starts this program by itself: it works with a library that may fail, so that Kasuri does "
                   "not fail with it.\n",
                   stderr);
        return 2;
    }
    set_limits();
    Caller caller;
    std::thread(watch, wire::socket_place).detach();
    wire::Message message;
    while (caller.link.receive(message, std::chrono::milliseconds(-1)) == wire::Link::Outcome::message)
        try {
            answer(message, caller);
        } catch (const std::bad_alloc&) {
            caller.failed("", true);
        } catch (const std::exception& problem) {
            caller.failed(problem.what());
        }
    ::_exit(0);
}

} // namespace kasuri::helpers
