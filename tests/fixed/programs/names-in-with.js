//! target 2021
function look(box, hive) {
  with (box) {
    return hive !== null && hive !== undefined ? hive : 1; //! likely
  }
}
