# cmake --install, and Debian packages by scripts/package. A component is a package; the table below says what each is.
include(GNUInstallDirs)

function(kasuri_install component)
  install(${ARGN} COMPONENT ${component})
endfunction()

kasuri_install(kasuri-cli TARGETS kasuri-cli RUNTIME)
if(KASURI_BUILD_APP)
  kasuri_install(kasuri TARGETS kasuri RUNTIME)
  kasuri_install(kasuri FILES packaging/kasuri.desktop DESTINATION ${CMAKE_INSTALL_DATADIR}/applications)
  kasuri_install(kasuri FILES packaging/kasuri-mime.xml DESTINATION ${CMAKE_INSTALL_DATADIR}/mime/packages RENAME kasuri.xml)
  kasuri_install(kasuri FILES packaging/kasuri.metainfo.xml DESTINATION ${CMAKE_INSTALL_DATADIR}/metainfo RENAME org.kasuri.Kasuri.metainfo.xml)
  kasuri_install(kasuri FILES packaging/kasuri.svg DESTINATION ${CMAKE_INSTALL_DATADIR}/icons/hicolor/scalable/apps)
  foreach(size 48 64 128 256)
    kasuri_install(kasuri FILES packaging/icons/kasuri-${size}.png DESTINATION ${CMAKE_INSTALL_DATADIR}/icons/hicolor/${size}x${size}/apps RENAME kasuri.png)
  endforeach()
  kasuri_install(kasuri FILES data/fonts/OFL.txt DESTINATION ${CMAKE_INSTALL_DATADIR}/doc/kasuri)
