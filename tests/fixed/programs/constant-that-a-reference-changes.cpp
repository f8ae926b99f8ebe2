//! rules cpp/const-variable, cpp/initialised-once
//! run
#include <cstdio>
struct Scale {
  int& grams;
  explicit Scale(int& g) : grams(g) {}
  void tare() { grams = 0; }
};
struct Reading { int& grams; };

int braces(int a) {
  int n = a; //! likely cpp/const-variable
  Scale scale{n}; //! possible cpp/const-variable
  scale.tare();
  return n;
}

int parentheses(int a) {
  int n = a; //! likely cpp/const-variable
  Scale scale(n);
  scale.tare();
  return n;
}

int aggregate(int a) {
  int n = a; //! likely cpp/const-variable
  Reading reading = {n};
  reading.grams = 4;
  return n;
}

int either(int a) {
  int n = a;
  int m = 2;
  (a > 1 ? n : m) = 3;
  return n + m;
}

int captured(int a) {
  int n = a;
  auto set = [&r = n] { r = 3; }; //! possible cpp/const-variable
  set();
  return n;
}

int returned(int a) {
  int n = a;
  auto at = [&]() -> int& { return n; }; //! possible cpp/const-variable
  at() = 5;
  return n;
}

int later(int a) {
  int n; //! likely cpp/initialised-once + cpp/const-variable
  if (a > 1) {
    n = 1;
  } else {
    n = 2;
  }
  Scale scale{n}; //! possible cpp/const-variable
  scale.tare();
  return n;
}

int plain(int a) {
  int n = a + 1; //! certain cpp/const-variable
  return n;
}

int main() {
  std::printf("%d %d %d %d\n", braces(1), parentheses(1), aggregate(1), either(2));
  std::printf("%d %d %d %d\n", captured(1), returned(1), later(2), plain(1));
}
