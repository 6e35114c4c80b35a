// Inputs that only go with other inputs.
#ifndef CHALCEDONY_JOB_RUN_PARTNER_INPUTS_H_
#define CHALCEDONY_JOB_RUN_PARTNER_INPUTS_H_

#include <filesystem>
#include <vector>

namespace chalcedony {

/// The inputs but for the files that go with others of them by a pattern (see PartnerFiles) and
/// have none of it themselves: masks beside their pictures, in a folder or where a shell named all
/// that is there. All of them where `named` is no pattern, or no picture fits it.
std::vector<std::filesystem::path> without_partners(
    const std::vector<std::filesystem::path>& inputs, const std::filesystem::path& named);

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_PARTNER_INPUTS_H_
