//! target 14
#include <cstdio>
struct Hive { int n; ~Hive(); };
void use(Hive** hives, Hive* rows[3]) {
  if (hives) delete hives; //! certain
}
void close(FILE** files) {
  if (files[0]) fclose(files[0]);
}
