#include "job/run/partner_inputs.h"

#include <optional>
#include <set>

#include "core/error.h"
#include "job/run/input_list.h"
#include "job/run/partner_files.h"

namespace chalcedony {
namespace {

using std::filesystem::path;

/// The same for all ways to name a file.
path plain(const path& file) { return std::filesystem::absolute(file).lexically_normal(); }

/// The file that goes with an input; null for none, and for two alike, which the work tells.
const path* partner_of(const path& input, const PartnerFiles& partners) {
  try {
    return partners.find(input);
  } catch (const InputError&) {
    return nullptr;
  }
}

}  // namespace

std::vector<path> without_partners(const std::vector<path>& inputs, const path& named) {
  if (inputs.size() < 2 || !names_pattern(named)) return inputs;
  std::optional<PartnerFiles> pictures;
  try {
    pictures.emplace(named, is_picture_name);
  } catch (const InputError&) {
    return inputs;  // no picture fits, which the work tells where one must
  }
  std::set<path> found;
  std::vector<bool> has_partner;
  for (const path& input : inputs) {
    const path* const partner = partner_of(input, *pictures);
    has_partner.push_back(partner != nullptr);
    if (partner) found.insert(plain(*partner));
  }
  std::vector<path> left;
  for (std::size_t i = 0; i < inputs.size(); ++i)
    if (has_partner[i] || !found.contains(plain(inputs[i]))) left.push_back(inputs[i]);
  return left;
}

}  // namespace chalcedony
