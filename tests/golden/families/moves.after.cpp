#include <iostream>
#include <map>
#include <string>
#include <vector>

using Weights = std::vector<int>;
using Step = int (*)(int);
using Name = char [8];

#define NEXT() ++counter

struct Box {
  virtual ~Box() = default;
  virtual int size(const Weights &weights, const int more = 1) const { return (int)weights.size() + more; }
  virtual std::string name() { return "box"; }
  int plain() { return 1; }
};
struct Hive : public Box {
  int size(const Weights& all, const int extra) const override { return (int)all.size() * extra; }
  std::string name() override { return "hive"; }
  int plain() { return 2; }
};
struct Tall : Hive {
  std::string name(int) { return "tall"; }
};

void fill(int &into) { into = 9; }
int twice(const int by) { return by * 2; }

int constants(const int given) {
  const int kept = given + 1;
  int changed = given;
  changed += 2;
  int filled = 0;
  fill(filled);
  int counter = 1;
  NEXT();
  int bound = 1;
  int &alias = bound;
  alias = 5;
  int caught = 1;
  auto add = [&caught] { caught += 1; };
  add();
  char text[4] = "abc";
  char *const first = text;
  first[0] = 'x';
  int once;
  if (given > 2) {
    once = kept;
  } else {
    once = twice(kept);
  }
  Step step = twice;
  Name name = "n";
  return kept + changed + filled + counter + bound + caught + text[0] + once + step(2) + name[0];
}

int walked(const Weights &weights, Weights &own, std::map<int, int> &by) {
  int sum = 0;
  for (size_t i = 0; i < weights.size(); ++i) {
    sum += weights[i];
  }
  for (size_t i = 0; i < own.size(); i++) own[i] = own[i] + 1;
  for (int i = 0; i < 2; ++i) sum += by[i];
  for (size_t i = 0; i < own.size(); i++) {
    if (own.size() < 5) own.push_back(own[i]);
  }
  return sum + (int)own.size();
}

int main() {
  Weights weights = {1, 2, 3};
  Weights own = {4, 5};
  std::map<int, int> by;
  by[1] = 7;
  Tall tall;
  Box &box = tall;
  std::cout << constants(1) << " " << constants(5) << " " << walked(weights, own, by) << " " << box.size(weights, 2)
            << box.name() << box.plain() << std::endl;
  return 0;
}
