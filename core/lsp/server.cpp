#include "lsp/server.hpp"

#include "base/cancel.hpp"
#include "lsp/methods.hpp"
#include "subject/subject.hpp"

#include <algorithm>
#include <atomic>
#include <chrono>
#include <condition_variable>
#include <deque>
#include <mutex>
#include <set>
#include <thread>

namespace kasuri::lsp {

struct Server::Work {
    explicit Work(std::function<void(const std::string&)> out) : send_(std::move(out)) {
        for (const Method* method : methods())
            methods_[method->name] = method;
        worker_ = std::thread([this] { work(); });
        measurer_ = std::thread([this] { measure(); });
    }
    ~Work() {
        {
            const std::lock_guard lock(mutex_);
            ending_ = true;
            measuring_.cancel();
        }
        something_.notify_all();
        worker_.join();
        measurer_.join();
    }

    bool receive(std::string content) {
        Json message = Json::parse(content, nullptr, false);
        const std::lock_guard lock(mutex_);
        if (message.is_object() && message.value("method", Json()) == "$/cancelRequest") {
            // At once: it is about what waits.
            if (const auto params = message.find("params"); params != message.end() && params->is_object())
                cancelled_.insert(params->value("id", Json()).dump());
            return true;
        }
        const bool last = message.is_object() && message.value("method", Json()) == "exit";
        queue_.push_back(std::move(message));
        something_.notify_all();
        return !last;
    }

    void settle(bool proofs) {
        std::unique_lock lock(mutex_);
        rested_.wait(lock, [&] {
            return queue_.empty() && !busy_ && !any_dirty_ && (!proofs || (wanted_.empty() && !measures_));
        });
    }

    std::atomic<bool> shut_down{false};

private:
    /// What the measuring thread is asked for.
    struct Wanted {
        std::string uri, text;
        std::shared_ptr<const lang::Checked> checked;
        std::chrono::steady_clock::time_point at; ///< not before, so that whoever types has both cores
    };
    static constexpr std::chrono::milliseconds quiet{250};

    void work() {
        for (;;) {
            Json message;
            {
                std::unique_lock lock(mutex_);
                busy_ = false;
                if (queue_.empty() && any_dirty_) { // nobody asks: now what is wrong is told
                    busy_ = true;
                    lock.unlock();
                    tell_faults();
                    continue;
                }
                rested_.notify_all();
                something_.wait(lock, [this] { return ending_ || !queue_.empty(); });
                if (ending_)
                    return;
                message = std::move(queue_.front());
                queue_.pop_front();
                busy_ = true;
            }
            handle(message);
        }
    }

    void send(Json message) {
        message["jsonrpc"] = "2.0";
        const std::string text = message.dump(-1, ' ', false, Json::error_handler_t::replace);
        const std::lock_guard lock(sending_);
        send_(text);
    }
    void answer_error(const Json& id, int code, const std::string& words) {
        send({{"id", id}, {"error", {{"code", code}, {"message", words}}}});
    }

    void handle(const Json& message) {
        if (message.is_discarded())
            return answer_error(nullptr, parse_error, "This is not JSON.");
        if (!message.is_object() || (message.contains("method") && !message["method"].is_string()))
            return answer_error(nullptr, invalid_request, "This is no message of JSON-RPC.");
        if (!message.contains("method"))
            return; // an answer to something that we asked
        const std::string& method = message["method"].get_ref<const std::string&>();
        const Json none = Json::object(),
                   &params = message.contains("params") && message["params"].is_object() ? message["params"] : none;
        const bool asks = message.contains("id");
        const Json id = asks ? message["id"] : Json(nullptr);
        try {
            if (!asks)
                return note(method, params);
            {
                const std::lock_guard lock(mutex_);
                if (cancelled_.erase(id.dump()) > 0)
                    throw Refused{request_cancelled, "called off"};
            }
            send({{"id", id}, {"result", answer(method, params)}});
        } catch (const Refused& refused) {
            if (asks)
                answer_error(id, refused.code, refused.message);
        } catch (const Json::exception& wrong) {
            if (asks)
                answer_error(id, invalid_params, wrong.what());
        } catch (const std::exception& fault) {
            if (asks)
                answer_error(id, internal_error, fault.what());
        }
    }

