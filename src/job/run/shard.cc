#include "job/run/shard.h"

#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <tuple>

namespace chalcedony {
namespace {

/// Source    FNV-1a, 64 bits (Fowler, Noll and Vo)
std::uint64_t hash_of(const std::string& name) {
  std::uint64_t hash = 0xcbf29ce484222325;
  for (const char c : name) hash = (hash ^ static_cast<unsigned char>(c)) * 0x100000001b3;
  return hash;
}

}  // namespace

std::vector<bool> in_shard(const std::vector<std::filesystem::path>& inputs, const Shard& shard) {
  std::vector<std::tuple<std::uint64_t, std::string, std::size_t>> dealt;
  for (std::size_t i = 0; i < inputs.size(); ++i) {
    std::string name = inputs[i].lexically_normal().generic_string();
    const std::uint64_t hash = hash_of(name);
    dealt.emplace_back(hash, std::move(name), i);
  }
  std::sort(dealt.begin(), dealt.end());
  std::vector<bool> mine(inputs.size());
  for (std::size_t rank = 0; rank < dealt.size(); ++rank)
    mine[std::get<2>(dealt[rank])] = rank % shard.of == shard.number - 1;
  return mine;
}

}  // namespace chalcedony
