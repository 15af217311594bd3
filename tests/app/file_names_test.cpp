#include "model/file_names.hpp"

#include <catch2/catch.hpp>

using namespace kasuri::app;

TEST_CASE("names of files that are no UTF-8 come through texts and addresses as the bytes that they are",
          "[app][files]") {
    for (const std::string& name :
         {std::string("/tmp/plain.kasuri"),
          std::string("/tmp/gr\xc3\xbcn \xe2\x82\xac \xf0\x9f\x8f\xae.exr"), // well-formed
          std::string("/tmp/gr\xfcn.kasuri"), std::string("/\xff\xfe/\x80.exr"), std::string("/tmp/cut \xe2\x82"),
          std::string("/tmp/\xed\xa0\x80 surrogate"), std::string("/tmp/50% # ?.exr"), std::string()}) {
        INFO(name);
        CHECK(bytes_of(text_of(name)) == name);
        if (!name.empty())
            CHECK(bytes_of(local_file(url_of(text_of(name)))) == name);
    }
    CHECK(text_of("/tmp/gr\xc3\xbcn") == QString::fromUtf8("/tmp/gr\xc3\xbcn"));
    CHECK(url_of("/tmp/a b.exr") == QUrl::fromLocalFile("/tmp/a b.exr"));
    CHECK(local_file(QUrl("https://example.org/a.exr")).isEmpty());
}