    Json answer(const std::string& method, const Json& params) {
        if (method == "initialize")
            return initialize(params);
        if (!initialized_)
            throw Refused{not_initialized, "initialize comes first."};
        if (shut_down)
            throw Refused{invalid_request, "It was shut down."};
        if (method == "shutdown") {
            shut_down = true;
            return nullptr;
        }
        const auto found = methods_.find(method);
        if (found == methods_.end())
            throw Refused{method_not_found, "There is no " + method + " here."};
        const std::lock_guard lock(state_mutex_);
        return found->second->answer(state_, params);
    }

    Json initialize(const Json& params) {
        const Json client = params.value("capabilities", Json::object());
        const auto at = [&](const char* path) {
            const Json::json_pointer pointer(path);
            return client.contains(pointer) ? client[pointer] : Json(nullptr);
        };
        for (const Json& encoding :
             at("/general/positionEncodings").is_array() ? at("/general/positionEncodings") : Json::array())
            if (encoding == "utf-8")
                state_.wishes.units = Units::utf8;
        const Json defaults = at("/textDocument/completion/completionList/itemDefaults");
        state_.wishes.takes_one_range =
            defaults.is_array() && std::find(defaults.begin(), defaults.end(), "editRange") != defaults.end();
        state_.wishes.refreshes_lenses = at("/workspace/codeLens/refreshSupport") == true;
        if (const auto options = params.find("initializationOptions"); options != params.end())
            wish(*options);
        initialized_ = true;
        Json promised = {{"positionEncoding", state_.wishes.units == Units::utf8 ? "utf-8" : "utf-16"},
                         {"textDocumentSync", {{"openClose", true}, {"change", 2}}}};
        for (const auto& [name, method] : methods_)
            if (!method->capability.empty())
                promised[std::string(method->capability)] = method->promises ? method->promises() : Json(true);
        return {{"capabilities", promised}, {"serverInfo", {{"name", "kasuri"}}}};
    }

    /// {"colour": [r, g, b], "values": false}: the colour whose values stand in the text, and whether they do.
    void wish(const Json& options) {
        if (!options.is_object())
            return;
        const Json& ours = options.contains("kasuri") && options["kasuri"].is_object() ? options["kasuri"] : options;
        if (const auto colour = ours.find("colour"); colour != ours.end() && colour->is_array() && colour->size() == 3)
            for (std::size_t i = 0; i < 3; ++i)
                if ((*colour)[i].is_number())
                    state_.wishes.colour[i] = (*colour)[i].get<double>();
        if (const auto values = ours.find("values"); values != ours.end() && values->is_boolean())
            state_.wishes.values = values->get<bool>();
    }

    void note(const std::string& method, const Json& params) {
        if (!initialized_ || shut_down)
            return;
        const std::lock_guard lock(state_mutex_);
        if (method == "textDocument/didOpen") {
            const Json& opened = params.at("textDocument");
            Document document;
            document.text = Text(opened.at("text").get<std::string>());
            document.version = opened.value("version", std::int64_t{0});
            document.path = path_of(opened.at("uri").get<std::string>());
            state_.documents.insert_or_assign(opened.at("uri").get<std::string>(), std::move(document));
            changed(opened.at("uri").get<std::string>());
        } else if (method == "textDocument/didChange") {
            Document& document = state_.document_of(params);
            for (const Json& change : params.at("contentChanges")) {
                if (change.contains("range")) {
                    const Span span = state_.span_of(document, change["range"]);
                    document.text.replace(span.begin, span.end, change.at("text").get_ref<const std::string&>());
                } else {
                    document.text = Text(change.at("text").get<std::string>());
                }
            }
            document.version = params.at("textDocument").value("version", document.version);
            changed(params.at("textDocument").at("uri").get<std::string>());
        } else if (method == "textDocument/didClose") {
            const std::string uri = params.at("textDocument").at("uri").get<std::string>();
            state_.documents.erase(uri);
            send({{"method", "textDocument/publishDiagnostics"},
                  {"params", {{"uri", uri}, {"diagnostics", Json::array()}}}});
        } else if (method == "workspace/didChangeConfiguration") {
            wish(params.value("settings", Json()));
        }
    }

