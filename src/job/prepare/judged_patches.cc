#include "job/prepare/judged_patches.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

#include "core/balance/patch_sums.h"
#include "core/color/conversion.h"
#include "core/error.h"
#include "figure/patch_figure.h"
#include "io/document/known_colors_file.h"
#include "job/picture/band_sums.h"

namespace chalcedony {
namespace {

PatchSums light_of_patches(CountedPicture& picture, const NamedSamples& named,
                           const SharedOptions& options, const Context& context) {
  const RasterShape& shape = picture.shape();
  const std::vector<SampleRun> runs =
      errors_at(named.from, [&] { return sample_runs(named.samples, shape.width, shape.height); });
  const Conversion to_light(*picture.file.info.space, spaces::kXyzD50);
  constexpr float kFull = 255;
  PatchSums sums(named.samples.classes.size(),
                 picture.file.info.is_float() ? std::numeric_limits<float>::infinity() : kFull);
  sum_bands(picture, options, context, sums, [&] {
    return [&, light = PlaneBuffer()](PatchSums& band, const Block& block) mutable {
      if (!has_sample_pixel(runs, block.picture_width, block.first_pixel,
                            block.first_pixel + block.size))
        return;
      to_light.run(block.color, light.planes(), block.size);
      band.add(block, read_only(light.planes()), runs);
    };
  });
  picture.file.rows->rewind();
  return sums;
}

std::vector<std::string> names_of(const std::vector<KnownColor>& colors) {
  std::vector<std::string> names;
  for (const KnownColor& color : colors) names.push_back(color.name);
  return names;
}

const Color& known_color(const std::vector<KnownColor>& known, const std::string& name,
                         const std::filesystem::path& path) {
  const auto found = std::find_if(known.begin(), known.end(),
                                  [&](const KnownColor& one) { return one.name == name; });
  if (found == known.end())
    throw InputError("does not know the color of the patch '" + name + "'",
                     "add a line for it, or leave the patch out", path.string());
  return found->color;
}

void judge(JudgedPatch& patch, const PatchSum& sum) {
  patch.pixels = sum.pixels;
  patch.full_percent = percent(sum.full, sum.pixels);
  patch.used = patch.full_percent <= kMostFull;
  patch.light = {sum.mean(), patch.known.in(spaces::kXyzD50)};
  patch.before = differences_from_known({patch.light}, ColorCorrection()).front();
}

Color color_of_light(const std::array<double, 3>& xyz) { return {&spaces::kXyzD50, xyz}; }

Json lab_json(const Color& color) {
  const auto [l, a, b] = color.in(spaces::kLab);
  return {{"l", l}, {"a", a}, {"b", b}};
}

struct Differences {
  double mean = 0, most = 0;
  std::size_t patches = 0;
};

/// Mean and maximum of a difference over the patches that are used and have it.
Differences over_patches(const std::vector<JudgedPatch>& patches, double JudgedPatch::*field) {
  Differences over;
  for (const JudgedPatch& patch : patches) {
    if (!patch.used || std::isnan(patch.*field)) continue;
    over.mean += patch.*field;
    over.most = std::max(over.most, patch.*field);
    ++over.patches;
  }
  if (over.patches > 0) over.mean /= static_cast<double>(over.patches);
  return over;
}

/// How far the patches that are used would be off on average if all had their names in the opposite
/// order.
double mean_half_a_turn_around(const std::vector<JudgedPatch>& patches) {
  std::vector<KnownPatch> turned;
  for (std::size_t p = 0; p < patches.size(); ++p)
    if (patches[p].used)
      turned.push_back({patches[p].light.found, patches[patches.size() - 1 - p].light.known});
  const auto off =
      differences_from_known(turned, fitted_correction(turned, CorrectionKind::kMatrix));
  return std::accumulate(off.begin(), off.end(), 0.0) / static_cast<double>(off.size());
}

std::vector<KnownPatch> light_used(const std::vector<JudgedPatch>& patches) {
  std::vector<KnownPatch> used;
  for (const JudgedPatch& patch : patches)
    if (patch.used) used.push_back(patch.light);
  return used;
}

Json json_of(const Differences& over) { return {{"mean", over.mean}, {"max", over.most}}; }

}  // namespace

std::vector<JudgedPatch> judge_patches(CountedPicture& picture, const PatchSource& source,
                                       const SharedOptions& options, const Context& context) {
  const std::vector<KnownColor> colors = read_known_colors(source.known);
  const NamedSamples named =
      patches_of_input(source.places, names_of(colors), 0, picture, options, context);
  std::vector<JudgedPatch> patches;
  for (const SampleClass& sampled : named.samples.classes) {
    JudgedPatch& patch = patches.emplace_back();
    patch.name = sampled.name;
    patch.known = known_color(colors, sampled.name, source.known);
  }
  const PatchSums sums = light_of_patches(picture, named, options, context);
  for (std::size_t p = 0; p < patches.size(); ++p) {
    if (sums[p].pixels == 0)
      throw InputError("the patch '" + patches[p].name + "' has no pixel that counts",
                       "draw it larger, or leave it out", named.from);
    judge(patches[p], sums[p]);
    if (!patches[p].used)
      context.warn(fmt::format(
          "{}: {:.3g} % of the patch '{}' are at full scale, so that its color is cut off; it is "
          "not used",
          picture.file.path.string(), patches[p].full_percent, patches[p].name));
  }
  return patches;
}

ColorCorrection correction_by(std::vector<JudgedPatch>& patches, CorrectionKind kind) {
  const std::vector<KnownPatch> used = light_used(patches);
  const ColorCorrection correction = fitted_correction(used, kind);
  const std::vector<double> left_out = left_out_differences(used, correction, kind);
  auto next = left_out.begin();
  for (JudgedPatch& patch : patches) {
    patch.after = differences_from_known({patch.light}, correction).front();
    if (patch.used) patch.left_out = *next++;
  }
  return correction;
}

std::optional<double> mean_with_tone_undone(const std::vector<JudgedPatch>& patches) {
  constexpr double kMuch = 0.3, kMuchOfAll = 0.25;  // nearer, in CIEDE2000 and as a share
  const double mean = over_patches(patches, &JudgedPatch::left_out).mean;
  if (light_used(patches).size() < fewest_patches(CorrectionKind::kToneAndMatrix)) return {};
  std::vector<JudgedPatch> without_tone = patches;
  correction_by(without_tone, CorrectionKind::kToneAndMatrix);
  const double other = over_patches(without_tone, &JudgedPatch::left_out).mean;
  if (mean - other < std::max(kMuch, kMuchOfAll * mean)) return {};
  return other;
}

std::string doubt_of(const std::vector<JudgedPatch>& patches) {
  const double mean = over_patches(patches, &JudgedPatch::after).mean;
  if (mean <= kDoubtfulMean) return "";
  std::string doubt = fmt::format(
      "corrected, the patches are still {:.1f} off on average; see whether each has the name of "
      "its color",
      mean);
  const double turned = mean_half_a_turn_around(patches);
  if (turned < mean / 2)
    doubt += fmt::format(
        ". In the opposite order they are {:.1f} off: the target may stand on its head", turned);
  return doubt;
}

void report_patches(const std::vector<JudgedPatch>& patches, Json& summary) {
  Json list = Json::array();
  for (const JudgedPatch& patch : patches) {
    Json one{{"name", patch.name},
             {"pixels", patch.pixels},
             {"used", patch.used},
             {"full_scale_percent", patch.full_percent},
             {"known", lab_json(patch.known)},
             {"found", lab_json(color_of_light(patch.light.found))},
             {"before", patch.before},
             {"after", patch.after}};
    if (patch.used && !std::isnan(patch.left_out)) one["left_out"] = patch.left_out;
    list.push_back(std::move(one));
  }
  summary["patches"] = std::move(list);
  summary["before"] = json_of(over_patches(patches, &JudgedPatch::before));
  summary["after"] = json_of(over_patches(patches, &JudgedPatch::after));
  const Differences left_out = over_patches(patches, &JudgedPatch::left_out);
  if (left_out.patches > 0) summary["left_out"] = json_of(left_out);
}

void draw_patches(Plot& plot, const std::filesystem::path& path, const std::string& name,
                  const std::vector<JudgedPatch>& patches, const ColorCorrection& correction) {
  std::vector<ShownPatch> shown;
  for (const JudgedPatch& patch : patches)
    shown.push_back({patch.name, color_of_light(patch.light.found), patch.known,
                     color_of_light(correction.of(patch.light.found)), patch.before, patch.after});
  const Differences left_out = over_patches(patches, &JudgedPatch::left_out);
  std::string subtitle = fmt::format("delta E 2000 on average: {:.2f} before, {:.2f} after",
                                     over_patches(patches, &JudgedPatch::before).mean,
                                     over_patches(patches, &JudgedPatch::after).mean);
  if (left_out.patches > 0)
    subtitle += fmt::format(", {:.2f} by the correction of all other patches", left_out.mean);
  add_patch_figure(plot, path, name, subtitle, shown);
}

}  // namespace chalcedony
