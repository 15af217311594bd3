# Another language: `cmake -DKASURI_LANGUAGE=de build/release && cmake --build build/release --target kasuri_words` writes (or brings up to date)
# data/translations/kasuri_de.ts, for Qt Linguist. Every .ts that lies there is compiled and installed. Needs Debian's qt6-l10n-tools.
find_program(KASURI_LUPDATE lupdate HINTS /usr/lib/qt6/bin)
find_program(KASURI_LRELEASE lrelease HINTS /usr/lib/qt6/bin)
set(KASURI_LANGUAGE "" CACHE STRING "The language of kasuri_words, such as de")
set(translations ${CMAKE_SOURCE_DIR}/data/translations)
if(KASURI_LUPDATE AND KASURI_LANGUAGE)
  file(MAKE_DIRECTORY ${translations})
  add_custom_target(kasuri_words
    COMMAND $<TARGET_FILE:kasuri-cli> docs words > ${CMAKE_BINARY_DIR}/words.cpp
    COMMAND ${KASURI_LUPDATE} ${CMAKE_SOURCE_DIR}/app ${CMAKE_BINARY_DIR}/words.cpp -locations none -target-language ${KASURI_LANGUAGE} -ts ${translations}/kasuri_${KASURI_LANGUAGE}.ts
    DEPENDS kasuri-cli
    VERBATIM)
endif()
file(GLOB sources CONFIGURE_DEPENDS ${translations}/*.ts)
if(KASURI_LRELEASE)
  foreach(source ${sources})
    get_filename_component(name ${source} NAME_WE)
    add_custom_command(OUTPUT ${CMAKE_BINARY_DIR}/${name}.qm COMMAND ${KASURI_LRELEASE} ${source} -qm ${CMAKE_BINARY_DIR}/${name}.qm DEPENDS ${source} VERBATIM)
    add_custom_target(${name}_qm ALL DEPENDS ${CMAKE_BINARY_DIR}/${name}.qm)
    install(FILES ${CMAKE_BINARY_DIR}/${name}.qm DESTINATION ${CMAKE_INSTALL_DATADIR}/kasuri/translations)
  endforeach()
endif()
