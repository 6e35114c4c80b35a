# What `cmake --install` puts where, and the Debian package. Two components: `program` (the tool, its
# manual pages, completion for bash) and `development` (core as a library for other programs).
include(GNUInstallDirs)
include(CMakePackageConfigHelpers)

install(TARGETS chalcedony_program
  RUNTIME DESTINATION "${CMAKE_INSTALL_BINDIR}" COMPONENT program)

set(pages "${CMAKE_BINARY_DIR}/pages")
add_custom_command(OUTPUT "${pages}/chalcedony.bash"
  COMMAND chalcedony_pages "${pages}"
  DEPENDS chalcedony_pages
  COMMENT "Writing manual pages and completion")
add_custom_target(pages ALL DEPENDS "${pages}/chalcedony.bash")
install(DIRECTORY "${pages}/man1" DESTINATION "${CMAKE_INSTALL_MANDIR}" COMPONENT program)
install(FILES "${pages}/chalcedony.bash"
  DESTINATION "${CMAKE_INSTALL_DATADIR}/bash-completion/completions" RENAME chalcedony
  COMPONENT program)
install(PROGRAMS scripts/shards/shards.sbatch scripts/shards/shards-parallel.sh
  DESTINATION "${CMAKE_INSTALL_DATADIR}/chalcedony" COMPONENT program)
install(FILES LICENSE DESTINATION "${CMAKE_INSTALL_DOCDIR}" RENAME copyright COMPONENT program)

set(config_folder "${CMAKE_INSTALL_LIBDIR}/cmake/chalcedony")
install(TARGETS chalcedony_core EXPORT chalcedonyTargets
  ARCHIVE DESTINATION "${CMAKE_INSTALL_LIBDIR}" COMPONENT development)
install(DIRECTORY src/core/ DESTINATION "${CMAKE_INSTALL_INCLUDEDIR}/chalcedony/core"
  COMPONENT development FILES_MATCHING PATTERN "*.h" PATTERN "*.inc")
install(EXPORT chalcedonyTargets NAMESPACE chalcedony:: DESTINATION "${config_folder}"
  COMPONENT development)
configure_package_config_file(cmake/chalcedonyConfig.cmake.in
  "${CMAKE_BINARY_DIR}/chalcedonyConfig.cmake" INSTALL_DESTINATION "${config_folder}")
write_basic_package_version_file("${CMAKE_BINARY_DIR}/chalcedonyConfigVersion.cmake"
  COMPATIBILITY SameMinorVersion)
install(FILES "${CMAKE_BINARY_DIR}/chalcedonyConfig.cmake"
  "${CMAKE_BINARY_DIR}/chalcedonyConfigVersion.cmake"
  DESTINATION "${config_folder}" COMPONENT development)

set(CPACK_GENERATOR DEB)
set(CPACK_PACKAGE_CONTACT "The Chalcedony authors <authors@chalcedony.invalid>")
set(CPACK_PACKAGING_INSTALL_PREFIX /usr)
set(CPACK_COMPONENTS_ALL program)
set(CPACK_DEB_COMPONENT_INSTALL ON)
set(CPACK_DEBIAN_PROGRAM_PACKAGE_NAME chalcedony)
set(CPACK_DEBIAN_PROGRAM_FILE_NAME DEB-DEFAULT)
set(CPACK_DEBIAN_PACKAGE_SECTION graphics)
set(CPACK_DEBIAN_PACKAGE_SHLIBDEPS ON)
set(CPACK_DEBIAN_PACKAGE_DEPENDS "gnuplot-nox, fonts-dejavu-core")
set(CPACK_STRIP_FILES ON)
include(CPack)
