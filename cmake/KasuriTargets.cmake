# One folder is one library. Sources are taken from the folder itself, so that a new file needs no
# entry here (CONFIGURE_DEPENDS looks again at every build).
set(KASURI_WARNINGS -Wall -Wextra -Wpedantic -Wshadow -Wconversion -Wno-sign-conversion
                    -Wnon-virtual-dtor -Woverloaded-virtual -Wimplicit-fallthrough)
if(KASURI_WERROR)
  list(APPEND KASURI_WARNINGS -Werror)
endif()

if(CMAKE_CXX_COMPILER_ID STREQUAL "GNU" AND CMAKE_CXX_COMPILER_VERSION VERSION_LESS 13)
  # GCC bugs 105651 and 105329: false alarms in std::string, which from a precompiled header is no system header any more.
  list(APPEND KASURI_WARNINGS -Wno-restrict -Wno-stringop-overflow -Wno-stringop-overread -Wno-array-bounds)
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

# What is compiled again and again: with ccache, where it is installed, only once.
find_program(KASURI_CCACHE ccache)
if(KASURI_CCACHE AND NOT CMAKE_CXX_COMPILER_LAUNCHER)
  set(CMAKE_CXX_COMPILER_LAUNCHER ${CMAKE_COMMAND} -E env CCACHE_SLOPPINESS=pch_defines,time_macros ${KASURI_CCACHE})
  add_compile_options($<$<CXX_COMPILER_ID:GNU>:-fpch-preprocess>)
endif()

# Headers that many files of one kind include, read once: `kasuri_headers(NAME HEADERS ... USES ...)` makes them, `kasuri_precompiled(TARGET
# NAME)` takes them. Files still include what they need (-DCMAKE_DISABLE_PRECOMPILE_HEADERS=ON builds without).
function(kasuri_headers name)
  cmake_parse_arguments(ARG "" "" "HEADERS;USES;OPTIONS" ${ARGN})
  file(CONFIGURE OUTPUT ${CMAKE_BINARY_DIR}/headers/${name}.cpp CONTENT "// For the precompiled headers of ${name}.\n" @ONLY)
  add_library(kasuri_headers_${name} OBJECT ${CMAKE_BINARY_DIR}/headers/${name}.cpp)
  set_target_properties(kasuri_headers_${name} PROPERTIES AUTOMOC OFF)
  target_compile_options(kasuri_headers_${name} PRIVATE ${KASURI_WARNINGS} ${ARG_OPTIONS}) # -Wpedantic, for one, is seen by macros
  target_link_libraries(kasuri_headers_${name} PRIVATE ${ARG_USES})
  target_precompile_headers(kasuri_headers_${name} PRIVATE ${ARG_HEADERS})
endfunction()
function(kasuri_precompiled target name)
  target_precompile_headers(${target} REUSE_FROM kasuri_headers_${name})
endfunction()

# Headers are included as "NAME/file.hpp", or "PREFIX/NAME/file.hpp". Every library has an include folder of its own, with nothing in it but a link to its sources, so that
# the compiler finds what a library uses and nothing else: the arrows of docs/architecture.md hold or it does not build.
function(kasuri_library name)
  cmake_parse_arguments(ARG "" "FOLDER;PREFIX;HEADERS" "USES;PRIVATE_USES" ${ARGN})
  file(GLOB_RECURSE sources CONFIGURE_DEPENDS ${ARG_FOLDER}/*.cpp ${ARG_FOLDER}/*.hpp)
  set(include ${CMAKE_BINARY_DIR}/include/${name})
  file(MAKE_DIRECTORY ${include}/${ARG_PREFIX})
  get_filename_component(folder ${ARG_FOLDER} NAME)
  file(CREATE_LINK ${CMAKE_CURRENT_SOURCE_DIR}/${ARG_FOLDER} ${include}/${ARG_PREFIX}/${folder} SYMBOLIC)
  add_library(kasuri_${name} STATIC ${sources})
  target_include_directories(kasuri_${name} PUBLIC ${include})
  target_compile_options(kasuri_${name} PRIVATE ${KASURI_WARNINGS})
  target_link_libraries(kasuri_${name} PUBLIC ${ARG_USES} PRIVATE ${ARG_PRIVATE_USES})
  if(ARG_HEADERS)
    kasuri_precompiled(kasuri_${name} ${ARG_HEADERS})
  endif()
endfunction()
