# A layer is one static library with an include root of its own: `core/...` can be included only by
# a target that links chalcedony_core. The include root holds one link, named like the layer, to the
# layer's sources; there is no folder from which every layer could be reached.
#
# chalcedony_common_options(TARGET [QUICK|PLAIN]): QUICK marks code whose own speed does not matter
# (jobs, figures, texts, tests: the loops over pixels are in core and in the pictures of io), which the
# release build optimizes less to be compiled sooner; PLAIN, tests that only wait for the program.
function(chalcedony_common_options target)
  target_compile_options(${target} PRIVATE
    -Wall -Wextra -Wpedantic -Wshadow -Wnon-virtual-dtor -Wold-style-cast -Woverloaded-virtual
    -Wimplicit-fallthrough
    # GCC 12 sees overlaps in std::string's operator+ that are not there.
    $<$<CXX_COMPILER_ID:GNU>:-Wno-restrict>)
  # The same bytes on every machine: no fused multiply-add behind our back.
  target_compile_options(${target} PRIVATE -ffp-contract=off)
  if("PLAIN" IN_LIST ARGN)
    target_compile_options(${target} PRIVATE $<$<CONFIG:Release>:-O0>)
  elseif("QUICK" IN_LIST ARGN)
    target_compile_options(${target} PRIVATE $<$<CONFIG:Release>:-O1>
      $<$<AND:$<CONFIG:Release>,$<CXX_COMPILER_ID:GNU>>:-finline-small-functions>)
  endif()
  if(CHALCEDONY_WERROR)
    target_compile_options(${target} PRIVATE -Werror)
  endif()
  if(CHALCEDONY_SANITIZE)
    target_compile_options(${target} PRIVATE
      -fsanitize=${CHALCEDONY_SANITIZE} -fno-sanitize-recover=all -fno-omit-frame-pointer
      # GCC 12 sees it in std::function when the sanitizers are on.
      $<$<CXX_COMPILER_ID:GNU>:-Wno-maybe-uninitialized>)
    # What handles no samples has no place for misaligned ones, and null pointers stop it without
    # being looked for at every access, which takes a quarter of the time to compile.
    if("PLAIN" IN_LIST ARGN OR "QUICK" IN_LIST ARGN)
      target_compile_options(${target} PRIVATE -fno-sanitize=alignment,null,vptr)
    endif()
    target_link_options(${target} PUBLIC -fsanitize=${CHALCEDONY_SANITIZE})
  endif()
endfunction()

# chalcedony_layer(NAME [QUICK] FOLDER F SOURCES ... [QUICK_SOURCES ...] USES ...): QUICK_SOURCES are
# those of a layer whose speed does not matter where that of others does; they are compiled as a target
# of their own, chalcedony_NAME_quick.
function(chalcedony_layer name)
  cmake_parse_arguments(LAYER "QUICK" "FOLDER" "SOURCES;QUICK_SOURCES;USES" ${ARGN})
  set(root "${CMAKE_BINARY_DIR}/layers/${name}")
  file(MAKE_DIRECTORY "${root}")
  file(CREATE_LINK "${LAYER_FOLDER}" "${root}/${name}" SYMBOLIC)
  set(target chalcedony_${name})
  add_library(${target} STATIC ${LAYER_SOURCES})
  add_library(chalcedony::${name} ALIAS ${target})
  target_include_directories(${target} PUBLIC
    "$<BUILD_INTERFACE:${root}>" "$<INSTALL_INTERFACE:include/chalcedony>")
  set_target_properties(${target} PROPERTIES EXPORT_NAME ${name})
  target_link_libraries(${target} PUBLIC ${LAYER_USES})
  if(LAYER_QUICK)
    chalcedony_common_options(${target} QUICK)
  else()
    chalcedony_common_options(${target})
  endif()
  if(LAYER_QUICK_SOURCES)
    add_library(${target}_quick OBJECT ${LAYER_QUICK_SOURCES})
    target_include_directories(${target}_quick PRIVATE "${root}")
    target_link_libraries(${target}_quick PRIVATE ${LAYER_USES})
    chalcedony_common_options(${target}_quick QUICK)
    target_sources(${target} PRIVATE $<TARGET_OBJECTS:${target}_quick>)
  endif()
endfunction()

