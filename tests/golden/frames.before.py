# -*- coding: utf-8 -*-
import os

class Box(object):
	frames = []

	def weigh(self, scale, unit = None):
		if unit is None:
			# as on the lid
			unit = 'kg'
		total = 0
		for i in range(len(self.frames)):
			if i > 0 and self.frames[i].side != self.frames[i - 1].side: continue
			total += scale(self.frames[i])
		else:
			total = -1
		for i in range( len( self.frames ) ) :	# once more
			total += scale(self.frames[ i ],
				unit)  # in units
		return total

	def names(self, frames: list):
		out = ''
		for i in range(len(frames)):
			for j in range(len(frames)):
				out += f"{frames[i]} {frames[j]!r:>{len(frames[j])}} {i+j}\
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
    g = open(path)
    for line in g:
        if line.strip() == 'boxes':
            break  # found
    g.close()

    # the end
    h = open(path,
             'r')
    try:  # read it all
        return h.read()
    finally: h.close()
