#include "job/prepare/join.h"

#include <algorithm>
#include <utility>
#include <vector>

#include "core/channel/channel_plan.h"
#include "core/error.h"
#include "core/pixel/block_reader.h"
#include "core/pixel/block_writer.h"
#include "core/pixel/interleave.h"
#include "core/pixel/side_by_side.h"
#include "io/picture/create_picture.h"
#include "io/picture/picture_file.h"
#include "job/picture/inputs.h"
#include "job/picture/picture_output.h"
#include "job/picture/same_size.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

/// A plane of the joined picture, made of a channel of a file or of a number.
struct JoinedPlane {
  std::size_t file = 0;
  std::size_t channel = 0;  // in the file's plan
  SampleScale scale = {};   // from the values of the channel to those of the plane
  std::optional<float> constant;
  bool from_alpha = false;  // the alpha of the base
};

/// A file that gives planes, with the channels it gives.
struct JoinedFile {
  std::filesystem::path path;
  CountedPicture picture;
  std::vector<Channel> channels;
};

/// The lowest and the highest usual value.
using Range = std::pair<double, double>;

constexpr Range kAlphaRange{0, 1};

SampleScale scale_between(const Range& from, const Range& to) {
  const double factor = (to.second - to.first) / (from.second - from.first);
  return {factor, to.first - from.first * factor};
}

class JoinJob {
 public:
  JoinJob(const JoinOptions& options, const Context& context)
      : options_(options), context_(context) {
    const std::size_t base = options.base.empty() ? 0 : file_of(options.base);
    const std::size_t count = options.space->channel_count;
    for (std::size_t c = 0; c < count; ++c) {
      const Channel channel{options.space, c};
      if (options.planes[c]) {
        const Range range{channel.info().low, channel.info().high};
        planes_.push_back(plane_from(*options.planes[c], range));
      } else {
        planes_.push_back({base, channel_in(base, channel), {}, {}, false});
      }
    }
    if (options.alpha) {
      alpha_ = plane_from(*options.alpha, kAlphaRange);
      if (alpha_->constant) *alpha_->constant /= 100;
    } else if (!options.base.empty() && options.keep_alpha &&
               files_[base].picture.file.info.alpha != AlphaKind::kNone) {
      alpha_ = JoinedPlane{base, 0, {}, {}, true};
    }
    if (files_.empty())
      throw UsageError("every plane is a number, so the picture has no size",
                       "give a file for one of them, or a picture as the input");
  }

  Json run() {
    const std::filesystem::path &first = files_.front().path, &output = options_.shared.output;
    PictureSpec spec = spec_of();
    if (!options_.depth) spec.shape.sample = sample_for(output, spec.shape.sample);
    spec.carried = files_.front().picture.file.facts.carried;
    const auto writer = create_picture(output, spec);
    const BlockWriter stored(info_of(spec));
    RowSources sources;
    for (JoinedFile& file : files_) {
      plans_.emplace_back(file.picture.file.info, file.channels, options_.shared.hue_floor);
      sources.push_back(std::move(file.picture.file.rows));
    }
    SideBySide rows(std::move(sources));
    travel_to_picture(
        rows, road_for(first, spec.shape.height, options_.shared, context_), spec.shape, *writer,
        [&] { return Worker(*this, rows, stored); }, [](int) {});
    writer->finish();
    Json files = Json::array();
    for (const JoinedFile& file : files_) files.push_back(file.path.string());
    return {{"files", files},
            {"output", output.string()},
            {"space", std::string(options_.space->id)},
            {"alpha", spec.alpha},
            {"width", spec.shape.width},
            {"height", spec.shape.height}};
  }

 private:
  std::size_t file_of(const std::filesystem::path& path) {
    for (std::size_t f = 0; f < files_.size(); ++f)
      if (files_[f].path == path) return f;
    JoinedFile file{path, open_counted(path, options_.shared, context_), {}};
    if (!files_.empty())
      require_same_size(path, file.picture.shape(), "and " + files_.front().path.string() + " is",
                        files_.front().picture.shape(), "give planes of one size");
    files_.push_back(std::move(file));
    return files_.size() - 1;
  }

  std::size_t channel_in(std::size_t f, const Channel& channel) {
    std::vector<Channel>& channels = files_[f].channels;
    const auto found = std::find(channels.begin(), channels.end(), channel);
    if (found != channels.end()) return static_cast<std::size_t>(found - channels.begin());
    channels.push_back(channel);
    return channels.size() - 1;
  }

