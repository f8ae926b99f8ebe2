class Gate
  def self.open(name)
    gate = new(name)
    return gate unless block_given?
    begin
      yield gate
    ensure
      gate.close
    end
  end
  def initialize(name) = @name = name
  def close = puts("close #{@name}")
  def pass(n)
    raise "pass" if n < 0
    n
  end
end

def read(path)
  file = File.open(path)
  begin
    file.read
  ensure
    file.close
  end
end

def first(path)
  file = File.open(path)
  line = file.gets
  file.close
  line
end

def shared(path)
  line = nil
  file = File.open(path)
  line = file.gets
  file.close
  line
end

def each(paths)
  found = []
  paths.each do |path|
    file = File.open(path)
    next if file.size.zero?
    found << file.gets
    file.close
    found
  end
  found
end

def name(queen)
  queen.nil? ? nil : queen.upcase
end

def flag(x)
  x = true if x.nil?
  x
end

def filled(x)
  x = 1 unless x
  x
end

def cached
  @cached = @cached || []
  @cached << 1
end

def list(x)
  if x.nil?
    []
  elsif x.is_a?(Array)
    x
  else
    [x]
  end
end

def lookup(prices, key)
  prices.key?(key) ? prices[key] : 0
end

gate = Mutex.new
gate.lock
begin
  puts "locked"
ensure
  gate.unlock
end
puts gate.locked?

path = ARGV[0]
out = File.new(path, "w")
out.puts "wax"
out.puts "honey"
out.close
puts read(path), first(path), shared(path), each([path]).inspect
puts name("ada").inspect, name(nil).inspect, flag(false).inspect, flag(nil).inspect, filled(false), filled(nil)
cached
puts cached.size
puts list(nil).inspect, list({ a: 1 }).inspect, list([1]).inspect, list("x").inspect, list(false).inspect
puts lookup({ a: nil }, :a).inspect, lookup({}, :a), lookup({ a: 2 }, :a)
