import os
import tempfile

import inspections as visits
from hives import read_hives
from scales import first_weight, gain, load, save

HERE = os.path.dirname(os.path.abspath(__file__))
RECORDS = os.path.join(HERE, "records")

hives = read_hives(RECORDS)
for i in range(len(hives)):
    print(i, hives[i].lid(), hives[i].queen_name(), hives[i].frames)
hives[0].add_supers([12.5, 9.75])
print(hives[0].supers)

rows = visits.read_inspections(os.path.join(RECORDS, "inspections.csv"))
print(visits.summary(rows))
print(visits.moods(rows))
print(visits.worst(rows, [3, 1, 2]), visits.worst([], []))
print([job() for job in visits.later(rows)])

data = load(os.path.join(RECORDS, "scales.json"))
print(gain(data["weights"]), gain([1, 0], 5))
copy = os.path.join(tempfile.mkdtemp(), "scales.json")
save(copy, data)
print(load(copy), first_weight(copy))
