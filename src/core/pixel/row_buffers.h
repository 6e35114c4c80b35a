// Memory for rows on their way out, taken and given back instead of allocated for every band.
#ifndef CHALCEDONY_CORE_PIXEL_ROW_BUFFERS_H_
#define CHALCEDONY_CORE_PIXEL_ROW_BUFFERS_H_

#include <cstddef>
#include <mutex>
#include <utility>
#include <vector>

namespace chalcedony {

/// As many buffers as bands can be under way, all made at the start, so that peak memory depends
/// neither on the length of the picture nor on how threads are scheduled. Safe from any thread.
class RowBuffers {
 public:
  RowBuffers(std::size_t count, std::size_t bytes) : spare_(count, std::vector<std::byte>(bytes)) {}

  /// A buffer of this size; what it holds is left over from before.
  std::vector<std::byte> take(std::size_t bytes) {
    std::vector<std::byte> buffer;
    {
      const std::lock_guard lock(mutex_);
      if (!spare_.empty()) {
        buffer = std::move(spare_.back());
        spare_.pop_back();
      }
    }
    buffer.resize(bytes);
    return buffer;
  }

  void give_back(std::vector<std::byte> buffer) {
    const std::lock_guard lock(mutex_);
    spare_.push_back(std::move(buffer));
  }

 private:
  std::mutex mutex_;
  std::vector<std::vector<std::byte>> spare_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PIXEL_ROW_BUFFERS_H_
