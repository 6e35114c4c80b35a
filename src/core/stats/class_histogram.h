// How the values of one channel are distributed in each of several classes.
#ifndef CHALCEDONY_CORE_STATS_CLASS_HISTOGRAM_H_
#define CHALCEDONY_CORE_STATS_CLASS_HISTOGRAM_H_

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/pixel/block.h"
#include "core/pixel/label.h"
#include "core/stats/binning.h"
#include "core/stats/peaks.h"

namespace chalcedony {

/// Counts of one channel, class by class. Values outside the bins and missing ones are counted as
/// beside the bins.
class ClassHistogram {
 public:
  ClassHistogram(Binning binning, std::size_t classes);

  /// Counts the counted pixels of a Block that have a class.
  ///
  /// Shape     a value and a class for each pixel; classes from 1 on, 0 is none
  void add(const Block& block, const float* values, const std::uint8_t* classes);
  /// Counts so many pixels of class c, numbered from 0 on, in a bin or beside the bins.
  void add(std::size_t c, std::int32_t bin, std::uint64_t count) {
    counts_[place_of(c + 1, bin)] += count;
  }
  /// Adds the counts of the same bins and classes.
  void merge(const ClassHistogram& other);
  /// Adds the counts of the same bins and of other classes.
  ///
  /// Shape     for each of those classes which one it is here
  void merge(const ClassHistogram& other, const std::vector<std::size_t>& class_here);

  const Binning& binning() const { return binning_; }
  std::size_t classes() const { return classes_; }
  /// Classes are numbered from 0 here and below.
  std::uint64_t count(std::size_t c, std::size_t bin) const {
    return at(c, static_cast<std::int32_t>(bin));
  }
  std::uint64_t beside(std::size_t c) const {
    return at(c, Binning::kBelow) + at(c, Binning::kAbove) + at(c, Binning::kNotANumber);
  }
  std::uint64_t total(std::size_t c) const;

  /// The shares, 0-1, of the pixels of a class in each bin; all 0 for a class without pixels.
  std::vector<double> shares(std::size_t c) const;

 private:
  /// Counters of one place, taken in turn by the pixels: neighbors are alike, and a counter that
  /// was just written is slow to read again.
  static constexpr std::size_t kCounters = 2;

  /// Where the counters of a bin begin, or of a place beside the bins; `numbered` from 1 on, and 0
  /// for pixels without a class, so that they need no test.
  std::size_t place_of(std::size_t numbered, std::int32_t bin) const {
    return kCounters * (numbered * stride_ + static_cast<std::size_t>(bin - Binning::kNotANumber));
  }
  std::uint64_t at(std::size_t c, std::int32_t bin) const {
    const std::size_t place = place_of(c + 1, bin);
    return counts_[place] + counts_[place + 1];
  }

  Binning binning_;
  std::size_t classes_, stride_;  // places of a class
  std::vector<std::uint64_t> counts_;
};

/// How much two classes have in common in a channel, 0-1: the sum over the bins, and over what is
/// beside them, of the smaller share. 0 where no value of one is a value of the other, 1 where they
/// are distributed alike; twice the least error of a rule that tells two equally frequent classes
/// apart by the bin alone.
///
/// Source    Weitzman (1970), Technical Report 22, U.S. Bureau of the Census; Inman and Bradley
///           (1989), Communications in Statistics 18(10), 3851-3874
double overlap(const ClassHistogram& histogram, std::size_t a, std::size_t b);

/// An interval of bins, and what of a class and of the others lies in it.
struct ClassInterval {
  BinRange bins;
  double own = 0;     // share of the class's pixels, 0-1
  double others = 0;  // mean of the shares of the other classes that have pixels

  double gain() const { return own - others; }
};

/// The share of a class, 0-1, that lies in a range of bins, which may go on at the first bin; 0 for
/// a class without pixels.
double share_in(const ClassHistogram& histogram, std::size_t c, const BinRange& bins);

/// The interval that takes most of a class beyond what it takes of the others; on a `circle` it may
/// go on at the first bin.
///
/// Range     a class with pixels
/// Source    the index of Youden (1950), Cancer 3(1), 32-35, at its maximum over intervals; found
///           as the largest sum of neighbors (Bentley 1984, Communications of the ACM 27(9))
ClassInterval best_interval(const ClassHistogram& histogram, std::size_t c, bool circle);

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_STATS_CLASS_HISTOGRAM_H_
