#include "job/run/summary.h"

#include <algorithm>
#include <cstddef>

namespace chalcedony {

Json excluded_json(const Excluded& excluded) {
  Json json = Json::object();
  const auto put = [&](const char* name, std::uint64_t count) {
    if (count > 0) json[name] = count;
  };
  put("outside_region", excluded.outside_region);
  put("outside_mask", excluded.outside_mask);
  put("transparent", excluded.transparent);
  put("not_finite", excluded.not_finite);
  return json;
}

void add_lowest_and_highest(Json& json, const std::vector<double>& percents,
                            const std::vector<std::string>& files) {
  const auto put = [&](const std::string& which, std::vector<double>::const_iterator at) {
    json[which + "_percent"] = *at;
    json[which + "_file"] = files[static_cast<std::size_t>(at - percents.begin())];
  };
  put("lowest", std::min_element(percents.begin(), percents.end()));
  put("highest", std::max_element(percents.begin(), percents.end()));
}

void note_near_gray(Json& picture, std::uint64_t near_gray, std::uint64_t counted) {
  constexpr double kWorthSayingPercent = 10;
  const double share = percent(near_gray, counted);
  if (share > kWorthSayingPercent) picture["near_gray_percent"] = share;
}

}  // namespace chalcedony
