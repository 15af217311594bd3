#include "runner/runner.hpp"

int main(int argc, char** argv) { return kasuri::test::run_tests(argc, argv); }
