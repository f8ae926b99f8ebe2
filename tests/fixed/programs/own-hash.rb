#! target 2.7
#! run
class Stock < Hash
  def key?(key)
    true
  end

  def fetch(key, other = nil)
    "fetched"
  end
end

def look(stock, key)
  stock.key?(key) ? stock[key] : "none" #! possible
end
puts look(Stock.new, :a).inspect
