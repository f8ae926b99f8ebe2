//! target 14
#include <cstdio>
#include <string>
namespace yard {
FILE* fopen(const std::string& name, const char* how);
int fclose(FILE* file);
int size(const std::string& name) {
  FILE* file = fopen(name, "r"); //! likely
  int n = fgetc(file);
  fclose(file);
  return n;
}
}
