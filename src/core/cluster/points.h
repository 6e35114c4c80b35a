// What is grouped: points in a space of features, each with the pixels it stands for.
#ifndef CHALCEDONY_CORE_CLUSTER_POINTS_H_
#define CHALCEDONY_CORE_CLUSTER_POINTS_H_

#include <tbb/parallel_for.h>

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <vector>

namespace chalcedony {

/// A view; the numbers belong to who gathered them. All are finite, all weights above 0.
struct Points {
  std::size_t size = 0;
  std::vector<const float*> features;  // an array each
  const double* weights = nullptr;

  std::size_t dimensions() const { return features.size(); }
};

/// Copies the features of point i; `to` has room for as many as there are dimensions.
inline void copy_point(const Points& points, std::size_t i, double* to) {
  for (std::size_t f = 0; f < points.dimensions(); ++f)
    to[f] = static_cast<double>(points.features[f][i]);
}

/// Points are worked on in chunks whose borders depend on nothing but their number: sums made a
/// chunk and added in order are the same for any number of threads.
inline constexpr std::size_t kPointChunk = 8192;

inline std::size_t chunks_of(std::size_t points) {
  return (points + kPointChunk - 1) / kPointChunk;
}

/// Calls work(chunk, begin, end) for every chunk, in parallel.
template <class Work>
void for_each_chunk(std::size_t points, const Work& work) {
  tbb::parallel_for(std::size_t{0}, chunks_of(points), [&](std::size_t chunk) {
    const std::size_t begin = chunk * kPointChunk;
    work(chunk, begin, std::min(points, begin + kPointChunk));
  });
}

/// Adds up what work(begin, end) returns for every chunk, in the order of the chunks.
template <class Sum, class Work>
Sum sum_over_chunks(std::size_t points, Sum sum, const Work& work) {
  std::vector<Sum> parts(chunks_of(points), sum);
  for_each_chunk(points, [&](std::size_t chunk, std::size_t begin, std::size_t end) {
    parts[chunk] = work(begin, end);
  });
  for (const Sum& part : parts) sum += part;
  return sum;
}

/// Points drawn by weight: those that hold the pixels at even steps from a seeded start. A point of
/// many pixels may be drawn more than once.
std::vector<std::size_t> even_draw(const Points& points, std::size_t count, std::uint64_t seed);

/// How many points differ, counted up to `most`.
std::size_t differing_points(const Points& points, std::size_t most);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_CLUSTER_POINTS_H_
