#pragma once

namespace kasuri::test {

/// Catch's command line; returns what the shell gets.
int run_tests(int argc, char** argv);

} // namespace kasuri::test
