// Tries, for Kasuri, files that OpenColorIO reads: it cannot be called off, and may not come back.
#include "io/config.hpp"
#include "io/lut_file.hpp"
#include "serve.hpp"

using namespace kasuri;
using wire::Message;

int main(int argc, char** argv) {
    return helpers::serve(argc, argv, [](const Message& asked, helpers::Caller& caller) {
        bool good = false;
        switch (asked.kind) {
        case Message::Kind::lut: good = io::read_lut_here(asked.text, asked.more, "").ok(); break;
        case Message::Kind::list: good = io::read_cdl_here(asked.text).ok(); break;
        case Message::Kind::config: good = io::load_config_here(asked.text, io::context_of(asked.more)).ok(); break;
        default: break;
        }
        // That it came back is the answer: what is wrong with the file is said by the one who asked, in its language.
        Message answer{Message::Kind::done};
        answer.n[0] = good ? 0 : 1;
        (void)caller.link.send(answer);
    });
}
