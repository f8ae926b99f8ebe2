# -*- coding: utf-8 -*-
import os

class Box:
	frames = []

	def weigh(self, scale, unit = None):
		# as on the lid
		unit = 'kg' if unit is None else unit
		total = 0
		for i in range(len(self.frames)):
			if i > 0 and self.frames[i].side != self.frames[i - 1].side: continue
			total += scale(self.frames[i])
		else:
			total = -1
		for i, frame in enumerate( self.frames ) :	# once more
			total += scale(frame,
				unit)  # in units
		return total

	def names(self, frames: list):
		out = ''
		for i, frame in enumerate(frames):
			for j, item in enumerate(frames):
				out += f"{frame} {item!r:>{len(item)}} {i+j}\
"
		return out


def log(path, boxes):
    f = open(path, 'a', encoding='utf-8')

    # header
    print("""boxes
  of today""", file=f)
    if boxes: first = boxes[0]
    else: first = None

    if first is not None:
        best = first
    else:
        best = Box(
        )
    f.close(); os.sync()
    with open(path) as g:
        for line in g:
            if line.strip() == 'boxes':
                break  # found

    # the end
    with open(path,
             'r') as h:  # read it all
        return h.read()
