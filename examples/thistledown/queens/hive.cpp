#include "hive.h"

int Queen::alive = 0;

Hive::Hive(const std::string& village) : village_(village), queen_(NULL) {}

Hive::~Hive() {
  delete queen_;
}

void Hive::requeen(Queen* queen) {
  delete queen_;
  queen_ = queen;
}

std::string Hive::label() const {
  if (queen_ == NULL) {
    return village_ + ": no queen";
  }
  return village_ + ": " + queen_->name;
}

Notes::Notes(const char* path) : file_(fopen(path, "w")) {}

Notes::~Notes() {
  if (file_ != NULL) {
    fclose(file_);
  }
}

void Notes::add(const std::string& line) {
  if (file_) fprintf(file_, "%s\n", line.c_str());
}
