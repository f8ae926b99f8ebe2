//! run
// What a destructor does besides giving the member back went with it, where all of it stood under one test.
#include <cstdio>
struct Queen {
  ~Queen() { std::puts("queen"); }
};
struct Hive {
  Hive() : queen_(new Queen) {}
  Hive(const Hive&) = delete;
  ~Hive() {
    if (queen_) {
      std::puts("hive");
      delete queen_;
    }
  }
  Queen* queen_; //! certain cpp/owned-member
};
struct Yard {
  Yard() : queen_(new Queen) {}
  Yard(const Yard&) = delete;
  ~Yard() {
    if (queen_ != 0) { //! certain cpp/null-pointer
      delete queen_;
      std::puts("yard");
    }
  }
  Queen* queen_; //! certain cpp/owned-member
};
struct Barn {
  Barn() : queen_(new Queen) {}
  Barn(const Barn&) = delete;
  ~Barn() {
    if (queen_ != nullptr) {
      delete queen_;
    } else {
      std::puts("barn");
    }
  }
  Queen* queen_; //! certain cpp/owned-member
};
int main() {
  Hive hive;
  Yard yard;
  Barn barn;
}
