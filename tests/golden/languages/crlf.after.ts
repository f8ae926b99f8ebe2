class Hive {
	weigh() {
		during(this, () => {
			while (isNot(done))
				log.record(
					1,
					2,
				);
		});

		one();

		/* last */
	}
}
