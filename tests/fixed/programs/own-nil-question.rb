#! target 2.7
#! run
class Ghost
  def nil?
    true
  end

  def name
    "ghost"
  end
end

def name(ghost)
  ghost.nil? ? nil : ghost.name #! likely
end
puts name(Ghost.new).inspect
