#! target 3.11
#! run
keys = ["SIGA", "SIGB", "other"]

codes = {}  #! held: is read later
for n, key in enumerate(keys):
    if key[:3] == "SIG":
        codes[-n] = f"-{key}"
del n, key

lengths = {}  #! held: is read later
for word in keys:
    lengths[word] = len(word)
print(word, codes, lengths)

print(str(b"frame"))
print(str(rb"frame").upper())
print(float(abs(2.5)), complex(2j))


def pair():
    take = lambda: (yield 1)  #! certain python/named-lambda
    return list(take())


print(pair())
