// Files that go with the inputs of a run, one with each, found by their names: a picture for every
// mask, a reference for every map.
#ifndef CHALCEDONY_JOB_RUN_PARTNER_FILES_H_
#define CHALCEDONY_JOB_RUN_PARTNER_FILES_H_

#include <cstddef>
#include <filesystem>
#include <map>
#include <string>
#include <vector>

#include "job/run/run_ledger.h"

namespace chalcedony {

/// Whether a file can be a partner, by its name.
using MayBePartner = bool (*)(const std::filesystem::path&);

/// Whether a file is of the kind that is wanted, by what is in it: only asked where several go with
/// an input alike.
using IsWanted = bool (*)(const std::filesystem::path&);

/// Whether a file is a picture or holds sample regions, by its name.
bool is_picture_or_samples(const std::filesystem::path& file);

/// The files that an option names where it takes one file, a folder of them, or a pattern: a path
/// whose last part holds one `*`, as `panels/*.reference.png`. In natural order; of a file itself.
///
/// Errors    InputError when a folder cannot be read
std::vector<std::filesystem::path> files_meant(const std::filesystem::path& named,
                                               MayBePartner may_be);

/// Whether a value is a pattern.
bool names_pattern(const std::filesystem::path& named);

/// Whether a value names one file, for all inputs, not a folder or a pattern.
bool names_one_file(const std::filesystem::path& named);

/// Errors    UsageError when there are several inputs and `option` names one file; `otherwise`, if
///           not empty, ends its advice
void require_one_each(const std::string& option, const std::filesystem::path& named,
                      std::size_t inputs, const std::string& otherwise = "");

/// Where the name of an input may be cut short to find the file it is called after.
enum class NameCuts {
  kPoints,           // `pane` of `pane.smooth.png`: of inputs that are pictures, whose masks and
                     // samples are called after them, pane-2.png is another one than pane.png
  kPointsAndHyphens  // `pane` of `pane-detail.mask.png` too: of inputs that were made of pictures
};

class PartnerFiles {
 public:
  PartnerFiles(const PartnerFiles&) = delete;
  PartnerFiles& operator=(const PartnerFiles&) = delete;
  /// `thing` is what a partner may be called besides, as `reference` in `pane.reference.png`. Of
  /// several that go with an input alike the only wanted one is meant.
  ///
  /// Errors    InputError when there is no such file or folder, or no file fits a pattern
  PartnerFiles(std::filesystem::path named, MayBePartner may_be, std::string thing = "",
               NameCuts cuts = NameCuts::kPointsAndHyphens, IsWanted wanted = nullptr);

  /// The file that goes with an input: one after whose name the input is called, where that may be
  /// cut. That name is what a pattern has up to the end of what `*` stands for (`pane-a` of
  /// `pane-*.mask.png`), or that alone, or in a folder, by how sure it is, the stem
  /// without the thing (`pane` of `pane.reference.png`), the stem (`pane` of `pane.png` for
  /// `pane.mask.png`), the input's own (`pane.png` for `pane.png` of another folder), or the stem
  /// without its last part (`pane` of `pane.samples.geojson` for `pane.classes.png`). The longest
  /// such name is meant. An input is never its own partner. Null when there is none.
  ///
  /// Errors    InputError when two go with it alike
  const std::filesystem::path* find(const std::filesystem::path& input) const;

  /// Whether one file goes with all inputs.
  bool one_for_all() const { return one_for_all_; }

  /// The same where there must be one.
  ///
  /// Errors    InputError when there is none, or two go with it alike
  const std::filesystem::path& of(const std::filesystem::path& input) const;
  /// The same to be read for the input, which is noted; one file that goes with all is not.
  const std::filesystem::path& of(const std::filesystem::path& input, RunLedger& ledger) const;

 private:
  using Files = std::vector<const std::filesystem::path*>;

  /// Those of `files` that are not the input.
  static Files without(const std::filesystem::path& input, const Files& files);
  const std::filesystem::path* only_one(const Files& files, const std::string& key,
                                        const std::filesystem::path& input) const;

  std::filesystem::path named_;
  std::string thing_;
  NameCuts cuts_;
  IsWanted wanted_;
  bool one_for_all_ = true, pattern_ = false;
  std::vector<std::filesystem::path> files_;
  std::map<std::string, Files> by_key_;        // what an input that goes with them begins with
  std::map<std::string, Files> by_short_key_;  // the same without its last part, or the first one
                                               // of a pattern
};

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_PARTNER_FILES_H_
