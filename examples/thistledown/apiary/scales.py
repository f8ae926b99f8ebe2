"""The scales under the hives, which write a file a night."""
import json


def load(path):
	f = open(path)
	data = json.load(f)
	f.close()
	return data


def save(path, data):
	out = open(path, "w")
	out.write("""{
  "kept": "by the scales",
  "weights": """)
	json.dump(data["weights"], out)
	out.write("}\n")
	out.close()


def first_weight(path):
	f = open(path)
	if "weights" not in f.read():
		f.close()
		return 0
	f.seek(0)
	weights = json.load(f)["weights"]
	f.close()
	return weights[0]


def gain(weights, start=None):
	if start is None:
		start = weights[0]
	if not weights[-1]:
		last = start
	else:
		last = weights[-1]
	return last - start
