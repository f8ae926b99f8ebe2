#! target 3.1
class Shelf
  def full
    return @full unless @full.nil? #! held: can be false
    @full = begin
      count == 3
    rescue IOError
      false
    end
  end

  def count
    2
  end
end
