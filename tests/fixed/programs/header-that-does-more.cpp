// As header-that-does-more.js.
#include <vector>
void weigh(const std::vector<int>& jars) {
  for (size_t i = 0, scale = start(); i < jars.size(); i++) { //! held: runs ahead of the loop
    weigh(jars[i]);
  }
}
