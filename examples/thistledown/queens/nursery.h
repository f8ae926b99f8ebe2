#ifndef THISTLEDOWN_NURSERY_H
#define THISTLEDOWN_NURSERY_H

#include <map>
#include <string>
#include <vector>

/** A cell in which a queen grows. */
struct Cell {
  Cell(const std::string& frame, int days) : frame(frame), days(days) {}
  std::string frame;
  int days;
};

class Nursery {
 public:
  Nursery() {}
  virtual ~Nursery() {}

  void add(const std::string& frame, int days);
  /** Cells of which the queen comes out soon. */
  int ripe() const;
  std::string frames() const;

 private:
  Nursery(const Nursery&);  // cells are not copied
  Nursery& operator=(const Nursery&);

  std::vector<Cell> cells_;
  std::map<std::string, int> perFrame_;
};

#endif
