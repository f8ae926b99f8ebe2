#ifndef THISTLEDOWN_HIVE_H
#define THISTLEDOWN_HIVE_H

#include <cstdio>
#include <string>

struct Queen {
  explicit Queen(const std::string& name) : name(name), age(0) { alive++; }
  ~Queen() { alive--; }
  std::string name;
  int age;
  static int alive;
};

class Hive {
 public:
  explicit Hive(const std::string& village);
  ~Hive();
  Hive(const Hive&) = delete;
  Hive& operator=(const Hive&) = delete;

  void requeen(Queen* queen);
  const Queen* queen() const { return queen_; }
  std::string label() const;

 private:
  std::string village_;
  Queen* queen_;
};

class Notes {
 public:
  explicit Notes(const char* path);
  ~Notes();
  Notes(const Notes&) = delete;
  void add(const std::string& line);

 private:
  FILE* file_;
};

#endif
