// TIFF through libtiff: uncompressed strips in the order rows come; BigTIFF past 4 GB.
#include <memory>
#include <string>

#include "core/error.h"
#include "io/file/atomic_file.h"
#include "io/metadata/icc_writer.h"
#include "io/metadata/space_note.h"
#include "io/picture/picture_encoder.h"
#include "io/picture/tiff_handle.h"

namespace chalcedony {
namespace {

// Leaves room for the directory and for offsets below 2^32.
constexpr std::uint64_t kClassicLimit = 4'000'000'000;

int drop_message(TIFF*, void*, const char*, const char*, va_list) { return 1; }

class TiffWriter : public PictureWriter {
 public:
  TiffWriter(const std::filesystem::path& path, const PictureSpec& spec)
      : file_(path), spec_(spec) {
    const std::uint64_t size = spec.shape.row_bytes() * std::uint64_t{spec.shape.height};
    TIFFOpenOptions* options = TIFFOpenOptionsAlloc();
    TIFFOpenOptionsSetErrorHandlerExtR(options, drop_message, nullptr);
    tiff_.reset(
        TIFFOpenExt(file_.temporary_path().c_str(), size > kClassicLimit ? "w8" : "w", options));
    TIFFOpenOptionsFree(options);
    if (!tiff_) fail();
    set_tags();
  }

  EncodedRows encode(std::uint32_t, std::uint32_t rows,
                     std::vector<std::byte> samples) const override {
    return {rows, std::move(samples), 1, 0, {}};
  }

  void append(const EncodedRows& rows) override {
    if (strip_ == 0) TIFFSetField(tiff_.get(), TIFFTAG_ROWSPERSTRIP, rows.rows);
    const auto size = static_cast<tmsize_t>(rows.bytes.size());
    if (TIFFWriteRawStrip(tiff_.get(), strip_++, const_cast<std::byte*>(rows.bytes.data()), size) !=
        size)
      fail();
  }

  void finish() override {
    if (TIFFFlush(tiff_.get()) != 1) fail();
    tiff_.reset();
    file_.commit();
  }

 private:
  [[noreturn]] void fail() const {
    throw OutputError("cannot be written",
                      "check that the folder may be written and the disk has room",
                      file_.path().string());
  }

  void set_tags() {
    const RasterShape& shape = spec_.shape;
    TIFF* tiff = tiff_.get();
    const bool is_float = shape.sample == SampleType::kF32;
    const std::uint32_t colors = shape.channels - (spec_.alpha ? 1 : 0);
    TIFFSetField(tiff, TIFFTAG_IMAGEWIDTH, shape.width);
    TIFFSetField(tiff, TIFFTAG_IMAGELENGTH, shape.height);
    TIFFSetField(tiff, TIFFTAG_SAMPLESPERPIXEL, shape.channels);
    TIFFSetField(tiff, TIFFTAG_BITSPERSAMPLE, 8 * bytes_per_sample(shape.sample));
    TIFFSetField(tiff, TIFFTAG_SAMPLEFORMAT, is_float ? SAMPLEFORMAT_IEEEFP : SAMPLEFORMAT_UINT);
    TIFFSetField(tiff, TIFFTAG_PLANARCONFIG, PLANARCONFIG_CONTIG);
    TIFFSetField(tiff, TIFFTAG_COMPRESSION, COMPRESSION_NONE);
    TIFFSetField(tiff, TIFFTAG_PHOTOMETRIC, colors == 3 ? PHOTOMETRIC_RGB : PHOTOMETRIC_MINISBLACK);
    if (spec_.alpha) {
      const std::uint16_t kind = EXTRASAMPLE_UNASSALPHA;
      TIFFSetField(tiff, TIFFTAG_EXTRASAMPLES, 1, &kind);
    }
    TIFFSetField(tiff, TIFFTAG_SOFTWARE, "Chalcedony");
    if (const std::string text = description(); !text.empty())
      TIFFSetField(tiff, TIFFTAG_IMAGEDESCRIPTION, text.c_str());
    if (const auto profile = icc_profile_for(spec_); !profile.empty())
      TIFFSetField(tiff, TIFFTAG_ICCPROFILE, static_cast<std::uint32_t>(profile.size()),
                   profile.data());
    set_carried();
  }

  /// Our line first, then the words of the picture's own.
  std::string description() const {
    const SampleType sample = spec_.shape.sample;
    std::string line;
    if (!spec_.legend.empty()) {
      line = std::string(kLegendKeyword) + ": " + legend_text(spec_.legend);
    } else if (spec_.plane) {
      line = std::string(kSpaceKeyword) + ": " + plane_note(*spec_.plane, sample);
    } else if (!spec_.labels) {
      line = std::string(kSpaceKeyword) + ": " + space_note(*spec_.space, sample);
    }
    const std::string& own = spec_.carried.description;
    return line.empty() || own.empty() ? line + own : line + "\n" + own;
  }

  void set_carried() {
    const CarriedFacts& carried = spec_.carried;
    TIFF* tiff = tiff_.get();
    if (carried.has_resolution()) {
      constexpr double kCentimetersPerMeter = 100;
      TIFFSetField(tiff, TIFFTAG_RESOLUTIONUNIT, RESUNIT_CENTIMETER);
      TIFFSetField(tiff, TIFFTAG_XRESOLUTION, carried.pixels_per_meter_x / kCentimetersPerMeter);
      TIFFSetField(tiff, TIFFTAG_YRESOLUTION, carried.pixels_per_meter_y / kCentimetersPerMeter);
    }
    if (!carried.captured.empty()) TIFFSetField(tiff, TIFFTAG_DATETIME, carried.captured.c_str());
    for (const GroundTag& one : carried.ground) set_ground(one);
  }

  /// Fields the library does not know must be made known to it first.
  void set_ground(const GroundTag& one) {
    const TIFFDataType type = !one.reals.empty()   ? TIFF_DOUBLE
                              : !one.codes.empty() ? TIFF_SHORT
                                                   : TIFF_ASCII;
    const bool counted = type != TIFF_ASCII;
    static char name[] = "place on the ground";
    const TIFFFieldInfo info{
        one.tag, -1, -1, type, FIELD_CUSTOM, 1, static_cast<unsigned char>(counted ? 1 : 0), name};
    TIFFMergeFieldInfo(tiff_.get(), &info, 1);
    if (!one.reals.empty()) {
      TIFFSetField(tiff_.get(), one.tag, static_cast<int>(one.reals.size()), one.reals.data());
    } else if (!one.codes.empty()) {
      TIFFSetField(tiff_.get(), one.tag, static_cast<int>(one.codes.size()), one.codes.data());
    } else {
      TIFFSetField(tiff_.get(), one.tag, one.text.c_str());
    }
  }

  AtomicFile file_;
  PictureSpec spec_;
  TiffHandle tiff_;
  std::uint32_t strip_ = 0;
};

}  // namespace

std::unique_ptr<PictureWriter> create_tiff(const std::filesystem::path& path,
                                           const PictureSpec& spec) {
  return std::make_unique<TiffWriter>(path, spec);
}

}  // namespace chalcedony
