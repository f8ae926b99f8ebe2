//! target 14
//! run
#include <iostream>
#include <memory>
struct Loud {
  explicit Loud(int n) : n(n) {}
  ~Loud() { std::cout << "gone " << n << "\n"; }
  int n;
};
void fail(int n) { if (n > 0) throw 1; }
void work(int n) {
  Loud* loud = new Loud(n); //! likely
  fail(n);
  delete loud;
}
int main() {
  try { work(1); } catch (int) { std::cout << "caught\n"; }
}
