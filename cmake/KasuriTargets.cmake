# One folder is one library. Sources are taken from the folder itself, so that a new file needs no
# entry here (CONFIGURE_DEPENDS looks again at every build).
set(KASURI_WARNINGS -Wall -Wextra -Wpedantic -Wshadow -Wconversion -Wno-sign-conversion
                    -Wnon-virtual-dtor -Woverloaded-virtual -Wimplicit-fallthrough -Werror)

if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU" AND CMAKE_CXX_COMPILER_VERSION VERSION_LESS 13)
  list(APPEND KASURI_WARNINGS -Wno-restrict) # GCC bug 105651: false alarms in std::string
endif()

# Explicit multiply-add only: contraction chosen by the compiler would make paths differ in last bits.
add_compile_options(-ffp-contract=off)
if(KASURI_SANITIZE)
  if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU")
    list(APPEND KASURI_WARNINGS -Wno-maybe-uninitialized) # false alarms in the library under instrumentation
  endif()
  add_compile_options(-fsanitize=${KASURI_SANITIZE} -fno-omit-frame-pointer)
  add_link_options(-fsanitize=${KASURI_SANITIZE})
endif()

function(kasuri_library name)
  cmake_parse_arguments(ARG "" "FOLDER" "USES;PRIVATE_USES" ${ARGN})
  file(GLOB_RECURSE sources CONFIGURE_DEPENDS ${ARG_FOLDER}/*.cpp ${ARG_FOLDER}/*.hpp)
  add_library(kasuri_${name} STATIC ${sources})
  target_include_directories(kasuri_${name} PUBLIC ${PROJECT_SOURCE_DIR}/core)
  target_compile_options(kasuri_${name} PRIVATE ${KASURI_WARNINGS})
  target_link_libraries(kasuri_${name} PUBLIC ${ARG_USES} PRIVATE ${ARG_PRIVATE_USES})
endfunction()
