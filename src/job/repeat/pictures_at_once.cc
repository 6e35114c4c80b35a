#include "job/repeat/pictures_at_once.h"

#include <tbb/parallel_for.h>
#include <tbb/task_arena.h>

#include <algorithm>
#include <exception>
#include <mutex>
#include <optional>
#include <vector>

#include "core/arena.h"

namespace chalcedony {
namespace {

// More pictures at once would take more memory, not less time: what is idle helps with those.
constexpr std::size_t kMostAtOnce = 16;

class AtOnce {
 public:
  AtOnce(std::size_t count, const PictureWork& work)
      : count_(count), work_(work), worked_(count, 0) {}

  /// What one thread does.
  void run() {
    while (const auto i = begin_next())
      if (went_well(*i, [&] { work_.work(*i); })) end_ready(*i);
  }

  void rethrow() const {
    if (error_) std::rethrow_exception(error_);
  }

 private:
  std::optional<std::size_t> begin_next() {
    const std::lock_guard lock(begin_mutex_);
    if (next_ == count_ || failed()) return std::nullopt;
    const std::size_t i = next_++;
    if (work_.begin && !went_well(i, [&] { work_.begin(i); })) return std::nullopt;
    return i;
  }

  /// Ends what is next in order and has been worked on.
  void end_ready(std::size_t i) {
    const std::lock_guard lock(end_mutex_);
    worked_[i] = 1;
    while (next_end_ < count_ && worked_[next_end_]) {
      const std::size_t ending = next_end_++;
      if (work_.end && !went_well(ending, [&] { work_.end(ending); })) next_end_ = count_;
    }
  }

  /// False when the part throws, which is kept unless a picture before it has. Isolated, so that a
  /// thread that waits for others does not begin another picture while it holds a lock.
  template <class Part>
  bool went_well(std::size_t i, const Part& part) {
    try {
      tbb::this_task_arena::isolate(part);
      return true;
    } catch (...) {
      const std::lock_guard lock(error_mutex_);
      if (!error_ || i < failed_at_) {
        error_ = std::current_exception();
        failed_at_ = i;
      }
      return false;
    }
  }

  bool failed() {
    const std::lock_guard lock(error_mutex_);
    return error_ != nullptr;
  }

  std::size_t count_;
  const PictureWork& work_;
  std::mutex begin_mutex_;
  std::size_t next_ = 0;
  std::mutex end_mutex_;
  std::size_t next_end_ = 0;
  std::vector<char> worked_;
  std::mutex error_mutex_;
  std::exception_ptr error_;
  std::size_t failed_at_ = 0;
};

}  // namespace

void for_pictures_at_once(const SharedOptions& options, std::size_t count,
                          const PictureWork& work) {
  AtOnce pictures(count, work);
  if (count == 1) {
    pictures.run();
  } else {
    in_arena(options.threads, [&] {
      const std::size_t at_once =
          std::min({std::size_t{threads_for(options.threads)}, kMostAtOnce, count});
      tbb::parallel_for(std::size_t{0}, at_once, [&](std::size_t) { pictures.run(); });
    });
  }
  pictures.rethrow();
}

}  // namespace chalcedony
