#include "io/picture/color_settling.h"

#include <cmath>
#include <memory>
#include <string>
#include <utility>
#include <vector>

#include "core/color/rgb_profile.h"
#include "core/error.h"
#include "core/pixel/profiled_rows.h"
#include "io/metadata/icc_profile.h"

namespace chalcedony {
namespace {

/// The space that code points name; null for none that is known.
///
/// Source    ITU-T H.273, tables 2 and 3: primaries 1 (BT.709), 9 (BT.2020), 12 (P3, D65); transfer
///           1, 6, 14 and 15 (that of BT.2020), 8 (linear), 13 (sRGB)
const Space* space_of_codes(const std::array<std::uint8_t, 4>& codes) {
  const auto [primaries, transfer, matrix, full_range] = codes;
  if (matrix != 0 || full_range != 1) return nullptr;
  if (primaries == 1 && transfer == 13) return &spaces::kSrgb;
  if (primaries == 1 && transfer == 8) return &spaces::kSrgbLinear;
  if (primaries == 12 && transfer == 13) return &spaces::kDisplayP3;
  const bool is_2020 = transfer == 1 || transfer == 6 || transfer == 14 || transfer == 15;
  return primaries == 9 && is_2020 ? &spaces::kRec2020 : nullptr;
}

/// Within what rounding to few digits leaves.
bool alike(const Primaries& a, const Primaries& b) {
  const auto near = [](const Chromaticity& p, const Chromaticity& q) {
    constexpr double kRounding = 6.05e-4;  // 60 units of PNG's 1/100000
    return std::abs(p.x - q.x) <= kRounding && std::abs(p.y - q.y) <= kRounding;
  };
  return near(a.red, b.red) && near(a.green, b.green) && near(a.blue, b.blue) &&
         near(a.white, b.white);
}

/// Goes down what a file says until something is honored.
class ColorSettling {
 public:
  ColorSettling(PictureFile& file, const ReadOptions& options)
      : file_(file),
        options_(options),
        is_label_(options.palette_indices || !file.facts.legend.empty()) {}

  void run() {
    by_note() || by_samples() || by_code_points() || by_profile() || by_user() || by_srgb_chunk() ||
        by_gamma() || by_exif() || take(options_.assumed(), "assumed");
    for (const std::string& one : not_honored_)
      file_.facts.warnings.push_back(one + "; taken as " + std::string(file_.info.space->id));
  }

 private:
  bool take(const Space& space, const std::string& from) {
    file_.info.space = &space;
    file_.facts.space_from = from;
    return true;
  }

  bool by_note() { return stated().noted && take(*stated().noted, "note of this program"); }

  bool by_samples() { return stated().stored && take(*stated().stored, "stored as L*a*b*"); }

  bool by_code_points() {
    if (!stated().code_points) return false;
    const auto& codes = *stated().code_points;
    if (const Space* const space = space_of_codes(codes)) return take(*space, "cICP chunk");
    not_honored_.push_back("its cICP chunk names the colors " + std::to_string(codes[0]) + "/" +
                           std::to_string(codes[1]) +
                           " of H.273, which are not known here, and is not honored");
    return false;
  }

  bool by_profile() {
    // What stands in a plane of a space are not the colors of a profile.
    if (stated().profile.empty() || is_label_ || file_.facts.plane) return false;
    try {
      const RgbProfile profile = parse_icc(stated().profile);
      if (profile.gray != (file_.info.color_channels() == 1))
        throw InputError("is of another kind of picture", "");
      return honor(profile,
                   profile.name.empty() ? "its color profile" : "profile '" + profile.name + "'");
    } catch (const InputError& error) {
      not_honored_.push_back("its color profile " + error.problem() + " and is not honored");
      return false;
    }
  }

  /// Where what the file says best cannot be honored, a given --assume decides.
  bool by_user() {
    return !not_honored_.empty() && options_.assume && take(*options_.assume, "assumed");
  }

  bool by_srgb_chunk() { return stated().srgb_chunk && take(spaces::kSrgb, "sRGB chunk"); }

  bool by_gamma() {
    if (stated().gamma <= 0) return false;
    const Primaries primaries = stated().primaries.value_or(kSrgbPrimaries);
    const std::string from = "gAMA and cHRM chunks";
    // What files with sRGB's own curve say, which is no power.
    if (stated().gamma >= 0.45 && stated().gamma <= 0.46 && alike(primaries, kSrgbPrimaries))
      return take(spaces::kSrgb, from);
    if (is_label_) return false;
    RgbProfile profile = profile_of_primaries(primaries, 1 / stated().gamma);
    profile.gray = file_.info.color_channels() == 1;
    return honor(profile, from);
  }

  bool by_exif() {
    switch (stated().exif) {
      case ExifColors::kSrgb:
        return take(spaces::kSrgb, "Exif");
      case ExifColors::kDcfOptional:
        return take(spaces::kA98Rgb, "Exif");
      case ExifColors::kUncalibrated:
        not_honored_.emplace_back(
            "its Exif data says that its colors are not sRGB, and not what they are");
        return false;
      case ExifColors::kNotSaid:
        break;
    }
    return false;
  }

  bool honor(const RgbProfile& profile, const std::string& from) {
    if (!tells_colors_apart(profile)) {
      not_honored_.emplace_back("its color profile does not tell colors apart and is not honored");
      return false;
    }
    if (const Space* const space = space_like(profile)) return take(*space, from);
    auto rows = std::make_unique<ProfiledRows>(std::move(file_.rows), file_.info, profile);
    file_.info = rows->info();
    file_.rows = std::move(rows);
    file_.facts.converted = true;
    file_.facts.space_from = from + ", converted to srgb floats";
    return true;
  }

  const StatedColor& stated() const { return file_.stated; }

  PictureFile& file_;
  const ReadOptions& options_;
  const bool is_label_;
  std::vector<std::string> not_honored_;
};

}  // namespace

void settle_color(PictureFile& file, const ReadOptions& options) {
  if (!file.info.bands) {
    ColorSettling(file, options).run();
    return;
  }
  // Nothing in a file is said of channels that the user picks out.
  file.info.space = file.stated.noted ? file.stated.noted : &options.assumed();
  file.facts.space_from = file.info.bands->named ? "assumed for the channels of --bands"
                                                 : "once --bands says which channels are a color";
  if (!file.stated.profile.empty())
    file.facts.warnings.emplace_back("its color profile is of other channels and is not honored");
}

}  // namespace chalcedony
