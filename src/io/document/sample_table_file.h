// Sample pixels on disk: the distinct rows of features of every class with their pixels, which add
// up.
#ifndef CHALCEDONY_IO_DOCUMENT_SAMPLE_TABLE_FILE_H_
#define CHALCEDONY_IO_DOCUMENT_SAMPLE_TABLE_FILE_H_

#include <filesystem>
#include <vector>

#include "core/channel/channel.h"
#include "core/learn/model.h"
#include "core/learn/sample_table.h"

namespace chalcedony {

/// Samples and what their classes and features are.
struct StoredSamples {
  std::vector<MapClass> classes;
  SampleTable samples;
};

/// Writes a table (docs/formats.md): class, color and pixels of each row, then its features.
///
/// Errors    OutputError
void write_sample_table(const std::filesystem::path& path, const std::vector<MapClass>& classes,
                        const std::vector<Channel>& features, const SampleTable& samples);

/// Reads a table of these features.
///
/// Errors    InputError for a file that is none, or of other features
StoredSamples read_sample_table(const std::filesystem::path& path,
                                const std::vector<Channel>& features);

}  // namespace chalcedony

#endif  // CHALCEDONY_IO_DOCUMENT_SAMPLE_TABLE_FILE_H_
