// Words of a command as one line, as it would be typed.
#ifndef CHALCEDONY_JOB_RUN_TYPED_LINE_H_
#define CHALCEDONY_JOB_RUN_TYPED_LINE_H_

#include <string>
#include <vector>

namespace chalcedony {

/// `chalcedony mask panel-a.png --where "gray > 3"`
inline std::string typed_line(const std::vector<std::string>& words) {
  std::string line = "chalcedony";
  for (const std::string& word : words) {
    const bool quoted = word.empty() || word.find_first_of(" *<>()&;|$") != std::string::npos;
    line += quoted ? " \"" + word + "\"" : " " + word;
  }
  return line;
}

}  // namespace chalcedony

#endif  // CHALCEDONY_JOB_RUN_TYPED_LINE_H_
