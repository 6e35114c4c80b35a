// `chalcedony-fuzz --parser=NAME FOLDER [OPTION...]`: looks for bytes that a parser cannot stand,
// led by what they make it do; options are those of libFuzzer. `--write-seeds=FOLDER` first puts
// there what the parser reads.
#include <cstdint>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <iostream>
#include <string_view>

#include "core/error.h"
#include "tests/fuzz/parsers.h"
#include "tests/support/png_chunks.h"

namespace {

const chalcedony::test::Parser* parser = nullptr;

void write_seeds(const std::filesystem::path& folder) {
  std::filesystem::create_directories(folder);
  for (std::size_t i = 0; i < parser->seeds.size(); ++i)
    std::ofstream(folder / ("seed-" + std::to_string(i)), std::ios::binary) << parser->seeds[i];
}

}  // namespace

extern "C" std::size_t LLVMFuzzerMutate(std::uint8_t* data, std::size_t size, std::size_t most);

extern "C" int LLVMFuzzerInitialize(int* argc, char*** argv) {
  constexpr std::string_view kParser = "--parser=", kSeeds = "--write-seeds=";
  std::string_view seeds;
  for (int i = 1; i < *argc; ++i) {
    const std::string_view word = (*argv)[i];
    if (word.starts_with(kParser))
      parser = chalcedony::test::find_parser(std::string(word.substr(kParser.size())));
    if (word.starts_with(kSeeds)) seeds = word.substr(kSeeds.size());
  }
  if (!parser) {
    std::cerr << "say which: --parser=NAME, of";
    for (const auto& one : chalcedony::test::all_parsers()) std::cerr << ' ' << one.name;
    std::cerr << '\n';
    std::exit(2);
  }
  if (!seeds.empty()) write_seeds(seeds);
  return 0;
}

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
  try {
    parser->read({reinterpret_cast<const char*>(data), size});
  } catch (const chalcedony::Error&) {
    // It said what is wrong. Anything else ends the run.
  }
  return 0;
}

extern "C" std::size_t LLVMFuzzerCustomMutator(std::uint8_t* data, std::size_t size,
                                               std::size_t most, unsigned) {
  size = LLVMFuzzerMutate(data, size, most);
  const std::string mended =
      chalcedony::test::with_check_sums({reinterpret_cast<const char*>(data), size});
  std::copy(mended.begin(), mended.end(), data);
  return size;
}