endif()
kasuri_install(kasuri-filters DIRECTORY data/filters data/looks DESTINATION ${CMAKE_INSTALL_DATADIR}/kasuri)
file(GLOB pages CONFIGURE_DEPENDS docs/*.md)
kasuri_install(kasuri-filters FILES ${pages} DESTINATION ${CMAKE_INSTALL_DATADIR}/doc/kasuri-filters)

# What the program says of itself.
find_program(KASURI_GZIP gzip)
add_custom_command(OUTPUT ${CMAKE_BINARY_DIR}/kasuri-cli.1.gz ${CMAKE_BINARY_DIR}/kasuri.1.gz ${CMAKE_BINARY_DIR}/changelog.gz ${CMAKE_BINARY_DIR}/kasuri-cli.bash ${CMAKE_BINARY_DIR}/_kasuri-cli ${CMAKE_BINARY_DIR}/kasuri-cli.fish ${CMAKE_BINARY_DIR}/kasuri-cli.schema.json
  COMMAND $<TARGET_FILE:kasuri-cli> docs man > ${CMAKE_BINARY_DIR}/kasuri-cli.1
  COMMAND $<TARGET_FILE:kasuri-cli> docs completion > ${CMAKE_BINARY_DIR}/kasuri-cli.bash
  COMMAND $<TARGET_FILE:kasuri-cli> docs zsh-completion > ${CMAKE_BINARY_DIR}/_kasuri-cli
  COMMAND $<TARGET_FILE:kasuri-cli> docs fish-completion > ${CMAKE_BINARY_DIR}/kasuri-cli.fish
  COMMAND $<TARGET_FILE:kasuri-cli> docs json-schema > ${CMAKE_BINARY_DIR}/kasuri-cli.schema.json
  COMMAND ${KASURI_GZIP} -9nf < ${CMAKE_BINARY_DIR}/kasuri-cli.1 > ${CMAKE_BINARY_DIR}/kasuri-cli.1.gz
  COMMAND ${KASURI_GZIP} -9nf < ${PROJECT_SOURCE_DIR}/packaging/kasuri.1 > ${CMAKE_BINARY_DIR}/kasuri.1.gz
  COMMAND ${KASURI_GZIP} -9nf < ${PROJECT_SOURCE_DIR}/packaging/changelog > ${CMAKE_BINARY_DIR}/changelog.gz
  DEPENDS kasuri-cli packaging/kasuri.1 packaging/changelog
  COMMENT "Writing the manual pages, the completions and the schema")
add_custom_target(kasuri_pages ALL DEPENDS ${CMAKE_BINARY_DIR}/kasuri-cli.1.gz ${CMAKE_BINARY_DIR}/kasuri-cli.bash)
kasuri_install(kasuri-cli FILES ${CMAKE_BINARY_DIR}/kasuri-cli.1.gz DESTINATION ${CMAKE_INSTALL_MANDIR}/man1)
kasuri_install(kasuri-cli FILES ${CMAKE_BINARY_DIR}/kasuri-cli.bash DESTINATION ${CMAKE_INSTALL_DATADIR}/bash-completion/completions RENAME kasuri-cli)
kasuri_install(kasuri-cli FILES ${CMAKE_BINARY_DIR}/_kasuri-cli DESTINATION ${CMAKE_INSTALL_DATADIR}/zsh/vendor-completions)
kasuri_install(kasuri-cli FILES ${CMAKE_BINARY_DIR}/kasuri-cli.fish DESTINATION ${CMAKE_INSTALL_DATADIR}/fish/vendor_completions.d)
kasuri_install(kasuri-cli FILES ${CMAKE_BINARY_DIR}/kasuri-cli.schema.json DESTINATION ${CMAKE_INSTALL_DATADIR}/kasuri)
if(KASURI_BUILD_APP)
  kasuri_install(kasuri FILES ${CMAKE_BINARY_DIR}/kasuri.1.gz DESTINATION ${CMAKE_INSTALL_MANDIR}/man1)
endif()

set(CPACK_GENERATOR DEB)
set(CPACK_DEB_COMPONENT_INSTALL ON)
set(CPACK_COMPONENTS_GROUPING IGNORE)
set(CPACK_PACKAGE_NAME kasuri)
set(CPACK_PACKAGE_CONTACT "The Kasuri developers <developers@kasuri.invalid>")
set(CPACK_DEBIAN_PACKAGE_SHLIBDEPS ON)
set(CPACK_DEBIAN_PACKAGE_SHLIBDEPS_PRIVATE_DIRS ${CMAKE_BINARY_DIR}/bin)
set(CPACK_DEBIAN_FILE_NAME DEB-DEFAULT)
set(CPACK_DEBIAN_PACKAGE_CONTROL_STRICT_PERMISSION ON)
set(CPACK_INSTALL_DEFAULT_DIRECTORY_PERMISSIONS OWNER_READ OWNER_WRITE OWNER_EXECUTE GROUP_READ GROUP_EXECUTE WORLD_READ WORLD_EXECUTE)
set(CPACK_STRIP_FILES ON)
set(CPACK_PACKAGING_INSTALL_PREFIX /usr)

set(CPACK_COMPONENTS_ALL)
# A row: the package, its section, what it needs beside its libraries, a line for people, and a paragraph.
function(kasuri_package name section architecture depends summary text)
  string(TOUPPER ${name} key)
  set(CPACK_COMPONENTS_ALL ${CPACK_COMPONENTS_ALL} ${name} PARENT_SCOPE)
  set(CPACK_DEBIAN_${key}_PACKAGE_NAME ${name} PARENT_SCOPE)
  set(CPACK_DEBIAN_${key}_PACKAGE_SECTION ${section} PARENT_SCOPE)
  set(CPACK_DEBIAN_${key}_PACKAGE_DEPENDS "${depends}" PARENT_SCOPE)
  set(CPACK_COMPONENT_${key}_DESCRIPTION "${summary}\n${text}" PARENT_SCOPE)
  if(architecture STREQUAL all)
    set(CPACK_DEBIAN_${key}_PACKAGE_ARCHITECTURE all PARENT_SCOPE)
    set(CPACK_DEBIAN_${key}_PACKAGE_SHLIBDEPS OFF PARENT_SCOPE)
  endif()
  kasuri_install(${name} FILES ${PROJECT_SOURCE_DIR}/packaging/copyright ${CMAKE_BINARY_DIR}/changelog.gz DESTINATION ${CMAKE_INSTALL_DATADIR}/doc/${name})
endfunction()
set(same "= ${PROJECT_VERSION}")
if(KASURI_BUILD_APP)
  kasuri_package(kasuri graphics any "kasuri-cli (${same}), kasuri-filters (${same})" "bench for per-pixel colour rules that carry their proofs"
    "Write channel expressions, mixing matrices, swaps and colour-space
conversions as text, tune them with sliders, look at them on ramps, charts
and pictures, and have their promises measured all the time.")
endif()
kasuri_package(kasuri-cli graphics any "kasuri-tables (${same})" "per-pixel colour rules on the command line"
  "Applies filters and looks to pictures, sequences and movies, checks what
they promise, bakes LUTs with their measured error, and serves editors that
speak the Language Server Protocol.")
kasuri_package(kasuri-tables graphics any "" "helping program of Kasuri that tries LUTs"
  "LUTs and colour configs are tried by this program before they are read, so
that a broken file cannot take the one down that reads it. Needed by kasuri-
cli and by the library.")
kasuri_package(libkasuri0 libs any "kasuri-tables (${same})" "engine for per-pixel colour rules - shared library"
  "Compiles rules, opens filters, looks and LUTs, applies them to pictures in
memory, measures what they promise and bakes them.")
kasuri_package(libkasuri-dev libdevel any "libkasuri0 (${same})" "engine for per-pixel colour rules - development files"
  "The C header, and what pkg-config and CMake need to know.")
kasuri_package(kasuri-filters graphics all "" "filters, looks and pages of Kasuri"
  "The filters and looks that come with Kasuri, and its pages: the language,
its functions, the sources of every formula.")
if(TARGET kasuri_python)
  kasuri_package(python3-kasuri python any "python3 (>= 3.11), python3 (<< 3.12), python3-numpy, libkasuri0 (${same})" "per-pixel colour rules over NumPy arrays"
    "The engine of Kasuri for Python: filters, looks and LUTs are called with
arrays of any strides, without a copy; colour spaces, models and readings
are functions.")
endif()
# A library's packages say which version of it is compatible, and have ldconfig run.
file(WRITE ${CMAKE_BINARY_DIR}/debian/shlibs "libkasuri 0 libkasuri0 (>= ${PROJECT_VERSION})\n")
file(WRITE ${CMAKE_BINARY_DIR}/debian/triggers "activate-noawait ldconfig\n")
# What Python has compiled goes with the package.
file(WRITE ${CMAKE_BINARY_DIR}/debian/prerm "#!/bin/sh\nset -e\nrm -rf /usr/lib/python3/dist-packages/kasuri/__pycache__\n")
file(CHMOD ${CMAKE_BINARY_DIR}/debian/prerm PERMISSIONS OWNER_READ OWNER_WRITE OWNER_EXECUTE GROUP_READ GROUP_EXECUTE WORLD_READ WORLD_EXECUTE)
set(CPACK_DEBIAN_PYTHON3-KASURI_PACKAGE_CONTROL_EXTRA ${CMAKE_BINARY_DIR}/debian/prerm)
set(CPACK_DEBIAN_LIBKASURI0_PACKAGE_CONTROL_EXTRA "${CMAKE_BINARY_DIR}/debian/shlibs;${CMAKE_BINARY_DIR}/debian/triggers")
include(CPack)
