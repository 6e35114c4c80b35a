#include "figure/plot/joint_page.h"

#include <fmt/format.h>

#include "figure/plot/axis.h"
#include "figure/plot/heat_scale.h"

namespace chalcedony {
namespace {

constexpr double kCountScaleShort = 72;  // above and below, in pixels of the page

}  // namespace

JointPage begin_joint_page(Plot& plot, const std::filesystem::path& path, const std::string& title,
                           const JointHistogram& joint, const std::string& more) {
  std::string apart;
  if (joint.no_hue() > 0)
    apart = fmt::format("; {} of them have no hue and are not shown",
                        grouped(static_cast<double>(joint.no_hue())));
  Box body = plot.begin(path, title,
                        fmt::format("{} counted pixels{}{}",
                                    grouped(static_cast<double>(joint.total())), apart, more));
  JointPage page;
  page.picture = body.cut_left(Plot::kPictureBeside, Plot::kGap);
  page.scale = cut_color_scale(body).inside({.top = kCountScaleShort, .bottom = kCountScaleShort});
  page.histogram = body;
  return page;
}

}  // namespace chalcedony
