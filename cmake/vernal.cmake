# Standard, warnings and definitions for every target of the project.
add_library(vernal_options INTERFACE)
target_compile_features(vernal_options INTERFACE cxx_std_20)
target_compile_options(vernal_options INTERFACE -Wall -Wextra -Wpedantic -Wconversion -Wshadow)
# -Wrestrict, -Wstringop-overflow and -Warray-bounds misfire on std::string operator+ in GCC 12 (GCC bug 105651).
target_compile_options(vernal_options INTERFACE "$<$<CXX_COMPILER_ID:GNU>:-Wno-restrict;-Wno-stringop-overflow;-Wno-array-bounds>")
target_include_directories(vernal_options INTERFACE ${CMAKE_SOURCE_DIR})
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

# vernal_room(NAME SOURCES … LINKS …): a static library; its links are its walls.
function(vernal_room name)
  cmake_parse_arguments(ROOM "" "" "SOURCES;LINKS" ${ARGN})
  add_library(vernal_${name} STATIC ${ROOM_SOURCES})
  target_link_libraries(vernal_${name} PUBLIC vernal_options ${ROOM_LINKS})
endfunction()
