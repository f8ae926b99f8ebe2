#include <cstdio>
#include <cstring>
#include <iostream>
#include <memory>
#include <mutex>
#include <string>
#include <vector>

struct Loud {
  explicit Loud(int n) : n(n) { std::cout << "+" << n << " "; }
  virtual ~Loud() { std::cout << "-" << n << " "; }
  int n;
};
struct Louder : Loud {
  explicit Louder(int n) : Loud(n) {}
  ~Louder() override { std::cout << "!" << n << " "; }
};
static int count = 0;
struct Counted { Counted() { count++; } ~Counted() { count--; } };

int look(const Loud* loud) { return loud ? loud->n : 0; }
Loud* kept = nullptr;

int atTheEnd(const bool early) {
  Loud* loud = new Loud(1);
  if (early) {
    delete loud;
    return 0;
  }
  const int n = look(loud);
  delete loud;
  return n;
}
int seenAfterwards() {
  auto counted = std::make_unique<Counted>();
  counted.reset();
  return count;
}
void order() {
  Loud* first = new Louder(2);
  Loud* second = new Loud(3);
  std::cout << look(second) << " ";
  delete first;
  delete second;
}
void thrown() {
  Loud* loud = new Loud(4);
  if (loud->n == 4) {
    delete loud;
    throw 1;
  }
  delete loud;
}
void handedOn() {
  Loud* loud = new Loud(5);
  kept = loud;
}
int someWays(const bool keep) {
  Loud* loud = new Loud(6);
  if (keep) {
    kept = loud;
    return 1;
  }
  delete loud;
  return 0;
}
int array(const int n) {
  std::vector<int> items(n);
  for (int i = 0; i < n; i++) items[i] = i * i;
  const int last = items[n - 1];
  return last;
}
std::mutex gate;
int locked(const int n) {
  std::lock_guard<std::mutex> guard(gate);
  const int twice = n * 2;
  return twice;
}
class Box {
 public:
  Box(int a, int b) : a_(new Loud(a)), b_(NULL) { if (b) b_ = new Louder(b); }
  ~Box() {
    delete b_;
    delete a_;
  }
  Box(const Box&) = delete;
  void swap(Loud* const loud) { delete b_; b_ = loud; }
  Loud* a() { return a_; }
  bool full() const { return b_ != nullptr; }
 private:
  Loud* a_;
  Loud* b_;
};
class Lender {
 public:
  explicit Lender(Loud* loud) : loud_(loud) {}
  ~Lender() {}
  int n() const { return loud_->n; }
 private:
  Loud* loud_;
};
class File {
 public:
  explicit File(const char* path) : file_(fopen(path, "w"), &fclose) {}
  File(const File&) = delete;
  ~File() = default;
  bool put(const char* text) { if (!file_) return false; fputs(text, file_.get()); return true; }
 private:
  std::unique_ptr<FILE, int (*)(FILE*)> file_{nullptr, &fclose};
};
long size(const char* path) {
  std::unique_ptr<FILE, int (*)(FILE*)> file(fopen(path, "r"), &fclose);
  if (!file) return -1;
  fseek(file.get(), 0, SEEK_END);
  const long n = ftell(file.get());
  return n;
}

int main(int, char** const argv) {
  std::cout << atTheEnd(true) << atTheEnd(false) << std::endl;
  std::cout << seenAfterwards() << std::endl;
  order();
  try { thrown(); } catch (int e) { std::cout << "caught " << e << std::endl; }
  handedOn();
  std::cout << kept->n << std::endl;
  delete kept;
  std::cout << someWays(false) << someWays(true) << std::endl;
  delete kept;
  std::cout << array(4) << locked(3) << std::endl;
  {
    Box box(7, 8);
    std::cout << box.full() << look(box.a()) << " ";
    box.swap(new Loud(9));
    box.swap(NULL);
    std::cout << box.full() << std::endl;
    Loud own(10);
    Lender lender(&own);
    std::cout << lender.n() << std::endl;
  }
  { File file(argv[1]); std::cout << file.put("wax\n"); File none("/no/such/folder/file"); std::cout << none.put("x"); }
  std::cout << size(argv[1]) << size("/no/such/file") << std::endl;
  return 0;
}
