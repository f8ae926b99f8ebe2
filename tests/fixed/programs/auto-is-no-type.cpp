//! target 14
//! run
#include <iostream>
#include <memory>
struct Jar {
  explicit Jar(int n) : n(n) {}
  int n;
};
int main() {
  auto* jar = new Jar(3); //! certain
  std::cout << jar->n << "\n";
  delete jar;
  return 0;
}
