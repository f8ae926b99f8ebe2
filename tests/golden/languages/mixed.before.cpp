#include <map>
#define TIMES(a) times(a, 2)

int weigh(Hive* hive) {
	begin(hive);
	// the first frame
	auto text = R"(a
  b
)";
#ifdef SLOW
	wait();
#endif
	record(text, // as is
	       hive);
	finish(hive); // done
	if (always) {
		// why not
		if (hive->a) {
			f("x\
 y");
		}
out:
		g();
	}
	if (always) { one(); two(); }
	return!hive->a || *p / times(*q, b) << times(1,2);
}
