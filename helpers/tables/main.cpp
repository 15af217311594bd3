// Tries, for Kasuri, files that OpenColorIO reads: it cannot be called off, and may not come back.
#include "io/config.hpp"
#include "io/lut_file.hpp"
#include "serve.hpp"

using namespace kasuri;
using wire::Message;

int main(int argc, char** argv) {
    return helpers::serve(argc, argv, [](const Message& asked, helpers::Caller& caller) {
        switch (asked.kind) {
        case Message::Kind::lut: (void)io::read_lut_here(asked.text, asked.more, asked.text); break;
        case Message::Kind::list: (void)io::read_cdl_here(asked.text); break;
        case Message::Kind::config: (void)io::load_config_here(asked.text); break;
        default: break;
        }
        // That it came back is the answer: what is wrong with the file is said by the one who asked, in its language.
        caller.say(Message::Kind::done);
    });
}
