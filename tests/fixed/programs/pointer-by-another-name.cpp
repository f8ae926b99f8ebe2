//! target 14
#include <memory>
struct Queen { explicit Queen(int n) : n(n) {} int n; };
using QueenPtr = Queen*;
void take(Queen* /* ours */ & q) { q = nullptr; }
void keep(QueenPtr& q) { q = nullptr; }
void look(QueenPtr const& q) { (void)q->n; }
void f() {
  auto* a = new Queen(1); //! held: takes a pointer by reference
  take(a);
  delete a;
  auto* b = new Queen(1); //! likely
  keep(b);
  delete b;
  auto* c = new Queen(1); //! certain
  look(c);
  delete c;
}
