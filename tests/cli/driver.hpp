#pragma once
#include <catch2/catch.hpp>

#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <random>
#include <string>
#include <sys/wait.h>

namespace kasuri::test {

struct Ran {
    int exit = 0;
    std::string out, err;
};

struct Folder {
    std::filesystem::path path =
        std::filesystem::temp_directory_path() / ("kasuri-cli-" + std::to_string(std::random_device{}()));
    Folder() { std::filesystem::create_directories(path); }
    ~Folder() { std::filesystem::remove_all(path); }
    std::string file(const std::string& name) const { return (path / name).string(); }
    std::string write(const std::string& name, const std::string& content) const {
        std::filesystem::create_directories((path / name).parent_path());
        std::ofstream(path / name, std::ios::binary) << content;
        return file(name);
    }
    std::string read(const std::string& name) const {
        std::ifstream in(path / name, std::ios::binary);
        return {std::istreambuf_iterator<char>(in), {}};
    }
};

/// Runs kasuri-cli through a shell with `input` on its standard input.
inline Ran cli(const Folder& folder, const std::string& arguments, const std::string& input = "") {
    folder.write("stdin", input);
    const std::string command = std::string(KASURI_CLI) + " " + arguments + " <" + folder.file("stdin") + " >" +
        folder.file("stdout") + " 2>" + folder.file("stderr");
    const int status = std::system(command.c_str());
    return {WEXITSTATUS(status), folder.read("stdout"), folder.read("stderr")};
}

} // namespace kasuri::test
