#include "job/prepare/correct.h"

#include <string>
#include <vector>

#include "core/color/conversion.h"
#include "core/error.h"
#include "core/gamut/gamut_count.h"
#include "core/pixel/block_writer.h"
#include "io/document/correction_file.h"
#include "io/file/atomic_file.h"
#include "io/picture/create_picture.h"
#include "job/picture/picture_output.h"
#include "job/prepare/judged_patches.h"
#include "job/repeat/each_input.h"
#include "job/run/results.h"

namespace chalcedony {
namespace {

struct CorrectedBand {
  Excluded excluded;
  GamutCount gamut;  // what the file cuts off
};

class CorrectJob {
 public:
  CorrectJob(const std::filesystem::path& input, const CorrectOptions& options,
             const Context& context)
      : options_(options), context_(context), picture_(open_color(input, options.shared, context)) {
    refuse_labels(picture_);
    const PictureInfo& info = picture_.file.info;
    if (info.color_channels() != 3 || !info.space->is_rgb)
      throw InputError(info.color_channels() != 3
                           ? "is gray, and correct works on colors"
                           : "holds " + std::string(info.space->id) + ", and correct works on RGB",
                       info.color_channels() != 3 ? "leave it out" : "convert it first",
                       input.string());
  }

  Json run(const PictureOutput& place, FigureFormat format) {
    Json report{{"file", picture_.file.path.string()}};
    std::vector<JudgedPatch> patches;
    Affine correction;
    if (options_.apply) {
      correction = read_correction(*options_.apply);
    } else {
      keep_rows(picture_);
      patches =
          judge_patches(picture_, options_.patches, options_.known, options_.shared, context_);
      correction = errors_at(picture_.file.path.string(), [&] { return correction_by(patches); });
    }
    if (options_.save)
      write_text_file(place.beside(picture_.file.path, *options_.save),
                      correction_text(correction));
    const auto output = write(place, correction, report);
    report["matrix"] = correction.m;
    if (options_.apply) return report;
    report_patches(patches, report);
    if (format != FigureFormat::kNone) {
      const std::filesystem::path figure =
          place.beside(picture_.file.path, figure_beside(output, format));
      Plot plot(format);
      draw_patches(plot, figure, picture_.name(), patches, correction);
      draw_figures(plot, context_);
    }
    return report;
  }

 private:
  std::filesystem::path write(const PictureOutput& place, const Affine& correction, Json& report) {
    const PictureInfo& info = picture_.file.info;
    PictureSpec spec = spec_like(info);
    const auto output = place.path(picture_.file.path, "corrected", spec.shape.sample);
    spec.shape.sample = sample_for(output, spec.shape.sample);
    spec.carried = picture_.file.facts.carried;
    const auto writer = create_picture(output, spec);
    const BlockWriter stored(info_of(spec));
    const Conversion corrected = Conversion::mapped_in(spaces::kXyzD50, correction, *info.space);
    CorrectedBand sums;
    const auto make_worker = [&] {
      return [&, reader = BlockReader(info, picture_.counting), planes = PlaneBuffer()](
                 const Band& band, std::byte* samples) mutable {
        CorrectedBand out;
        reader.for_each_block(band, [&](const Block& block) {
          corrected.run(block.color, planes.planes(), block.size);
          const ConstPlanes rgb = read_only(planes.planes());
          stored.write(rgb, block.alpha, block.size, samples);
          samples += block.size * spec.shape.pixel_bytes();
          out.gamut.add(block, rgb, stored.info());
        });
        out.excluded = reader.take_excluded();
        return out;
      };
    };
    travel_to_picture(*picture_.file.rows, road_for(picture_, options_.shared, context_),
                      spec.shape, *writer, make_worker, [&](const CorrectedBand& band) {
                        sums.excluded += band.excluded;
                        sums.gamut += band.gamut;
                      });
    writer->finish();
    const std::uint64_t counted = info.shape.pixels() - sums.excluded.total();
    report["output"] = output.string();
    report["counted"] = counted;
    report["excluded"] = excluded_json(sums.excluded);
    report["out_of_gamut_percent"] = percent(sums.gamut.outside, counted);
    report["largest_excess"] = sums.gamut.largest_excess;
    return output;
  }

  const CorrectOptions& options_;
  const Context& context_;
  CountedPicture picture_;
};

}  // namespace

Json run_correct(const CorrectOptions& options, const Context& context) {
  const PictureOutput place(options.shared, context, "correct", "corrected.png");
  if (options.save) OutputGuard(options.shared).check(*options.save);
  const FigureFormat format = settle_figures(options.shared, context);
  Json summary = summary_frame("correct");
  const auto do_one = [&](const std::filesystem::path& input, const Context& its_context) {
    return CorrectJob(input, options, its_context).run(place, format);
  };
  for_each_input(options.shared, context, summary, do_one);
  return summary;
}

}  // namespace chalcedony
