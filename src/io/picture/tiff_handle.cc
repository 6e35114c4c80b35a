#include "io/picture/tiff_handle.h"

#include <cstdarg>
#include <cstdio>

namespace chalcedony {
namespace {

/// Keeps the library's last words for our own message.
int keep_error(TIFF*, void* message, const char*, const char* format, va_list arguments) {
  char text[512];
  std::vsnprintf(text, sizeof text, format, arguments);
  *static_cast<std::string*>(message) = text;
  return 1;
}
int drop_warning(TIFF*, void*, const char*, const char*, va_list) { return 1; }

}  // namespace

TiffHandle open_tiff_quietly(const std::filesystem::path& path, std::string& message) {
  TIFFOpenOptions* options = TIFFOpenOptionsAlloc();
  TIFFOpenOptionsSetErrorHandlerExtR(options, keep_error, &message);
  TIFFOpenOptionsSetWarningHandlerExtR(options, drop_warning, nullptr);
  // m: do not map the file, or its whole size would count as our memory.
  TiffHandle tiff(TIFFOpenExt(path.c_str(), "rm", options));
  TIFFOpenOptionsFree(options);
  return tiff;
}

}  // namespace chalcedony
