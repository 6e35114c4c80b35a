#include "job/repeat/recipe.h"

#include <yaml-cpp/yaml.h>

#include <algorithm>

#include "core/error.h"
#include "core/nearest_name.h"
#include "io/file/whole_file.h"

namespace chalcedony {
namespace {

constexpr const char* kRemedy = "docs/recipes.md says what a recipe holds";

class RecipeReader {
 public:
  RecipeReader(const std::filesystem::path& path, const std::map<std::string, std::string>& set,
               const std::filesystem::path& output)
      : path_(path), variables_(set), output_(output) {}

  Recipe read(std::string_view text) {
    const YAML::Node root = load(text);
    if (!root.IsMap()) fail(root, "is no recipe", kRemedy);
    check_keys(root, {"chalcedony", "about", "variables", "options", "steps"});
    if (!root["chalcedony"] || scalar(root["chalcedony"]) != "recipe")
      fail(root, "is no recipe: it does not begin with 'chalcedony: recipe'", kRemedy);
    read_variables(root["variables"]);
    Recipe recipe;
    if (root["about"]) recipe.about = scalar(root["about"]);
    if (root["options"]) recipe.options = options_of(root["options"]);
    const YAML::Node steps = root["steps"];
    if (!steps) fail(root, "has no steps", kRemedy);
    if (!steps.IsSequence() || steps.size() == 0) fail(steps, "steps are not a list", kRemedy);
    for (const YAML::Node& step : steps) recipe.steps.push_back(step_of(step, recipe.steps));
    return recipe;
  }

  std::vector<RecipeOption> read_options(std::string_view text) const {
    const YAML::Node root = load(text);
    return root.IsNull() ? std::vector<RecipeOption>{} : options_of(root);
  }

 private:
  YAML::Node load(std::string_view text) const {
    try {
      return YAML::Load(std::string(text));
    } catch (const YAML::Exception& error) {
      throw InputError("is no YAML" + reason(error.msg), "check quotes and indents",
                       place(error.mark));
    }
  }

  /// What the parser says, but for what it quotes of a file that is no text at all.
  static std::string reason(const std::string& message) {
    const bool printable =
        std::all_of(message.begin(), message.end(), [](char c) { return c >= ' ' && c <= '~'; });
    return printable ? ": " + message : "";
  }

  std::string place(const YAML::Mark& mark) const {
    if (mark.is_null()) return path_.string();
    return path_.string() + ":" + std::to_string(mark.line + 1) + ":" +
           std::to_string(mark.column + 1);
  }
  [[noreturn]] void fail(const YAML::Node& node, const std::string& problem,
                         const std::string& remedy) const {
    throw InputError(problem, remedy, place(node.Mark()));
  }

  void check_keys(const YAML::Node& map, const std::vector<std::string>& known) const {
    for (const auto& entry : map) {
      const auto key = entry.first.as<std::string>("");
      if (std::find(known.begin(), known.end(), key) == known.end())
        fail(entry.first, "there is no key '" + key + "'", suggest_name(key, known));
    }
  }

  void read_variables(const YAML::Node& node) {
    std::vector<std::string> names;
    if (node && !node.IsMap()) fail(node, "variables are no list of name: value", kRemedy);
    if (node)
      for (const auto& entry : node) {
        names.push_back(entry.first.as<std::string>(""));
        if (!entry.second.IsScalar())
          fail(entry.second, "the variable '" + names.back() + "' is no plain value", kRemedy);
        variables_.emplace(names.back(), entry.second.Scalar());  // unless it was set
      }
    for (const auto& [name, value] : variables_)
      if (std::find(names.begin(), names.end(), name) == names.end())
        throw UsageError("--set: the recipe has no variable '" + name + "'",
                         suggest_name(name, names));
    variables_.emplace("out", output_.string());
  }

  /// A plain value with its variables filled in.
  std::string scalar(const YAML::Node& node) const {
    if (!node.IsScalar()) fail(node, "is no plain value", kRemedy);
    std::string text = node.Scalar();
    for (std::size_t at = 0; (at = text.find("${", at)) != std::string::npos;) {
      const std::size_t end = text.find('}', at);
      const std::string name = text.substr(at + 2, end - at - 2);
      const auto found = variables_.find(name);
      if (end == std::string::npos || found == variables_.end())
        fail(node, "there is no variable '" + name + "'", suggest_name(name, variable_names()));
      text.replace(at, end + 1 - at, found->second);
      at += found->second.size();
    }
    return text;
  }
  RecipeWord word(const YAML::Node& node) const { return {scalar(node), place(node.Mark())}; }

