#! target 2.7
#! run
class Jar
  if RUBY_VERSION > "1"
    def nil?
      true
    end
  end

  def weight
    3
  end
end

def weigh(jar)
  jar.nil? ? nil : jar.weight #! likely
end
puts weigh(Jar.new).inspect