    void changed(const std::string& uri) {
        Document& document = state_.documents.at(uri);
        document.checked.reset();
        document.dirty = true;
        const std::lock_guard lock(mutex_);
        any_dirty_ = true;
        std::erase_if(wanted_, [&](const Wanted& each) { return each.uri == uri; });
        measuring_.cancel(); // whatever it was, the other core may have better things to do now
    }

    void tell_faults() {
        const std::lock_guard lock(state_mutex_);
        {
            const std::lock_guard queue(mutex_);
            any_dirty_ = false;
        }
        for (auto& [uri, document] : state_.documents) {
            if (!std::exchange(document.dirty, false))
                continue;
            publish(uri, document);
            if (!document.check().ok || document.is_measured())
                continue;
            const std::lock_guard queue(mutex_);
            std::erase_if(wanted_, [&](const Wanted& each) { return each.uri == uri; });
            wanted_.push_back({uri, document.text.clean(), document.checked, std::chrono::steady_clock::now() + quiet});
            something_.notify_all();
        }
    }
    void publish(const std::string& uri, Document& document) {
        send({{"method", "textDocument/publishDiagnostics"},
              {"params",
               {{"uri", uri}, {"version", document.version}, {"diagnostics", diagnostics_of(state_, document)}}}});
    }

    void measure() {
        for (;;) {
            Wanted wanted;
            CancelToken cancel;
            {
                std::unique_lock lock(mutex_);
                measures_ = false;
                rested_.notify_all();
                something_.wait(lock, [this] { return ending_ || !wanted_.empty(); });
                if (ending_)
                    return;
                if (const auto at = wanted_.front().at; std::chrono::steady_clock::now() < at) {
                    something_.wait_until(lock, at);
                    continue; // it may have gone, or somebody types again
                }
                wanted = std::move(wanted_.front());
                wanted_.pop_front();
                measures_ = true;
                measuring_ = cancel;
            }
            try {
                measure(wanted, cancel);
            } catch (const std::exception&) { // no memory: its lenses go on saying that it is being measured
            }
        }
    }
    void measure(const Wanted& wanted, const CancelToken& cancel) {
        const lang::Rule& rule = wanted.checked->rule;
        const subject::Subject subject(rule);
        const auto settings = proof::settings_of(rule);
        std::vector<std::optional<proof::Outcome>> outcomes;
        for (const lang::ProofLine& line : proof::lines_of(rule))
            if (line.offered)
                outcomes.emplace_back(); // nobody asked
            else if (auto outcome = proof::check(subject, line, settings, cancel); outcome && !cancel.cancelled())
                outcomes.push_back(std::move(outcome));
            else
                return;
        {
            const std::lock_guard lock(state_mutex_);
            const auto found = state_.documents.find(wanted.uri);
            if (found == state_.documents.end() || found->second.text.clean() != wanted.text)
                return;
            found->second.measured_text = wanted.text;
            found->second.outcomes = std::move(outcomes);
            publish(wanted.uri, found->second);
            if (!state_.wishes.refreshes_lenses)
                return;
        }
        send({{"id", "lenses-" + std::to_string(++asked_)}, {"method", "workspace/codeLens/refresh"}});
    }

    std::function<void(const std::string&)> send_;
    std::map<std::string_view, const Method*> methods_;
    std::mutex sending_;
    std::mutex state_mutex_; ///< taken before `mutex_`
    State state_;
    std::atomic<bool> initialized_{false};
    std::mutex mutex_; ///< of all below
    std::condition_variable something_, rested_;
    std::deque<Json> queue_;
    std::set<std::string> cancelled_;
    std::deque<Wanted> wanted_;
    bool busy_ = true, any_dirty_ = false, measures_ = true, ending_ = false;
    CancelToken measuring_;
    int asked_ = 0; ///< by the measuring thread alone
    std::thread worker_, measurer_;
};

Server::Server(std::function<void(const std::string&)> send) : work_(std::make_unique<Work>(std::move(send))) {}
Server::~Server() = default;
bool Server::receive(std::string message) { return work_->receive(std::move(message)); }
void Server::settle() { work_->settle(false); }
void Server::settle_proofs() { work_->settle(true); }
int Server::exit_code() const { return work_->shut_down ? 0 : 1; }

} // namespace kasuri::lsp
