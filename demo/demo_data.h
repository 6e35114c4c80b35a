// Writes the files of the demo scenario.
#ifndef CHALCEDONY_DEMO_DEMO_DATA_H_
#define CHALCEDONY_DEMO_DEMO_DATA_H_

#include <filesystem>
#include <vector>

namespace chalcedony::demo {

/// Writes panels, samples, reference maps, the test card and the colors of the glass into a folder
/// that exists; returns the files. The same files are shipped in demo/data.
std::vector<std::filesystem::path> write_demo_data(const std::filesystem::path& folder);

}  // namespace chalcedony::demo

#endif  // CHALCEDONY_DEMO_DEMO_DATA_H_
