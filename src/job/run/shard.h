// The part of a run that one of several machines does.
#ifndef CHALCEDONY_JOB_RUN_SHARD_H_
#define CHALCEDONY_JOB_RUN_SHARD_H_

#include <filesystem>
#include <string>
#include <vector>

namespace chalcedony {

/// Shard `number` of `of`, counted from 1.
struct Shard {
  unsigned number = 1;
  unsigned of = 1;

  std::string text() const { return std::to_string(number) + "/" + std::to_string(of); }
};

/// Which of the inputs belong to a shard: by the order of the hashes of their names they are dealt
/// out in turn. So every machine that names the same inputs finds the same shards without asking
/// the others, no two shards differ by more than one picture, and neighbors in a folder, which tend
/// to be alike in size, are spread.
std::vector<bool> in_shard(const std::vector<std::filesystem::path>& inputs, const Shard& shard);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_SHARD_H_
