"""Hives."""


def weigh(hive):
    begin(hive)
    # the first frame
    text = """a
  b
"""

    record(text,  # as is
           hive)
    finish(hive)  # done
    if always:
        # why not
        if hive.a:
            f('''x
    y''')
        g()
    if always: one(); two()
    return-hive.a or times(hive.a + 1, not hive.b) ** 2 / times(1,2)


class A:
	def m(self):
		if always:
			two()

			# last
		return times(a if b else c,
		             d)