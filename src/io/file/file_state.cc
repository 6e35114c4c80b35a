#include "io/file/file_state.h"

#include <sys/stat.h>
#include <xxhash.h>

#include <chrono>
#include <cstdio>
#include <memory>
#include <system_error>
#include <vector>

#include "core/error.h"

namespace chalcedony {
namespace {

std::int64_t modified(const std::filesystem::path& path, std::error_code& error) {
  const auto time = std::filesystem::last_write_time(path, error);
  const auto since_1970 = std::chrono::file_clock::to_sys(time).time_since_epoch();
  return std::chrono::duration_cast<std::chrono::nanoseconds>(since_1970).count();
}

}  // namespace

std::string content_hash(const std::filesystem::path& path) {
  constexpr std::size_t kPart = 1 << 18;
  const std::unique_ptr<std::FILE, int (*)(std::FILE*)> file(std::fopen(path.c_str(), "rb"),
                                                             std::fclose);
  const std::unique_ptr<XXH3_state_t, XXH_errorcode (*)(XXH3_state_t*)> state(XXH3_createState(),
                                                                              XXH3_freeState);
  std::vector<char> part(kPart);
  XXH3_128bits_reset(state.get());
  while (file) {
    const std::size_t read = std::fread(part.data(), 1, part.size(), file.get());
    XXH3_128bits_update(state.get(), part.data(), read);
    if (read < part.size()) break;
  }
  if (!file || std::ferror(file.get()))
    throw InputError("cannot be read", "check its name and that you may read it", path.string());
  const XXH128_hash_t hash = XXH3_128bits_digest(state.get());
  char text[33];
  std::snprintf(text, sizeof text, "%016llx%016llx", static_cast<unsigned long long>(hash.high64),
                static_cast<unsigned long long>(hash.low64));
  return text;
}

std::optional<FileIdentity> identity_of(const std::filesystem::path& path) {
  struct stat facts {};
  if (::stat(path.c_str(), &facts) != 0) return std::nullopt;
  return FileIdentity{facts.st_dev, facts.st_ino};
}

FileState state_of(const std::filesystem::path& path) {
  FileState state;
  state.hash = content_hash(path);
  std::error_code error;
  state.bytes = std::filesystem::file_size(path, error);
  state.modified = modified(path, error);
  return state;
}

bool is_unchanged(const std::filesystem::path& path, const FileState& before, bool look_inside) {
  std::error_code error;
  if (std::filesystem::file_size(path, error) != before.bytes || error) return false;
  try {
    if (look_inside) return content_hash(path) == before.hash;
  } catch (const InputError&) {
    return false;
  }
  return modified(path, error) == before.modified && !error;
}

}  // namespace chalcedony
