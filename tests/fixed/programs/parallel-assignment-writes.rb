#! target 2.7
#! run
require "stringio"
require "tempfile"
def read(path, pair)
  f = File.open(path)
  begin
    f, other = pair
    f.read
  ensure
    f.close
  end
end
def first(pair)
  a = nil
  a, b = pair
  a = 1 if a.nil? #! possible
  a
end
puts read(Tempfile.new("x").path, [StringIO.new("a"), 1])
puts first([false, 2]).inspect
