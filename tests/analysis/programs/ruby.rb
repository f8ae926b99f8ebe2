# === assignment makes a local
def f
  jar = 1 #? jar declares
  jar #? jar reads 2
end
# === before its assignment a name is a call
def f
  jar #? jar is outside
  jar = 1
  jar #? jar reads 3
end
# === methods do not see what is around them
jar = 1
def f
  jar #? jar is outside
end
# === blocks do
jar = 1
[2].each { |x| jar += x } #? jar updates 1; x#2 reads 2
# === what a block assigns stays in it
[1].each { |x| inner = x } #? inner declares
inner #? inner is outside
# === what a block assigns may be there already
last = nil
[1].each { |x| last = x } #? last writes 1
last #? last reads 1
# === parameters of a block hide
x = 1
[2].each { |x| x } #? x#2 reads 2
x #? x reads 1
# === locals of a block
x = 1
[2].each { |y; x| x = y } #? x#2 writes 2
# === if and while are no scopes
if true
  jar = 1
end
jar #? jar reads 2
# === a method of the class
class Hive
  def go
    open #? open reads 5
  end
  def open; end
end
# === a local hides a method
class Hive
  def size; end
  def get
    size = 1
    size #? size reads 4
  end
end
# === instance variables
class Hive
  def set
    @size = 1 #? @size declares
  end
  def get
    @size #? @size reads 3
  end
end
# === what is inherited cannot be told
class Box < Crate
  def get
    width #? width is unknown
  end
end
# === constants
class Hive
  MAX = 3 #? MAX declares
  def get
    MAX #? MAX reads 2
  end
end
# === a class opened twice
class Hive
  MAX = 3
end
class Hive
  TWICE = MAX * 2 #? MAX reads 2
end
# === constants by path
module Yard
  SIZE = 1
end
Yard::SIZE #? Yard reads 1; SIZE means 2
# === self
class Hive
  def go
    self.open #? open means 5
  end
  def open; end
end
# === members of others
def f(other)
  other.size #? size is unknown; other reads 1
end
# === several at once
a, (b, *c) = list #? a declares; b declares; c declares
c #? c reads 1
# === rescue
begin
  f
rescue IOError => e #? e declares
  e #? e reads 3
end
# === keyword parameters
def f(side:, top: side) #? side#2 reads 1
  side #? side reads 1
end
# === short hashes read
side = 1
f(side:) #? side reads 1
# === patterns
case list
in [first, *others] #? first declares; others declares
  others #? others reads 2
end
# === assigned if missing
def f(a)
  a ||= []
  a.size #? a missing no
end
# === nil?
def f(a)
  return if a.nil?
  a.size #? a missing no
end
# === a safe call says nothing
def f(a)
  a&.size
  a.size #? a missing yes
end
# === unless
def f(a)
  x = 1 unless a
  x #? x assigned no
end
# === assigned on all ways of a case
def f(a)
  case a
  when 1 then x = 1
  else x = 2
  end
  x #? x assigned yes
end
# === ensure
def f
  open
  begin
    g #? reaches 6
  ensure
    close
  end
end
# === a block may not run
def f(list)
  x = nil
  list.each { |i| y = i }
  x #? x assigned yes; x unchanged since 2
end
# === raise leaves
def f(a)
  raise a #? throws yes
end
# === a block captures a local of its method
def f(list)
  sum = 0
  list.each { |i| sum += i } #? sum captures 2
  sum #? sum changed since 2 yes
end
# === read later
def f
  n = 1 #? n after yes
  g(n)
  n = 2 #? n after no
end
# === escapes by return
def f
  n = make #? n escapes yes
  return n
end
