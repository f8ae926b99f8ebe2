# What the kiosk at the gate sells.
class Basket
  attr_reader :items

  def initialize(items)
    if items.nil?
      @items = []
    elsif items.is_a?(Array)
      @items = items
    else
      @items = [items]
    end
  end

  def size
    @items.size
  end

  def empty?
    @items.empty?
  end

  def total(prices, discount = nil)
    discount = 0 if discount.nil?
    items.sum { |item| prices.key?(item) ? prices[item] : 0 } - discount
  end
end

class Till
  def initialize(path)
    @path = path
    @gate = Mutex.new
    @sold = nil
  end

  def sell(basket)
    @gate.lock
    begin
      @sold = @sold || []
      @sold << basket
    ensure
      @gate.unlock
    end
    @sold.size
  end

  def close(note)
    file = File.open(@path, "w")
    begin
      @sold.each { |basket| file.puts basket.items.join(" ") }
      file.puts note.strip unless note.nil?
    ensure
      file.close
    end
  end

  def first
    line = nil
    file = File.open(@path)
    line = file.gets
    file.close
    line && line.chomp
  end
end

PRICES = { "jar" => 7, "comb" => 11 }.freeze
till = Till.new(ARGV[0])
puts Basket.new(nil).total(PRICES), Basket.new("jar").total(PRICES), Basket.new(%w[jar comb wax]).total(PRICES, 1)
puts Basket.new("jar").size, Basket.new(nil).empty?
puts till.sell(Basket.new("jar")), till.sell(Basket.new(%w[comb jar]))
till.close(" rain ")
puts till.first
puts File.read(ARGV[0]).lines.last
