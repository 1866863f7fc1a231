# Standard, warnings and definitions for every target of the project.
add_library(vernal_options INTERFACE)
target_compile_features(vernal_options INTERFACE cxx_std_20)
target_compile_options(vernal_options INTERFACE -Wall -Wextra -Wpedantic -Wconversion -Wshadow)
# -Wrestrict, -Wstringop-overflow and -Warray-bounds misfire on std::string operator+ in GCC 12 (GCC bug 105651).
target_compile_options(vernal_options INTERFACE "$<$<CXX_COMPILER_ID:GNU>:-Wno-restrict;-Wno-stringop-overflow;-Wno-array-bounds>")
target_include_directories(vernal_options INTERFACE ${CMAKE_SOURCE_DIR})
# Half a gigabyte before the compiler looks for garbage: a seventh of its time. A linker that takes
# a third of the time, where there is one.
target_compile_options(vernal_options INTERFACE "$<$<CXX_COMPILER_ID:GNU>:--param=ggc-min-expand=200;--param=ggc-min-heapsize=524288>")
find_program(VERNAL_GOLD ld.gold)
if(VERNAL_GOLD AND CMAKE_CXX_COMPILER_ID STREQUAL "GNU" AND NOT VERNAL_SANITIZE)
  target_link_options(vernal_options INTERFACE -fuse-ld=gold)
endif()
if(VERNAL_WERROR)
  target_compile_options(vernal_options INTERFACE -Werror)
endif()
if(VERNAL_SANITIZE)
  target_compile_options(vernal_options INTERFACE -fsanitize=${VERNAL_SANITIZE} -fno-sanitize-recover=undefined -fno-omit-frame-pointer)
  target_link_options(vernal_options INTERFACE -fsanitize=${VERNAL_SANITIZE})
endif()
if(VERNAL_FUZZ)
  target_compile_options(vernal_options INTERFACE -fsanitize=fuzzer-no-link,address,undefined -fno-sanitize-recover=undefined -fno-omit-frame-pointer)
endif()

# Words, windows and tests are compiled for size: it takes a third of the time, and none of
# them is waited for. What computes (COMPUTES) keeps the configuration's own level.
add_library(vernal_small INTERFACE)
target_compile_options(vernal_small INTERFACE "$<$<CONFIG:Release>:-Os>")

# Headers that are read once for many sources. A source includes what it uses all the same:
# the presets debug and tidy go without.
set(vernal_headers_std <algorithm> <array> <charconv> <cmath> <cstdint> <functional> <map> <memory> <optional> <set> <span> <string> <string_view> <variant> <vector>)
set(vernal_headers_job ${vernal_headers_std} "${CMAKE_SOURCE_DIR}/core/job/job.h")

# vernal_headers(TARGET SET): SET is std, job or the name of another that a folder states;
# the first target of a set and level makes it, the others share it.
function(vernal_headers target set)
  get_target_property(level ${target} VERNAL_LEVEL)
  set(kept vernal_headers_of_${set}_${level})
  get_property(from GLOBAL PROPERTY ${kept})
  if(from)
    target_precompile_headers(${target} REUSE_FROM ${from})
  else()
    set_property(GLOBAL PROPERTY ${kept} ${target})
    target_precompile_headers(${target} PRIVATE ${vernal_headers_${set}})
  endif()
endfunction()

# vernal_room(NAME SOURCES … LINKS … [COMPUTES] [HEADERS std|job]): a static library; its links are its walls.
function(vernal_room name)
  cmake_parse_arguments(ROOM "COMPUTES" "HEADERS" "SOURCES;LINKS" ${ARGN})
  add_library(vernal_${name} STATIC ${ROOM_SOURCES})
  set_target_properties(vernal_${name} PROPERTIES UNITY_BUILD ${VERNAL_UNITY} UNITY_BUILD_BATCH_SIZE ${VERNAL_UNITY_BATCH})
  target_link_libraries(vernal_${name} PUBLIC vernal_options ${ROOM_LINKS})
  if(ROOM_COMPUTES)
    set_target_properties(vernal_${name} PROPERTIES VERNAL_LEVEL fast)
  else()
    target_link_libraries(vernal_${name} PRIVATE vernal_small)
    set_target_properties(vernal_${name} PROPERTIES VERNAL_LEVEL small)
  endif()
  if(ROOM_HEADERS)
    vernal_headers(vernal_${name} ${ROOM_HEADERS})
  endif()
endfunction()
