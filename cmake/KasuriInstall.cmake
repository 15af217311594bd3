# cmake --install, and a Debian package by `cpack --config build/release/CPackConfig.cmake`.
include(GNUInstallDirs)

install(TARGETS kasuri-cli RUNTIME)
if(KASURI_BUILD_APP)
  install(TARGETS kasuri RUNTIME)
  install(FILES packaging/kasuri.desktop DESTINATION ${CMAKE_INSTALL_DATADIR}/applications)
  install(FILES packaging/kasuri-mime.xml DESTINATION ${CMAKE_INSTALL_DATADIR}/mime/packages RENAME kasuri.xml)
  install(FILES packaging/kasuri.svg DESTINATION ${CMAKE_INSTALL_DATADIR}/icons/hicolor/scalable/apps)
endif()
install(DIRECTORY data/filters data/looks DESTINATION ${CMAKE_INSTALL_DATADIR}/kasuri)
install(FILES LICENSE DESTINATION ${CMAKE_INSTALL_DOCDIR} RENAME copyright)
install(FILES data/fonts/OFL.txt DESTINATION ${CMAKE_INSTALL_DOCDIR})
install(DIRECTORY docs/ DESTINATION ${CMAKE_INSTALL_DOCDIR} FILES_MATCHING PATTERN "*.md" PATTERN decisions EXCLUDE PATTERN screenshots EXCLUDE)

# What the program says of itself.
add_custom_command(OUTPUT ${CMAKE_BINARY_DIR}/kasuri-cli.1 ${CMAKE_BINARY_DIR}/kasuri-cli.bash
  COMMAND $<TARGET_FILE:kasuri-cli> docs man > ${CMAKE_BINARY_DIR}/kasuri-cli.1
  COMMAND $<TARGET_FILE:kasuri-cli> docs completion > ${CMAKE_BINARY_DIR}/kasuri-cli.bash
  DEPENDS kasuri-cli
  COMMENT "Writing the manual page and the completion")
add_custom_target(kasuri_pages ALL DEPENDS ${CMAKE_BINARY_DIR}/kasuri-cli.1 ${CMAKE_BINARY_DIR}/kasuri-cli.bash)
install(FILES ${CMAKE_BINARY_DIR}/kasuri-cli.1 DESTINATION ${CMAKE_INSTALL_MANDIR}/man1)
install(FILES ${CMAKE_BINARY_DIR}/kasuri-cli.bash DESTINATION ${CMAKE_INSTALL_DATADIR}/bash-completion/completions RENAME kasuri-cli)

set(CPACK_GENERATOR DEB)
set(CPACK_PACKAGE_NAME kasuri)
set(CPACK_PACKAGE_CONTACT "The Kasuri developers <kasuri@localhost>")
set(CPACK_PACKAGE_DESCRIPTION_SUMMARY "Bench for per-pixel colour rules that carry their proofs")
set(CPACK_DEBIAN_PACKAGE_SECTION graphics)
set(CPACK_DEBIAN_PACKAGE_SHLIBDEPS ON)
set(CPACK_DEBIAN_FILE_NAME DEB-DEFAULT)
set(CPACK_STRIP_FILES ON)
set(CPACK_PACKAGING_INSTALL_PREFIX /usr)
include(CPack)
