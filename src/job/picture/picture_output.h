// Commands that make one picture of each input: where it goes, and the road that writes it.
#ifndef CHALCEDONY_JOB_PICTURE_PICTURE_OUTPUT_H_
#define CHALCEDONY_JOB_PICTURE_PICTURE_OUTPUT_H_

#include <cstddef>
#include <filesystem>
#include <memory>
#include <string_view>
#include <type_traits>
#include <utility>
#include <vector>

#include "core/pixel/road.h"
#include "core/pixel/row_buffers.h"
#include "io/file/folder_lock.h"
#include "io/picture/picture_spec.h"
#include "io/picture/picture_writer.h"
#include "job/picture/inputs.h"
#include "job/run/results.h"

namespace chalcedony {

/// Where the pictures of a run go: with one input, -o may name the file; else it names a folder.
class PictureOutput {
 public:
  /// Makes the folder. `command` is named where -o is missing, with an example of it.
  ///
  /// Errors    UsageError without -o, for a file's name that is no picture format, for one file's
  ///           name with several inputs, and for two inputs whose pictures would bear one name;
  ///           OutputError when the folder cannot be made
  PictureOutput(const SharedOptions& options, const Context& context, std::string_view command,
                std::string_view example);

  /// The file of an input: the one named, or `<stem>.<thing>` in the folder, as TIFF for floats and
  /// as PNG for all else. The ledger then knows it. May be called from any thread.
  ///
  /// Errors    OutputError when it exists and is to be kept, or is an input itself
  std::filesystem::path path(const std::filesystem::path& input, std::string_view thing,
                             SampleType sample) const;

  /// The file named, for a result beside the picture of an input.
  ///
  /// Errors    OutputError, as path()
  std::filesystem::path beside(const std::filesystem::path& input,
                               std::filesystem::path file) const;

  bool one_file() const { return one_file_; }

 private:
  const SharedOptions& options_;
  OutputGuard guard_;
  std::shared_ptr<RunLedger> ledger_;
  bool one_file_;
  std::unique_ptr<FolderLock> lock_;  // of a folder
};

/// How a picture like this is stored when written to `path` without a word about depth: as it is,
/// but for floats and deep samples that the format cannot hold.
SampleType sample_for(const std::filesystem::path& path, SampleType sample);

/// The name of a figure of a picture that is written: `<stem>.figure.<ext>` beside it.
std::filesystem::path figure_beside(std::filesystem::path output, FigureFormat format);

/// A file of the same kind as a picture; its alpha is straight.
PictureSpec spec_like(const PictureInfo& info);

/// The samples of a picture, as the file that is written holds them.
PictureInfo info_of(const PictureSpec& spec);

/// For commands that work on colors.
///
/// Errors    InputError for a mask or a class map, which names what is for them
void refuse_labels(CountedPicture& picture);

/// For commands that take means of neighbors: a hue near red would average to cyan.
///
/// Errors    InputError for a picture of a space with a hue
void refuse_hue(const PictureInfo& info, const std::filesystem::path& input);

/// Sends the bands of `source` through workers into a picture file of as many rows. A worker is
/// called as `worker(const Band&, std::byte* samples)`: it fills the rows of `out` that stand for
/// the band's own and returns what the band adds to the job's findings, which `add(Added&&)` takes
/// in order. The caller finishes the file.
template <class MakeWorker, class Add>
void travel_to_picture(RowSource& source, const RoadOptions& road, const RasterShape& out,
                       PictureWriter& writer, const MakeWorker& make_worker, const Add& add) {
  using Worker = decltype(make_worker());
  using Added = std::invoke_result_t<Worker&, const Band&, std::byte*>;
  struct WrittenBand {
    EncodedRows rows;
    Added added;
  };
  const std::size_t band_bytes = rows_per_band(source.shape(), road.halo) * out.row_bytes();
  RowBuffers buffers(bands_under_way(road), band_bytes);
  const auto make_encoder = [&] {
    return [&, worker = make_worker()](const Band& band) mutable {
      std::vector<std::byte> samples = buffers.take(out.row_bytes() * band.rows());
      Added added = worker(band, samples.data());
      return WrittenBand{writer.encode(band.first_row(), band.rows(), std::move(samples)),
                         std::move(added)};
    };
  };
  travel(source, road, make_encoder, [&](WrittenBand&& band) {
    writer.append(band.rows);
    buffers.give_back(band.rows.take_buffer());
    add(std::move(band.added));
  });
}

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_PICTURE_PICTURE_OUTPUT_H_
