class Hive {
	weigh() {
		begin(this);
		while (!done)
			record(
				1,
				2,
			);
		finish(this);

		if (always) {
			one();

			/* last */
		}
	}
}