  JoinedPlane plane_from(const PlaneSource& source, const Range& range) {
    JoinedPlane plane;
    if (source.constant) {
      plane.constant = static_cast<float>(*source.constant);
      return plane;
    }
    plane.file = file_of(source.file);
    const FileFacts& facts = files_[plane.file].picture.file.facts;
    const PictureInfo& info = files_[plane.file].picture.file.info;
    if (!source.channel && info.color_channels() != 1)
      throw InputError("is not gray, so which of its channels is meant is not clear",
                       "name one, as in " + source.file.string() + ":srgb.r", source.file.string());
    const Channel channel = source.channel.value_or(Channel{nullptr, 0});
    // Floats of a plane that is not 0-255 are stored in its own units.
    const bool in_units =
        !source.channel && facts.plane && info.is_float() && facts.plane->unit_name() != "0-255";
    plane.channel = channel_in(plane.file, channel);
    plane.scale = scale_between(usual_range(in_units ? *facts.plane : channel, info), range);
    return plane;
  }

  PictureSpec spec_of() const {
    const RasterShape& size = files_.front().picture.shape();
    PictureSpec spec;
    spec.space = options_.space;
    spec.alpha = alpha_.has_value();
    const auto colors = static_cast<std::uint32_t>(options_.space->channel_count);
    SampleType sample = options_.space->is_rgb ? SampleType::kU8 : SampleType::kU16;
    for (const JoinedFile& file : files_) sample = std::max(sample, file.picture.shape().sample);
    spec.shape = {size.width, size.height, colors + (spec.alpha ? 1u : 0u),
                  options_.depth.value_or(sample)};
    return spec;
  }

  /// One for each thread.
  class Worker {
   public:
    Worker(const JoinJob& job, const SideBySide& rows, const BlockWriter& stored)
        : job_(&job), rows_(&rows), stored_(&stored) {
      for (std::size_t f = 0; f < job.files_.size(); ++f) {
        readers_.emplace_back(job.files_[f].picture.file.info, count_all());
        channels_.emplace_back(job.plans_[f]);
      }
    }

    int operator()(const Band& band, std::byte* samples) {
      const std::uint32_t width = stored_->info().shape.width;
      for (std::uint32_t y = 0; y < band.rows(); ++y)
        for (std::uint32_t x = 0; x < width; x += kBlockPixels) {
          const std::uint32_t row = band.first_row() + y;
          const std::size_t size = std::min<std::size_t>(kBlockPixels, width - x);
          join(band.row(row), std::uint64_t{row} * width + x, x, size, samples);
          samples += size * stored_->info().shape.pixel_bytes();
        }
      return 0;
    }

   private:
    void join(const std::byte* row, std::uint64_t pixel, std::uint32_t x, std::size_t size,
              std::byte* samples) {
      const float* base_alpha = nullptr;
      for (std::size_t f = 0; f < readers_.size(); ++f) {
        const std::byte* const part = row + rows_->part(f);
        const std::size_t pixel_bytes = job_->files_[f].picture.shape().pixel_bytes();
        const Block& block = readers_[f].read(part + x * pixel_bytes, pixel, size);
        channels_[f].evaluate(block);
        if (job_->alpha_ && job_->alpha_->from_alpha && job_->alpha_->file == f)
          base_alpha = block.alpha;
      }
      for (std::size_t c = 0; c < job_->planes_.size(); ++c) fill(job_->planes_[c], size, c);
      if (job_->alpha_ && !base_alpha) {
        fill(*job_->alpha_, size, 3);
        base_alpha = planes_.plane(3);
      }
      stored_->write(read_only(planes_.planes()), base_alpha, size, samples);
    }

    void fill(const JoinedPlane& plane, std::size_t n, std::size_t to) {
      float* const out = planes_.plane(to);
      if (plane.constant) {
        std::fill_n(out, n, *plane.constant);
        return;
      }
      const float* const values = channels_[plane.file].channel(plane.channel);
      read_plane(reinterpret_cast<const std::byte*>(values), 1, SampleType::kF32, 0, plane.scale,
                 out, n);
    }

    const JoinJob* job_;
    const SideBySide* rows_;
    const BlockWriter* stored_;
    std::vector<BlockReader> readers_;
    std::vector<ChannelEvaluator> channels_;
    PlaneBuffer planes_{4};
  };

  const JoinOptions& options_;
  const Context& context_;
  std::vector<JoinedFile> files_;
  std::vector<ChannelPlan> plans_;  // of the files
  std::vector<JoinedPlane> planes_;
  std::optional<JoinedPlane> alpha_;
};

/// The files of a join count as inputs, so that none of them is replaced.
SharedOptions with_files(const JoinOptions& options) {
  SharedOptions shared = options.shared;
  const auto add = [&](const std::optional<PlaneSource>& source) {
    if (source && !source->file.empty()) shared.inputs.push_back(source->file);
  };
  for (const auto& plane : options.planes) add(plane);
  add(options.alpha);
  return shared;
}

}  // namespace

Json run_join(const JoinOptions& options, const Context& context) {
  format_of(options.shared.output);
  OutputGuard(with_files(options)).check(options.shared.output);
  Json summary = summary_frame("join");
  summary["inputs"].push_back(JoinJob(options, context).run());
  summary["outputs"].push_back(options.shared.output.string());
  return summary;
}

}  // namespace chalcedony
