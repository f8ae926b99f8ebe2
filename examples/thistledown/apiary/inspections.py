"""Inspections: who looked into which hive, and what was found."""


def read_inspections(path):
    f = open(path)
    try:
        rows = []
        for line in f:
            line = line.strip()
            if not line:
                continue
            rows.append(tuple(line.split(",")))
        return rows
    finally:
        # the share is slow: do not keep it open
        f.close()


def summary(rows: list, title=None):
    if title is None: title = "Inspections"  # in the minutes
    lines = [title]
    for i in range(len(rows)):  # numbered for the minutes
        # hive, keeper, mood of the bees
        lines.append(f"{i + 1}. {rows[i][0]}: {rows[i][2]} ({rows[i][1]})")
    return """
""".join(lines)


def moods(rows: list):
    found = []
    for i in range(len(rows)):
        found = found + [rows[i][2]]
    return found


def worst(rows, scores):
    low = None
    for i in range(len(rows)):
        score = scores[i]
        if low is None or score < low[1]:
            low = (rows[i][0], score)
    if low:
        result = low
    else:
        result = ('none', 0)
    return result


def later(rows):
    """Reminders are run in the evening, when the list may have grown."""
    jobs = []
    for i in range(len(rows)):
        jobs.append(lambda: rows[i][0])
    return jobs
