// The exceptions of Chalcedony. Each carries what a person needs to mend it.
#ifndef CHALCEDONY_CORE_ERROR_H_
#define CHALCEDONY_CORE_ERROR_H_

#include <stdexcept>
#include <string>
#include <utility>

namespace chalcedony {

/// What is wrong and what to do about it. `place` names the file, option or spot; whoever knows
/// it fills it in, so code that has only numbers leaves it empty.
class Error : public std::runtime_error {
 public:
  Error(std::string problem, std::string remedy, std::string place = {})
      : std::runtime_error(join(place, problem, remedy)),
        place_(std::move(place)),
        problem_(std::move(problem)),
        remedy_(std::move(remedy)) {}

  const std::string& place() const { return place_; }
  const std::string& problem() const { return problem_; }
  const std::string& remedy() const { return remedy_; }

 private:
  static std::string join(const std::string& place, const std::string& problem,
                          const std::string& remedy) {
    std::string line = place.empty() ? problem : place + ": " + problem;
    return remedy.empty() ? line : line + "; " + remedy;
  }

  std::string place_;
  std::string problem_;
  std::string remedy_;
};

/// A picture, table, model or sample file that cannot be used, or a value in it.
class InputError : public Error {
 public:
  using Error::Error;
};

/// A file that could not be written.
class OutputError : public Error {
 public:
  using Error::Error;
};

/// A call that is wrong whatever the files hold: an unknown name, an option out of range.
class UsageError : public Error {
 public:
  using Error::Error;
};

/// The user stopped the run; nothing half is left behind.
class Interrupted : public Error {
 public:
  Interrupted() : Error("stopped before the end", "what was finished is whole") {}
};

/// The same error with the place where it happened, unless it names one already.
template <class SomeError>
SomeError at_place(const SomeError& error, const std::string& place) {
  return error.place().empty() ? SomeError(error.problem(), error.remedy(), place) : error;
}

/// What work() returns; an error of it gets the place, unless it names one already.
template <class SomeError = InputError, class Work>
auto errors_at(const std::string& place, const Work& work) {
  try {
    return work();
  } catch (const SomeError& error) {
    throw at_place(error, place);
  }
}

}  // namespace chalcedony

#endif  // CHALCEDONY_CORE_ERROR_H_
