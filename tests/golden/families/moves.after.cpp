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

constexpr int MOST = 3;
#define STEP 2
#if STEP > 1
const int wide = STEP;
#endif

struct Jar {
  Jar(int kg, const std::string &of) : kg(kg), of(of) { made++; }
  Jar(const Jar &other) : kg(other.kg), of(other.of) { made += 100; }
  int kg;
  std::string of;
  static int made;
};
int Jar::made = 0;

class Shelf {
 public:
  Shelf() {}
  ~Shelf() = default;
  void put(int kg) { jars_.emplace_back(kg, "clover"); }
  int all() const {
    int sum = 0;
    for (const Jar &jar : jars_) {
      if (jar.kg > MOST) continue;
      sum += jar.kg;
    }
    return sum;
  }

 private:
  Shelf(const Shelf &) = delete;
  Shelf &operator=(const Shelf &) = delete;
  std::vector<Jar> jars_;
};

int iterated(std::map<std::string, int> &by, std::vector<bool> &flags, std::vector<int> &ns) {
  int sum = 0;
  for (std::map<std::string, int>::iterator it = by.begin(), end = by.end(); it != end; ++it) {
    it->second += 1;
    sum += (*it).second + (int)it->first.size();
  }
  for (auto it = flags.begin(); it != flags.end(); ++it) *it = !*it;
  for (auto it = by.begin(); it != by.end();) {
    if (it->second > 2) {
      by.erase(it++);
    } else {
      ++it;
    }
  }
  for (auto it = ns.begin(); it != ns.end(); ++it) {
    int n = *it;
    n += 1;
    *it = n * 2;
    if (it != ns.begin()) sum += n;
  }
  for (auto& item : ns) {
    const int n = item;
    item += 1;
    sum += n + item;
  }
  std::map<std::string, int>::iterator found = by.find("b");
  if (found != by.end()) sum += found->second;
  by.emplace("z", 9);
  const Box *box = new Tall();
  const auto *hive = dynamic_cast<const Hive *>(box);
  if (hive) sum += (int)by.size();
  delete box;
  return sum + (flags[0] ? 1 : 0) + wide;
}

int main() {
  Shelf shelf;
  shelf.put(2);
  shelf.put(4);
  std::map<std::string, int> names;
  names["a"] = 1;
  names["b"] = 0;
  names["c"] = 5;
  std::vector<bool> flags(2);
  std::vector<int> ns(3, 1);
  std::cout << shelf.all() << " " << iterated(names, flags, ns) << " " << names.size() << std::endl;
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
