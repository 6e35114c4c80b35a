#include "job/prepare/split.h"

#include "core/channel/channel_plan.h"
#include "core/pixel/interleave.h"
#include "io/picture/create_picture.h"
#include "io/picture/picture_writer.h"
#include "job/picture/inputs.h"
#include "job/picture/picture_output.h"
#include "job/repeat/picture_run.h"

namespace chalcedony {
namespace {

/// A gray file for one plane.
struct PlaneFile {
  std::string name;  // of the channel, or "alpha"
  PictureSpec spec;
  SampleScale scale;
  std::filesystem::path path;
  std::unique_ptr<PictureWriter> writer;
};

struct SplitBand {
  std::vector<EncodedRows> planes;
  Excluded excluded;
  std::uint64_t clipped = 0;
};

class SplitJob {
 public:
  SplitJob(const std::filesystem::path& input, const SplitOptions& options, const Context& context,
           Results& results)
      : options_(options),
        context_(context),
        picture_(open_counted(input, options.shared, context)),
        info_(picture_.file.info),
        plan_(info_, options.channels.empty() ? own_channels(info_) : options.channels,
              options.shared.hue_floor) {
    refuse_labels(picture_);
    if (results.wants("planes"))
      for (const Channel& channel : plan_.channels()) add_plane(channel, results);
    if (results.wants("alpha") && info_.alpha != AlphaKind::kNone) add_alpha(results);
  }

  Json run() {
    Excluded excluded;
    std::uint64_t clipped = 0;
    travel(
        *picture_.file.rows, road_for(picture_, options_.shared, context_),
        [this] { return Worker(*this); },
        [&](SplitBand&& band) {
          for (std::size_t f = 0; f < files_.size(); ++f) files_[f].writer->append(band.planes[f]);
          excluded += band.excluded;
          clipped += band.clipped;
        });
    Json json{{"file", picture_.file.path.string()},
              {"counted", info_.shape.pixels() - excluded.total()},
              {"excluded", excluded_json(excluded)},
              {"clipped", clipped},
              {"planes", Json::array()}};
    for (PlaneFile& file : files_) {
      file.writer->finish();
      json["planes"].push_back({{"plane", file.name}, {"file", file.path.string()}});
    }
    return json;
  }

 private:
  SampleType sample_of(const Channel& channel) const {
    if (options_.depth) return *options_.depth;
    const bool bytes = channel.is_stored() || channel.unit_name() == "0-255";
    return bytes || info_.is_float() ? info_.shape.sample : SampleType::kU16;
  }

  void add_plane(const Channel& channel, Results& results) {
    PictureSpec spec;
    spec.shape = {info_.shape.width, info_.shape.height, 1, sample_of(channel)};
    SampleScale scale{info_.full_scale / full_scale_of(spec.shape.sample), 0};
    if (!channel.is_stored()) {
      spec.plane = channel;
      scale = sample_scale(channel.info(), spec.shape.sample, full_scale_of(spec.shape.sample));
    }
    add(channel.name(), spec, scale, results);
  }

  void add_alpha(Results& results) {
    PictureSpec spec;
    spec.shape = {info_.shape.width, info_.shape.height, 1, info_.shape.sample};
    add("alpha", spec, {1 / full_scale_of(spec.shape.sample), 0}, results);
  }

  void add(const std::string& name, PictureSpec spec, SampleScale scale, Results& results) {
    spec.carried = picture_.file.facts.carried;
    const bool floats = spec.shape.sample == SampleType::kF32;
    const auto path = results.path(picture_.file.path, name, floats ? "tif" : "png");
    files_.push_back({name, spec, scale, path, create_picture(path, spec)});
  }

  /// One for each thread.
  class Worker {
   public:
    explicit Worker(SplitJob& job)
        : job_(&job), reader_(job.info_, job.picture_.counting), channels_(job.plan_) {}

    SplitBand operator()(const Band& band) {
      std::vector<std::vector<std::byte>> rows;
      for (const PlaneFile& file : job_->files_)
        rows.emplace_back(band.rows() * file.spec.shape.row_bytes());
      std::size_t done = 0;
      reader_.for_each_block(band, [&](const Block& block) {
        channels_.evaluate(block);
        for (std::size_t f = 0; f < rows.size(); ++f) {
          const PlaneFile& file = job_->files_[f];
          const float* const values = file.name == "alpha" ? block.alpha : channels_.channel(f);
          write_plane(values, block.size, 1, file.spec.shape.sample, 0, file.scale,
                      rows[f].data() + done * bytes_per_sample(file.spec.shape.sample));
        }
        done += block.size;
      });
      SplitBand out;
      for (std::size_t f = 0; f < rows.size(); ++f)
        out.planes.push_back(
            job_->files_[f].writer->encode(band.first_row(), band.rows(), std::move(rows[f])));
      out.excluded = reader_.take_excluded();
      out.clipped = channels_.take_clipped();
      return out;
    }

   private:
    SplitJob* job_;
    BlockReader reader_;
    ChannelEvaluator channels_;
  };

  const SplitOptions& options_;
  const Context& context_;
  CountedPicture picture_;
  PictureInfo info_;
  ChannelPlan plan_;
  std::vector<PlaneFile> files_;
};

}  // namespace

const std::vector<ResultKind>& split_results() {
  static const std::vector<ResultKind> kinds{
      {"planes", "<stem>.<channel>.png: each plane in gray (.tif when it holds floats)"},
      {"alpha", "<stem>.alpha.png: its alpha, when it has one"}};
  return kinds;
}

Json run_split(const SplitOptions& options, const Context& context) {
  PictureRun run("split", options.shared, context, split_results());
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    return SplitJob(input, options, its_context, run.results()).run();
  };
  return run.do_each(do_one);
}

}  // namespace chalcedony
