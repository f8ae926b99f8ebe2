//! rules cpp/owned-member
//! run
#include <cstdio>
struct Queen {
  int n;
  ~Queen() { std::printf("queen %d is gone\n", n); }
};

struct Lent {
  Lent(Queen* q, bool mine) : lent(q), mine(mine) {}
  Lent(const Lent&) = delete;
  ~Lent();
  Queen* lent; //! held: only sometimes
  bool mine;
};
Lent::~Lent() {
  if (!mine) return;
  delete lent;
}

struct Jumped {
  Jumped(Queen* q, bool mine) : jumped(q), mine(mine) {}
  Jumped(const Jumped&) = delete;
  ~Jumped() {
    switch (mine) {
      case false: return;
      default: break;
    }
    if (jumped) { //! certain cpp/needless-test
      delete jumped;
      jumped = NULL;
    }
    std::printf("done\n");
  }
  Queen* jumped; //! held: only sometimes
  bool mine;
};

struct Asked {
  explicit Asked(Queen* q) : asked(q) {}
  Asked(const Asked&) = delete;
  ~Asked() {
    if (!asked) return;
    std::printf("asked\n");
    delete asked;
  }
  Queen* asked; //! certain
};

struct Emptied {
  explicit Emptied(Queen* q) : emptied(q) {}
  Emptied(const Emptied&) = delete;
  ~Emptied() {
    std::printf("emptied\n");
    if (emptied) {
      delete emptied;
      emptied = NULL;
    }
    std::printf("empty\n");
  }
  Queen* emptied; //! certain
};

int main() {
  Queen own{1};
  { Lent a(&own, false); Jumped b(&own, false); }
  { Lent a(new Queen{2}, true); Jumped b(new Queen{3}, true); }
  { Asked a(new Queen{4}); Asked b(nullptr); Emptied c(new Queen{5}); Emptied d(nullptr); }
}
