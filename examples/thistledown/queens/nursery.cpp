#include "nursery.h"

#define RIPE_AFTER 14  // days

void Nursery::add(const std::string& frame, int days) {
  cells_.push_back(Cell(frame, days));
  std::map<std::string, int>::iterator known = perFrame_.find(frame);
  if (known == perFrame_.end()) {
    perFrame_.insert(std::make_pair(frame, 1));
  } else {
    known->second++;
  }
}

int Nursery::ripe() const {
  int count = 0;
  for (std::vector<Cell>::const_iterator it = cells_.begin(); it != cells_.end(); ++it) {
    if (it->days >= RIPE_AFTER) count++;
  }
  return count;
}

std::string Nursery::frames() const {
  std::string all;
  for (std::map<std::string, int>::const_iterator it = perFrame_.begin(); it != perFrame_.end(); ++it) {
    all += " " + it->first + ":" + std::to_string(it->second);
  }
  return all;
}