  std::vector<std::string> variable_names() const {
    std::vector<std::string> names;
    for (const auto& [name, value] : variables_) names.push_back(name);
    return names;
  }

  std::vector<RecipeOption> options_of(const YAML::Node& node) const {
    if (!node.IsMap()) fail(node, "options are no list of name: value", kRemedy);
    std::vector<RecipeOption> options;
    for (const auto& entry : node) {
      RecipeOption& option = options.emplace_back();
      option.name = word(entry.first);
      option.is_list = entry.second.IsSequence();
      if (option.is_list) {
        for (const YAML::Node& value : entry.second) option.values.push_back(scalar(value));
        continue;
      }
      const std::string value = scalar(entry.second);
      // A quoted "true" is a text.
      option.is_flag = entry.second.Tag() != "!" && (value == "true" || value == "false");
      if (option.is_flag && value == "false") {
        options.pop_back();
      } else if (!option.is_flag) {
        option.values.push_back(value);
      }
    }
    return options;
  }

  RecipeStep step_of(const YAML::Node& node, const std::vector<RecipeStep>& before) const {
    if (!node.IsMap()) fail(node, "a step is no list of key: value", kRemedy);
    check_keys(node, {"name", "command", "input", "files", "options", "keep"});
    if (!node["command"]) fail(node, "the step has no command", kRemedy);
    RecipeStep step;
    step.command = word(node["command"]);
    step.name = node["name"] ? word(node["name"]) : step.command;
    check_name(step, before);
    if (node["input"]) step.input = inputs_of(node["input"], before);
    if (const YAML::Node files = node["files"]) {
      if (node["input"]) fail(files, "the step has an input and files", "leave one of them out");
      if (!files.IsSequence()) fail(files, "files are not a list", "write [FILE, ...]");
      for (const YAML::Node& file : files) step.files.push_back(scalar(file));
    }
    if (node["options"]) step.options = options_of(node["options"]);
    if (node["keep"]) step.keep = is_true(node["keep"]);
    return step;
  }

  bool is_true(const YAML::Node& node) const {
    const std::string text = scalar(node);
    if (text != "true" && text != "false")
      fail(node, "'" + text + "' is neither true nor false", "write true or false");
    return text == "true";
  }

  /// A step's name is the name of its folder.
  static void check_name(const RecipeStep& step, const std::vector<RecipeStep>& before) {
    const std::string& name = step.name.text;
    const bool plain =
        !name.empty() && name.front() != '.' && name.find_first_of("./\\") == std::string::npos;
    if (!plain)
      throw InputError("'" + name + "' cannot be the name of a step",
                       "use letters, numbers and hyphens", step.name.place);
    for (const RecipeStep& other : before)
      if (other.name.text == name)
        throw InputError("two steps are called '" + name + "'", "give one of them another name",
                         step.name.place);
  }

  std::vector<RecipeWord> inputs_of(const YAML::Node& node,
                                    const std::vector<RecipeStep>& before) const {
    std::vector<RecipeWord> inputs;
    if (node.IsSequence()) {
      for (const YAML::Node& one : node) inputs.push_back(word(one));
    } else {
      inputs.push_back(word(node));
    }
    std::vector<std::string> names;
    for (const RecipeStep& step : before) names.push_back(step.name.text);
    for (const RecipeWord& input : inputs) {
      const std::string step = input.text.substr(0, input.text.find('.'));
      if (std::find(names.begin(), names.end(), step) == names.end())
        throw InputError("there is no earlier step '" + step + "'", suggest_name(step, names),
                         input.place);
    }
    return inputs;
  }

  std::filesystem::path path_;
  std::map<std::string, std::string> variables_;
  std::filesystem::path output_;
};

}  // namespace

Recipe parse_recipe(std::string_view text, const std::filesystem::path& path,
                    const std::map<std::string, std::string>& set,
                    const std::filesystem::path& output) {
  return RecipeReader(path, set, output).read(text);
}

Recipe read_recipe(const std::filesystem::path& path, const std::map<std::string, std::string>& set,
                   const std::filesystem::path& output) {
  return parse_recipe(read_text_file(path), path, set, output);
}

std::vector<RecipeOption> read_options(const std::filesystem::path& path) {
  return RecipeReader(path, {}, {}).read_options(read_text_file(path));
}

}  // namespace chalcedony
