// Values of which every thread has its own.
#ifndef CHALCEDONY_CORE_PER_THREAD_H_
#define CHALCEDONY_CORE_PER_THREAD_H_

#include <tbb/enumerable_thread_specific.h>

#include <functional>
#include <memory>
#include <utility>

namespace chalcedony {

/// What PerThread holds, of whatever type, so that the container of it is compiled once.
struct HeldForThread {
  virtual ~HeldForThread() = default;
};

/// One value for each thread that asks for its own, made when it first does.
template <class T>
class PerThread {
 public:
  explicit PerThread(std::function<T()> make) : make_(std::move(make)) {}

  /// The value of the calling thread. Any number of threads may ask at once.
  T& local() {
    std::unique_ptr<HeldForThread>& held = held_.local();
    if (!held) held = std::make_unique<Held>(make_);
    return static_cast<Held&>(*held).value;
  }

  /// Calls use(value) for every value made so far, in no certain order. No thread may ask
  /// meanwhile.
  template <class Use>
  void for_each(const Use& use) {
    for (std::unique_ptr<HeldForThread>& held : held_)
      if (held) use(static_cast<Held&>(*held).value);
  }

  /// Forgets all values. No thread may ask meanwhile.
  void clear() { held_.clear(); }

 private:
  // What two threads write must not share a line of the cache.
  struct alignas(64) Held final : HeldForThread {
    explicit Held(const std::function<T()>& make) : value(make()) {}
    T value;
  };

  std::function<T()> make_;
  tbb::enumerable_thread_specific<std::unique_ptr<HeldForThread>> held_;
};

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_PER_THREAD_H_
