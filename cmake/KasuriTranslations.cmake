# Another language: `cmake -DKASURI_LANGUAGE=de build/release && cmake --build build/release --target kasuri_words` writes (or brings up to date)
# data/translations/kasuri_de.ts, for Qt Linguist. Every .ts that lies there is compiled, tested and installed.
find_program(KASURI_LUPDATE lupdate HINTS /usr/lib/qt6/bin)
find_program(KASURI_LRELEASE lrelease HINTS /usr/lib/qt6/bin)
set(KASURI_LANGUAGE "de" CACHE STRING "The language of kasuri_words, such as de")
set(translations ${CMAKE_SOURCE_DIR}/data/translations)
find_package(Python3 COMPONENTS Interpreter)
if(KASURI_LUPDATE AND Python3_FOUND)
  file(MAKE_DIRECTORY ${translations})
  add_custom_target(kasuri_words
    COMMAND ${CMAKE_SOURCE_DIR}/tools/update_words.sh $<TARGET_FILE:kasuri-cli> ${KASURI_LUPDATE} ${CMAKE_BINARY_DIR} ${KASURI_LANGUAGE} ${translations}/kasuri_${KASURI_LANGUAGE}.ts
    DEPENDS kasuri-cli
    VERBATIM)
endif()
file(GLOB sources CONFIGURE_DEPENDS ${translations}/*.ts)
# Where the program looks for them, installed or not: ../share/kasuri/translations, seen from its own folder.
set(KASURI_TRANSLATIONS_DIR ${CMAKE_BINARY_DIR}/share/kasuri/translations)
if(KASURI_LRELEASE)
  file(MAKE_DIRECTORY ${KASURI_TRANSLATIONS_DIR})
  foreach(source ${sources})
    get_filename_component(name ${source} NAME_WE)
    add_custom_command(OUTPUT ${KASURI_TRANSLATIONS_DIR}/${name}.qm COMMAND ${KASURI_LRELEASE} -silent ${source} -qm ${KASURI_TRANSLATIONS_DIR}/${name}.qm DEPENDS ${source} VERBATIM)
    add_custom_target(${name}_qm ALL DEPENDS ${KASURI_TRANSLATIONS_DIR}/${name}.qm)
    list(APPEND KASURI_TRANSLATION_TARGETS ${name}_qm)
    if(TARGET kasuri) # whoever builds the program alone, as scripts/demo does, has its languages too
      add_dependencies(kasuri ${name}_qm)
    endif()
    install(FILES ${KASURI_TRANSLATIONS_DIR}/${name}.qm DESTINATION ${CMAKE_INSTALL_DATADIR}/kasuri/translations COMPONENT kasuri)
  endforeach()
endif()