# The instruction sets of code that is compiled for each. Those between SSE2 and AVX2 gain too little
# here to be compiled as well, and Highway cannot read its own headers where the compiler is told to
# use what is beyond AVX3. One set is enough to be checked by the sanitizers, and takes a third of the
# time.
function(chalcedony_instruction_sets target scope)
  target_compile_definitions(${target} ${scope}
    "HWY_DISABLED_TARGETS=(HWY_SSSE3|HWY_SSE4|HWY_AVX3_DL)")
  if(CHALCEDONY_SANITIZE)
    target_compile_definitions(${target} ${scope} HWY_COMPILE_ONLY_STATIC)
  endif()
endfunction()

# Large headers of libraries that most files of a target include, read once. layers_test.cc finds an
# include that is missing all the same.
function(chalcedony_precompile target)
  if(CHALCEDONY_PRECOMPILE)
    target_precompile_headers(${target} PRIVATE ${ARGN})
    # With them GCC 12 warns of what it misreads inside std::string as if that were our own code.
    target_compile_options(${target} PRIVATE
      $<$<CXX_COMPILER_ID:GNU>:-Wno-stringop-overflow -Wno-array-bounds>)
  endif()
endfunction()

# Several files of a target compiled as one when CHALCEDONY_TOGETHER is on, so that what they all read
# of a library and make of a template is read and made once. Files whose code is compiled for each
# instruction set are read again for each: they get files of their own that are read again as a whole.
# GCC then has more to keep in mind, and would spend a tenth of its time on looking for what it may
# forget.
function(chalcedony_together target)
  if(NOT CHALCEDONY_TOGETHER)
    return()
  endif()
  get_target_property(sources ${target} SOURCES)
  list(FILTER sources INCLUDE REGEX "\\.cc$")
  set(vector_files "")
  foreach(source IN LISTS sources)
    file(STRINGS ${source} for_each_set REGEX "hwy/foreach_target" LIMIT_COUNT 1)
    if(for_each_set)
      list(APPEND vector_files ${source})
      list(REMOVE_ITEM sources ${source})
    endif()
  endforeach()
  # Even parts: a large one that comes last would keep one core alone.
  list(LENGTH sources count)
  math(EXPR parts "(${count} + 23) / 24")
  math(EXPR size "(${count} + ${parts} - 1) / ${parts}")
  set_target_properties(${target} PROPERTIES UNITY_BUILD ON UNITY_BUILD_BATCH_SIZE ${size})
  target_compile_options(${target} PRIVATE
    $<$<CXX_COMPILER_ID:GNU>:--param=ggc-min-heapsize=1000000>)
  chalcedony_vectors_together(${target} ${vector_files})
endfunction()

# Few files at once, since their code is most of the work. Without any optimization each of their
# instructions is a call, which makes them slower than it takes to optimize them.
function(chalcedony_vectors_together target)
  if(NOT ARGN)
    return()
  endif()
  math(EXPR last "${ARGC} - 2")
  set(part 0)
  foreach(first RANGE 0 ${last} 8)
    list(SUBLIST ARGN ${first} 8 files)
    set_source_files_properties(${files} PROPERTIES HEADER_FILE_ONLY ON)
    list(TRANSFORM files REPLACE "(.+)" "#include \"${CMAKE_CURRENT_SOURCE_DIR}/\\1\"")
    list(JOIN files "\n" CHALCEDONY_VECTOR_FILES)
    set(CHALCEDONY_TOGETHER_FILE "${CMAKE_BINARY_DIR}/together/${target}_vectors_${part}.cc")
    configure_file("${CMAKE_SOURCE_DIR}/cmake/vectors.cc.in" "${CHALCEDONY_TOGETHER_FILE}" @ONLY)
    set_source_files_properties("${CHALCEDONY_TOGETHER_FILE}" PROPERTIES
      SKIP_UNITY_BUILD_INCLUSION ON)
    if(CHALCEDONY_SANITIZE)
      set_source_files_properties("${CHALCEDONY_TOGETHER_FILE}" PROPERTIES COMPILE_OPTIONS -O1)
    endif()
    target_sources(${target} PRIVATE "${CHALCEDONY_TOGETHER_FILE}")
    math(EXPR part "${part} + 1")
  endforeach()
endfunction()
