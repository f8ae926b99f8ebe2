"""Hives."""


def weigh(hive):
    with during(hive):
        # the first frame
        text = """a
  b
"""

        log.record(text,  # as is
               hive)  # done
    # why not
    if hive.a:
        f('''x
    y''')
    g()
    one(); two()
    return negative(hive.a) or ((hive.a + 1) * (not hive.b)) ** 2 / (1 * 2)


class A:
	def m(self):
		two()

		# last
		return (a if b else c) * d