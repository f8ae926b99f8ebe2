#include <cstring>
#include <iostream>
#include <mutex>
#include <string>

#include "hive.h"
#include "nursery.h"

namespace {

std::mutex gate;
int marked = 0;

void mark(const Queen* queen) {
  gate.lock();
  if (queen != NULL) marked++;
  gate.unlock();
}

/** The lines of a file; -1 where it cannot be read. */
int lines(const char* path) {
  FILE* file = fopen(path, "r");
  if (file == NULL) {
    return -1;
  }
  int count = 0;
  char buffer[80];
  while (fgets(buffer, sizeof(buffer), file) != NULL) count++;
  fclose(file);
  return count;
}

bool rear(const std::string& name, bool cold) {
  Queen* queen = new Queen(name);
  if (cold) {
    delete queen;
    return false;
  }
  queen->age = 1;
  mark(queen);
  std::cout << queen->name << " " << queen->age << std::endl;
  delete queen;
  return true;
}

int heaviest(int n) {
  int* weights = new int[n];
  for (int i = 0; i < n; i++) weights[i] = (i * 7) % 5;
  int most = 0;
  for (int i = 0; i < n; i++) most = weights[i] > most ? weights[i] : most;
  delete[] weights;
  return most;
}

bool findAge(const char* name, int* age) {
  if (strlen(name) == 0) {
    return false;
  }
  *age = 2;
  return true;
}

}  // namespace

int main(int, char** argv) {
  {
    Hive north("North");
    std::cout << north.label() << std::endl;
    north.requeen(new Queen("Beatrice"));
    north.requeen(new Queen("Clover"));
    std::cout << north.label() << " " << Queen::alive << std::endl;
    mark(north.queen());
    Notes notes(argv[1]);
    notes.add(north.label());
    notes.add("calm");
  }
  std::cout << Queen::alive << " " << lines(argv[1]) << " " << lines("/no/such/file") << std::endl;
  bool dahlia = rear("Dahlia", true);
  bool elder = rear("Elder", false);
  int age = 0;
  bool nobody = findAge("", &age);
  bool flora = findAge("Flora", &age);
  std::cout << dahlia << elder << " " << nobody << flora << " " << age << std::endl;
  Nursery nursery;
  nursery.add("F2", 15);
  nursery.add("F1", 9);
  nursery.add("F2", 14);
  std::cout << nursery.ripe() << nursery.frames() << std::endl;
  std::cout << heaviest(6) << " " << marked << " " << Queen::alive << std::endl;
  return 0;
}
