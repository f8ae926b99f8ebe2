require "forwardable"
require "json"

# Methods that are passed on, and those that are not quite.
class Scale
  attr_reader :reads
  def initialize = @reads = 0
  def weight(unit = "kg") = "3#{unit}"
  def read
    @reads += 1
    block_given? ? yield(@reads) : @reads
  end
  def [](n) = n * 2
  attr_accessor :unit
  def add(*n, **deep, &block) = [n, deep, block&.call]
  def empty? = false
end

class Hive
  extend Forwardable

  attr_reader :scale

  def initialize
    @scale = Scale.new
    @other = nil
  end

  def weight
    scale.weight
  end

  def_delegators :@scale, :[], :unit=, :unit, :empty?, :add

  def reads = @scale.reads + 1
  def none = @other&.weight

  # What the scale shows.
  def read = @scale.read

  def inspect = "hive"

  private

  def secret = @scale.weight
  def hidden = @scale.reads
end

hive = Hive.new
hive.unit = "lb"
puts hive.weight, hive[4], hive.unit, hive.empty?, hive.reads, hive.read, hive.none.inspect, hive.inspect
puts hive.add(1, 2, a: 3) { 4 }.inspect
begin
  hive.secret
rescue NoMethodError
  puts "private"
end
puts Hive.public_instance_methods(false).sort.inspect
