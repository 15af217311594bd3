// The test library itself, compiled once for all test programs.
#define CATCH_CONFIG_RUNNER
#include "runner/runner.hpp"

#include <catch2/catch.hpp>

int kasuri::test::run_tests(int argc, char** argv) { return Catch::Session().run(argc, argv); }
