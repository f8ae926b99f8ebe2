#include <map>
#define TIMES(a) times(a, 2)

int weigh(Hive* hive) {
	{
		Span span(hive);
		// the first frame
		auto text = R"(a
  b
)";
#ifdef SLOW
		wait();
#endif
		log.record(text, // as is
		       hive);
	} // done
	// why not
	if (hive->a) {
		f("x\
 y");
	}
out:
	g();
	one(); two();
	return isNot(hive->a) || *p / (*q * b) << 1 * 2;
}
